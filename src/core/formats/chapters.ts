import { fitLine } from '../basics/text';

/** A part of a recording that has a name. */
export interface Chapter {
	readonly startMs: number;
	readonly title: string;
}
/** No more are read of one file. */
export const MOST_CHAPTERS = 500;
/** Of one chapter's name, characters. */
export const CHAPTER_TITLE = 200;

const asChapter = (startMs: number, title: string): Chapter => ({
	startMs: Math.max(0, Math.round(startMs)),
	title: fitLine(title, CHAPTER_TITLE)
});
const inOrder = (chapters: Chapter[]): Chapter[] =>
	chapters
		.filter(({ startMs }) => Number.isSafeInteger(startMs))
		.sort((a, b) => a.startMs - b.startMs)
		.slice(0, MOST_CHAPTERS);

const viewOf = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
const utf8 = new TextDecoder();

/** Of the box "chpl" below moov and udta, its contents without its head: a count, then 100 ns and a name for each. */
export function chplChapters(bytes: Uint8Array): Chapter[] {
	const view = viewOf(bytes);
	if (bytes.length < 9) return [];
	const out: Chapter[] = [];
	const count = view.getUint8(8);
	for (let at = 9; out.length < count && at + 9 <= bytes.length;) {
		const length = view.getUint8(at + 8);
		if (at + 9 + length > bytes.length) break;
		out.push(asChapter(Number(view.getBigUint64(at)) / 10_000, utf8.decode(bytes.subarray(at + 9, at + 9 + length))));
		at += 9 + length;
	}
	return inOrder(out);
}

/** Of comments in the way of Vorbis: CHAPTER001=00:01:02.500, CHAPTER001NAME=… Keys in any case. */
export function commentChapters(comments: Readonly<Record<string, unknown>>): Chapter[] {
	const named = new Map(Object.entries(comments).map(([key, value]) => [key.toUpperCase(), value]));
	const out: Chapter[] = [];
	for (const [key, value] of named) {
		const time =
			/^CHAPTER\d{1,4}$/.test(key) && typeof value === 'string'
				? /^(\d{1,3}):(\d\d):(\d\d(?:\.\d{1,9})?)$/.exec(value.trim())
				: null;
		if (!time) continue;
		const name = named.get(`${key}NAME`);
		const seconds = Number(time[1]) * 3600 + Number(time[2]) * 60 + Number(time[3]);
		out.push(asChapter(seconds * 1000, typeof name === 'string' ? name : ''));
	}
	return inOrder(out);
}

const ID3_HEAD = 10;
/** Seven bits of each byte. */
const syncSafe = (view: DataView, at: number): number =>
	[0, 1, 2, 3].reduce((sum, n) => sum * 128 + (view.getUint8(at + n) & 0x7f), 0);

/** The frames of an ID3v2.3 or 2.4 tag. Source: ID3v2.4.0 structure, 3 and 4. */
function* id3Frames(
	bytes: Uint8Array,
	from: number,
	to: number,
	version: number
): Generator<{ id: string; body: Uint8Array }> {
	const view = viewOf(bytes);
	for (let at = from; at + ID3_HEAD <= to;) {
		const id = String.fromCharCode(...bytes.subarray(at, at + 4));
		const size = version === 4 ? syncSafe(view, at + 4) : view.getUint32(at + 4);
		if (!/^[A-Z0-9]{4}$/.test(id) || at + ID3_HEAD + size > to) return;
		yield { id, body: bytes.subarray(at + ID3_HEAD, at + ID3_HEAD + size) };
		at += ID3_HEAD + size;
	}
}
const ID3_TEXT = ['iso-8859-1', 'utf-16', 'utf-16be', 'utf-8'];
/** Up to the zero that ends it. */
const endless = (text: string): string => text.split('\0', 1)[0]!;

/** Of the tag at a file's beginning. Source: ID3v2 chapter frame addendum 1.0, 3.1. */
export function id3Chapters(bytes: Uint8Array): Chapter[] {
	if (bytes.length < ID3_HEAD || bytes[0] !== 0x49 || bytes[1] !== 0x44 || bytes[2] !== 0x33) return [];
	const version = bytes[3]!;
	const extended = (bytes[5]! & 0x40) !== 0;
	if ((version !== 3 && version !== 4) || extended) return [];
	const end = Math.min(bytes.length, ID3_HEAD + syncSafe(viewOf(bytes), 6));
	const out: Chapter[] = [];
	for (const { id, body } of id3Frames(bytes, ID3_HEAD, end, version)) {
		if (id !== 'CHAP' || out.length >= MOST_CHAPTERS) continue;
		const zero = body.indexOf(0);
		if (zero < 0 || zero + 17 > body.length) continue;
		let title = '';
		for (const inner of id3Frames(body, zero + 17, body.length, version))
			if (inner.id === 'TIT2')
				title = endless(new TextDecoder(ID3_TEXT[inner.body[0] ?? 0] ?? 'iso-8859-1').decode(inner.body.subarray(1)));
		out.push(asChapter(viewOf(body).getUint32(zero + 1), title));
	}
	return inOrder(out);
}

const EBML = {
	segment: 0x18538067,
	chapters: 0x1043a770,
	edition: 0x45b9,
	atom: 0xb6,
	start: 0x91,
	display: 0x80,
	title: 0x85,
	cluster: 0x1f43b675
};

/** An element's id and size, or null where the bytes end or are none. Source: RFC 8794, 4 and 5. */
function element(bytes: Uint8Array, at: number, to: number): { id: number; from: number; to: number } | null {
	const first = bytes[at];
	if (first === undefined || first === 0 || at >= to) return null;
	const idLength = Math.clz32(first) - 23;
	let id = 0;
	for (let n = 0; n < idLength; n++) id = id * 256 + (bytes[at + n] ?? 0);
	const lead = bytes[at + idLength];
	if (idLength > 4 || lead === undefined || lead === 0) return null;
	const sizeLength = Math.clz32(lead) - 23;
	let size = lead & ((1 << (8 - sizeLength)) - 1);
	let unknown = size === (1 << (8 - sizeLength)) - 1;
	for (let n = 1; n < sizeLength; n++) {
		const next = bytes[at + idLength + n] ?? 0;
		unknown &&= next === 255;
		size = size * 256 + next;
	}
	const from = at + idLength + sizeLength;
	return { id, from, to: unknown ? to : Math.min(to, from + size) };
}
function* elements(bytes: Uint8Array, from: number, to: number): Generator<{ id: number; from: number; to: number }> {
	for (let at = from; at < to;) {
		const found = element(bytes, at, to);
		if (!found || found.to <= at) return;
		yield found;
		at = found.to;
	}
}

/** Of the beginning of a Matroska or WebM file, as far as its chapters stand before what is played. Source: RFC 9559, 5.1.7. */
export function matroskaChapters(bytes: Uint8Array): Chapter[] {
	const out: Chapter[] = [];
	for (const segment of elements(bytes, 0, bytes.length)) {
		if (segment.id !== EBML.segment) continue;
		for (const top of elements(bytes, segment.from, segment.to)) {
			if (top.id === EBML.cluster) return inOrder(out);
			if (top.id !== EBML.chapters) continue;
			for (const edition of elements(bytes, top.from, top.to)) {
				if (edition.id !== EBML.edition) continue;
				for (const atom of elements(bytes, edition.from, edition.to))
					if (atom.id === EBML.atom && out.length < MOST_CHAPTERS) out.push(atomOf(bytes, atom.from, atom.to));
			}
		}
	}
	return inOrder(out);
}

function atomOf(bytes: Uint8Array, from: number, to: number): Chapter {
	let startNs = 0;
	let title = '';
	for (const part of elements(bytes, from, to)) {
		if (part.id === EBML.start) startNs = bytes.subarray(part.from, part.to).reduce((sum, byte) => sum * 256 + byte, 0);
		if (part.id === EBML.display)
			for (const shown of elements(bytes, part.from, part.to))
				if (shown.id === EBML.title && title === '') title = utf8.decode(bytes.subarray(shown.from, shown.to));
	}
	return asChapter(startNs / 1e6, title);
}
