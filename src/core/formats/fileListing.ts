import { fault, ok, type Result } from '../basics/result';
import type { Chroma } from './codecString';
import { readJson } from './json/json';
import { readPixelFormat } from './pixelFormat';

/** One file of a listing; null where the listing does not say. */
export interface ListedFile {
	/** With slashes, as the listing has it. */
	readonly path: string;
	readonly sizeBytes: number | null;
	/** What ffprobe says of it. */
	readonly probed: Probed | null;
}
/** What ffprobe says of a file. Source: ffprobe(1), -show_format -show_streams. */
export interface Probed {
	readonly durationMs: number | null;
	readonly title: string;
	readonly sound: {
		readonly codec: string;
		readonly sampleRateHz: number;
		readonly channels: number;
		readonly bits: number | null;
	} | null;
	readonly picture: {
		readonly codec: string;
		readonly widthPx: number;
		readonly heightPx: number;
		readonly framesPerSec: number | null;
		readonly bitDepth: number;
		readonly chroma: Chroma | null;
		readonly fullRange: boolean | null;
		readonly interlaced: boolean;
		readonly hdr: 'pq' | 'hlg' | null;
	} | null;
}
/** A listing, whoever made it. */
export interface FileListing {
	readonly by: 'ffprobe' | 'find' | 'ls' | 'names';
	readonly files: readonly ListedFile[];
	/** Lines that say nothing of a file. */
	readonly passedOver: number;
}

const MOST_FILES = 100_000;
const LONGEST_PATH = 2000;
const LONGEST = 100_000_000;

/**
 * Files that a person listed where they lie: the JSON of ffprobe (one object for each file, one after the other, or in a list),
 * `find -printf '%s\t%p\n'` (or any lines of a size, a tabulator and a path), `ls -lR`, or plain names, a line each. Bytes of UTF-16
 * are read too, which is what a Windows shell writes. Faults: `listing-long`, `listing-empty`, `listing-torn`.
 */
export function readFileListing(bytes: Uint8Array): Result<FileListing> {
	if (bytes.length > LONGEST) return fault('listing-long', 'It has more than 100 MB. List one folder after the other.');
	const text = textOf(bytes).trimStart();
	if (text === '') return fault('listing-empty', 'There is nothing in it.');
	const read = text[0] === '{' || text[0] === '[' ? readProbes(text) : ok(readLines(text));
	if (read.ok && read.value.files.length === 0)
		return fault('listing-empty', 'It names no file. Paste all that the command printed.');
	if (read.ok && read.value.files.length > MOST_FILES)
		return fault('listing-long', `It names more than ${MOST_FILES} files. List one folder after the other.`);
	return read;
}

function textOf(bytes: Uint8Array): string {
	const [a, b] = bytes;
	const encoding = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : 'utf-8';
	return new TextDecoder(encoding).decode(bytes);
}

const clean = (path: string): string => path.replaceAll('\\', '/').replace(/^(?:\.\/)+/, '');
const isPath = (path: string): boolean => path !== '' && path.length <= LONGEST_PATH;

function readLines(text: string): FileListing {
	const lines = text.split('\n').map((line) => (line.endsWith('\r') ? line.slice(0, -1) : line));
	if (lines.some((line) => LS_FILE.test(line))) return readLs(lines);
	const sized = lines.filter((line) => SIZED.test(line)).length;
	const isFind = sized * 2 > lines.length;
	const files: ListedFile[] = [];
	let passedOver = 0;
	for (const line of lines) {
		if (line.trim() === '') continue;
		const tab = line.indexOf('\t');
		const path = clean(isFind ? line.slice(tab + 1) : line);
		if ((isFind && !SIZED.test(line)) || !isPath(path)) passedOver++;
		else files.push({ path, sizeBytes: isFind ? Number(line.slice(0, tab)) : null, probed: null });
	}
	return { by: isFind ? 'find' : 'names', files, passedOver };
}
const SIZED = /^\d{1,15}\t./;

/** Mode, links, owner, group, size, date in three words, name. Source: POSIX.1-2017, ls, -l. */
const LS_FILE = /^-[rwxsStT-]{9}[.+@]? +\d+ +\S+ +\S+ +(\d+) +\S+ +\S+ +\S+ (.+)$/;

function readLs(lines: readonly string[]): FileListing {
	const files: ListedFile[] = [];
	let folder = '';
	let passedOver = 0;
	for (const line of lines) {
		const file = LS_FILE.exec(line);
		if (file) {
			const path = clean(folder === '' ? file[2]! : `${folder}/${file[2]!}`);
			if (isPath(path)) files.push({ path, sizeBytes: Number(file[1]), probed: null });
			else passedOver++;
		} else if (line.endsWith(':')) folder = clean(line.slice(0, -1)) === '.' ? '' : clean(line.slice(0, -1));
		else if (line.trim() !== '' && !/^(?:total \d|[dlbcps][rwx-])/.test(line)) passedOver++;
	}
	return { by: 'ls', files, passedOver };
}

/** Objects one after the other, as ffprobe writes them for one file after the other, or one list of them. */
function readProbes(text: string): Result<FileListing> {
	const files: ListedFile[] = [];
	let passedOver = 0;
	for (const piece of piecesOf(text)) {
		const json = readJson(piece);
		if (!json.ok) {
			// The last one may be cut off; what stands before it is whole.
			if (files.length > 0) {
				passedOver++;
				continue;
			}
			return fault('listing-torn', `${json.faults[0]!.message} Paste all of it.`);
		}
		for (const value of Array.isArray(json.value) ? json.value : [json.value]) {
			const file = probedFile(value);
			if (file) files.push(file);
			else passedOver++;
		}
	}
	return ok({ by: 'ffprobe', files, passedOver });
}

function piecesOf(text: string): string[] {
	const out: string[] = [];
	let depth = 0;
	let from = 0;
	let inString = false;
	for (let at = 0; at < text.length; at++) {
		const code = text.charCodeAt(at);
		if (inString) {
			if (code === 0x5c) at++;
			else if (code === 0x22) inString = false;
		} else if (code === 0x22) inString = true;
		else if (code === 0x7b || code === 0x5b) {
			if (depth++ === 0) from = at;
		} else if ((code === 0x7d || code === 0x5d) && depth > 0 && --depth === 0) out.push(text.slice(from, at + 1));
	}
	if (depth > 0) out.push(text.slice(from));
	return out;
}

type Loose = Readonly<Record<string, unknown>>;
const isObject = (value: unknown): value is Loose =>
	typeof value === 'object' && value !== null && !Array.isArray(value);
const textIn = (value: unknown): string => (typeof value === 'string' ? value : '');
const numberIn = (value: unknown): number | null => {
	const number = typeof value === 'number' ? value : typeof value === 'string' && value !== '' ? Number(value) : NaN;
	return Number.isFinite(number) && number > 0 ? number : null;
};
/** "30000/1001"; "0/0" where there is none. */
const rateIn = (value: unknown): number | null => {
	const [num, den = '1'] = textIn(value).split('/');
	return numberIn(Number(num) / Number(den));
};

function probedFile(value: unknown): ListedFile | null {
	if (!isObject(value) || !isObject(value.format)) return null;
	const { format } = value;
	const path = clean(textIn(format.filename));
	if (!isPath(path)) return null;
	const streams = Array.isArray(value.streams) ? value.streams.filter(isObject) : [];
	const seconds = numberIn(format.duration);
	const tags = isObject(format.tags) ? format.tags : {};
	return {
		path,
		sizeBytes: numberIn(format.size),
		probed: {
			durationMs: seconds === null ? null : Math.round(seconds * 1000),
			title: textIn(tags.title ?? tags.TITLE).slice(0, 300),
			sound: soundIn(streams.find(({ codec_type }) => codec_type === 'audio')),
			// A cover is a still picture that is only shown beside the sound.
			picture: pictureIn(streams.find((stream) => stream.codec_type === 'video' && !isCover(stream)))
		}
	};
}

const isCover = ({ disposition }: Loose): boolean => isObject(disposition) && disposition.attached_pic === 1;

function soundIn(stream: Loose | undefined): Probed['sound'] {
	const sampleRateHz = numberIn(stream?.sample_rate);
	const channels = numberIn(stream?.channels);
	if (!stream || sampleRateHz === null || channels === null) return null;
	return {
		codec: textIn(stream.codec_name),
		sampleRateHz,
		channels,
		bits: numberIn(stream.bits_per_raw_sample) ?? numberIn(stream.bits_per_sample)
	};
}

function pictureIn(stream: Loose | undefined): Probed['picture'] {
	const widthPx = numberIn(stream?.width);
	const heightPx = numberIn(stream?.height);
	if (!stream || widthPx === null || heightPx === null) return null;
	const samples = readPixelFormat(textIn(stream.pix_fmt));
	const range = textIn(stream.color_range);
	return {
		codec: textIn(stream.codec_name),
		widthPx,
		heightPx,
		framesPerSec: rateIn(stream.avg_frame_rate) ?? rateIn(stream.r_frame_rate),
		// What is decoded counts: of some codecs the raw bits are said wrongly, or not at all.
		bitDepth: samples?.bitDepth ?? numberIn(stream.bits_per_raw_sample) ?? 8,
		chroma: samples?.chroma ?? null,
		fullRange: range === 'pc' || samples?.fullRange === true ? true : range === 'tv' ? false : null,
		// Top or bottom field first, as stored and as shown. Source: ffprobe, field_order.
		interlaced: /^(?:tt|bb|tb|bt)$/.test(textIn(stream.field_order)),
		hdr: TRANSFERS[textIn(stream.color_transfer)] ?? null
	};
}

/** Source: ITU-T H.273, table 3, as ffprobe names them. */
const TRANSFERS: Readonly<Record<string, 'pq' | 'hlg'>> = { smpte2084: 'pq', 'arib-std-b67': 'hlg' };
