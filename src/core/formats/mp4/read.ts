import { fault, ok, type Result } from '../../basics/result';

/** One track of a film file, as its own boxes describe it. */
export interface Mp4Track {
	readonly kind: 'picture' | 'sound';
	/** "h264", "h265", "av1", "aac"; the four letters of the file where they are none of those. */
	readonly codec: string;
	readonly durationMs: number;
	readonly samples: number;
	/** Of a picture. */
	readonly widthPx: number;
	readonly heightPx: number;
	readonly bitDepth: number;
	/** Every frame stands equally long. */
	readonly constantRate: boolean;
	/** Of sound. */
	readonly sampleRateHz: number;
	readonly channels: number;
}

/** A film file: its tracks and how long it runs. */
export interface Mp4 {
	readonly durationMs: number;
	readonly tracks: readonly Mp4Track[];
}

const CODECS: Readonly<Record<string, string>> = {
	avc1: 'h264',
	avc3: 'h264',
	hvc1: 'h265',
	hev1: 'h265',
	vp09: 'vp9',
	av01: 'av1',
	mp4a: 'aac',
	'ac-3': 'ac3',
	Opus: 'opus',
	fLaC: 'flac',
	mp4v: 'mpeg4'
};
/** No file has more boxes side by side that matter. */
const MOST_BOXES = 10_000;
const MOST_TRACKS = 64;

interface Box {
	readonly type: string;
	readonly from: number;
	readonly to: number;
}

/** A cursor over bytes that never reads beyond them. */
class Boxes {
	readonly #view: DataView;
	constructor(readonly bytes: Uint8Array) {
		this.#view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
	}
	u8 = (at: number): number => this.bytes[at] ?? 0;
	u16 = (at: number): number => (at + 2 <= this.bytes.length ? this.#view.getUint16(at) : 0);
	u32 = (at: number): number => (at + 4 <= this.bytes.length ? this.#view.getUint32(at) : 0);
	u64 = (at: number): number => this.u32(at) * 2 ** 32 + this.u32(at + 4);
	type = (at: number): string => String.fromCharCode(...this.bytes.subarray(at, at + 4));

	/** Boxes side by side. Source: ISO/IEC 14496-12, clause 4.2. */
	*in(from: number, to: number): Generator<Box> {
		let at = from;
		for (let n = 0; n < MOST_BOXES && at + 8 <= to; n++) {
			const short = this.u32(at);
			const head = short === 1 ? 16 : 8;
			const size = short === 1 ? this.u64(at + 8) : short === 0 ? to - at : short;
			if (size < head) return;
			yield { type: this.type(at + 4), from: at + head, to: Math.min(to, at + size) };
			at += size;
		}
	}
	find(box: Box | null, ...path: readonly string[]): Box | null {
		let at = box;
		for (const type of path) {
			if (!at) return null;
			let next: Box | null = null;
			for (const child of this.in(at.from, at.to))
				if (child.type === type) {
					next = child;
					break;
				}
			at = next;
		}
		return at;
	}
}

/** mdhd and mvhd alike: time scale, then duration. Source: ISO/IEC 14496-12, clauses 8.2.2 and 8.4.2. */
function durationMs(boxes: Boxes, box: Box | null): number {
	if (!box) return 0;
	const long = boxes.u8(box.from) === 1;
	const scale = boxes.u32(box.from + (long ? 20 : 12));
	const units = long ? boxes.u64(box.from + 24) : boxes.u32(box.from + 16);
	return scale === 0 ? 0 : (units / scale) * 1000;
}

/** Source: ISO/IEC 14496-12, clause 8.6.1.2: runs of samples that last equally long. */
function samplesOf(boxes: Boxes, box: Box | null): { samples: number; constantRate: boolean } {
	if (!box) return { samples: 0, constantRate: true };
	const runs = Math.min(boxes.u32(box.from + 4), Math.floor((box.to - box.from - 8) / 8), 1_000_000);
	let samples = 0;
	const lengths = new Set<number>();
	for (let n = 0; n < runs; n++) {
		const count = boxes.u32(box.from + 8 + n * 8);
		samples += count;
		// The last frame alone may stand longer.
		if (n < runs - 1 || count > 1 || runs === 1) lengths.add(boxes.u32(box.from + 12 + n * 8));
	}
	return { samples, constantRate: lengths.size <= 1 };
}

/** Profiles of ten bits and more. Source: ISO/IEC 14496-15, AVCDecoderConfigurationRecord; HEVCDecoderConfigurationRecord. */
function bitDepthOf(boxes: Boxes, entry: Box): number {
	const children: Box = { type: '', from: entry.from + 78, to: entry.to };
	const avc = boxes.find(children, 'avcC');
	if (avc) return [110, 122, 244].includes(boxes.u8(avc.from + 1)) ? 10 : 8;
	const hevc = boxes.find(children, 'hvcC');
	return hevc ? 8 + (boxes.u8(hevc.from + 17) & 7) : 8;
}

function trackOf(boxes: Boxes, trak: Box): Mp4Track | null {
	const mdia = boxes.find(trak, 'mdia');
	const handler = boxes.find(mdia, 'hdlr');
	const kind = handler && { vide: 'picture' as const, soun: 'sound' as const }[boxes.type(handler.from + 8)];
	const stsd = boxes.find(mdia, 'minf', 'stbl', 'stsd');
	const entry = stsd && boxes.in(stsd.from + 8, stsd.to).next().value;
	if (!kind || !entry) return null;
	const isPicture = kind === 'picture';
	return {
		kind,
		codec: CODECS[entry.type] ?? entry.type.replace(/[^ -~]/g, '?'),
		durationMs: durationMs(boxes, boxes.find(mdia, 'mdhd')),
		...samplesOf(boxes, boxes.find(mdia, 'minf', 'stbl', 'stts')),
		widthPx: isPicture ? boxes.u16(entry.from + 24) : 0,
		heightPx: isPicture ? boxes.u16(entry.from + 26) : 0,
		bitDepth: isPicture ? bitDepthOf(boxes, entry) : 16,
		channels: isPicture ? 0 : boxes.u16(entry.from + 16),
		sampleRateHz: isPicture ? 0 : boxes.u16(entry.from + 24)
	};
}

/** Frames a second of a picture's track. */
export const framesPerSec = ({ samples, durationMs: ms }: Mp4Track): number =>
	ms > 0 ? Number(((samples * 1000) / ms).toFixed(3)) : 0;

/**
 * What an MP4 or MOV file says of itself; nothing of it is decoded. Faults: `mp4-no`, `mp4-cut` where what describes it is missing.
 * Source: ISO/IEC 14496-12 and 14496-15.
 */
export function readMp4(bytes: Uint8Array): Result<Mp4> {
	const boxes = new Boxes(bytes);
	if (bytes.length < 16 || boxes.type(4) !== 'ftyp') return fault('mp4-no', 'This is no MP4 or MOV file.');
	const file: Box = { type: '', from: 0, to: bytes.length };
	const moov = boxes.find(file, 'moov');
	if (!moov)
		return fault('mp4-cut', 'The part of the file that describes it is missing: it was not copied to its end.');
	const tracks: Mp4Track[] = [];
	for (const box of boxes.in(moov.from, moov.to)) {
		const track = box.type === 'trak' && tracks.length < MOST_TRACKS ? trackOf(boxes, box) : null;
		if (track) tracks.push(track);
	}
	if (tracks.length === 0) return fault('mp4-cut', 'The file describes neither picture nor sound.');
	return ok({ durationMs: durationMs(boxes, boxes.find(moov, 'mvhd')), tracks });
}
