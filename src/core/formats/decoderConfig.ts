import type { Chroma } from './codecString';

/** What the head of a film says of its frames, beyond what its codec's name says. */
export interface FramesSaid {
	readonly chroma: Chroma;
	readonly bitDepth: number;
	/** Frames may be made of two fields each. */
	readonly interlaced: boolean;
}

const CHROMA = ['4:0:0', '4:2:0', '4:2:2', '4:4:4'] as const;

/** Bits of a raw byte sequence, without the bytes that keep start codes out of it. Source: ITU-T H.264, 7.3.1, 9.1. */
class Bits {
	readonly #bytes: number[] = [];
	#at = 0;
	constructor(bytes: Uint8Array) {
		for (let n = 0; n < bytes.length; n++)
			if (!(n > 2 && bytes[n] === 3 && bytes[n - 1] === 0 && bytes[n - 2] === 0)) this.#bytes.push(bytes[n]!);
	}
	bit(): number {
		const byte = this.#bytes[this.#at >> 3];
		if (byte === undefined) throw new RangeError('it ends too soon');
		return (byte >> (7 - (this.#at++ & 7))) & 1;
	}
	bits(count: number): number {
		let value = 0;
		for (let n = 0; n < count; n++) value = value * 2 + this.bit();
		return value;
	}
	ue(): number {
		let zeros = 0;
		while (this.bit() === 0) if (++zeros > 31) throw new RangeError('no number is so long');
		return 2 ** zeros - 1 + this.bits(zeros);
	}
	se(): number {
		const value = this.ue();
		return value % 2 ? (value + 1) / 2 : -value / 2;
	}
}

/** Profiles whose parameters say how colour is sampled. Source: ITU-T H.264, 7.3.2.1.1. */
const SAYS_CHROMA = new Set([100, 110, 122, 244, 44, 83, 86, 118, 128, 138, 139, 134, 135]);

function scalingList(bits: Bits, size: number): void {
	let [last, next] = [8, 8];
	for (let n = 0; n < size; n++) {
		if (next !== 0) next = (last + bits.se() + 256) % 256;
		last = next === 0 ? last : next;
	}
}

/** The sequence parameter set within an avcC. Source: ISO/IEC 14496-15, 5.3.3.1; ITU-T H.264, 7.3.2.1.1. */
function fromAvc(config: Uint8Array): FramesSaid | null {
	if (config[0] !== 1 || ((config[5] ?? 0) & 0x1f) === 0) return null;
	const length = (config[6]! << 8) | config[7]!;
	const bits = new Bits(config.subarray(9, 8 + length));
	const profile = bits.bits(8);
	bits.bits(16);
	bits.ue();
	let [chroma, depth] = [1, 8];
	if (SAYS_CHROMA.has(profile)) {
		chroma = bits.ue();
		if (chroma === 3) bits.bit();
		depth = 8 + bits.ue();
		bits.ue();
		bits.bit();
		if (bits.bit())
			for (let n = 0; n < (chroma === 3 ? 12 : 8); n++) if (bits.bit()) scalingList(bits, n < 6 ? 16 : 64);
	}
	bits.ue();
	const order = bits.ue();
	if (order === 0) bits.ue();
	else if (order === 1) {
		bits.bit();
		bits.se();
		bits.se();
		const cycle = bits.ue();
		if (cycle > 255) return null;
		for (let n = 0; n < cycle; n++) bits.se();
	}
	bits.ue();
	bits.bit();
	bits.ue();
	bits.ue();
	const framesOnly = bits.bit() === 1;
	const sampled = CHROMA[chroma];
	// No profile has more. Source: ITU-T H.264, annex A.
	return sampled && depth <= 14 ? { chroma: sampled, bitDepth: depth, interlaced: !framesOnly } : null;
}

/** What an hvcC says by itself. Source: ISO/IEC 14496-15, 8.3.3.1.2; ITU-T H.265, 7.3.3. */
function fromHevc(config: Uint8Array): FramesSaid | null {
	if (config.length < 23 || config[0] !== 1) return null;
	const [progressive, fields] = [config[6]! & 0x80, config[6]! & 0x40];
	return {
		chroma: CHROMA[config[16]! & 3]!,
		bitDepth: 8 + (config[17]! & 7),
		interlaced: fields !== 0 && progressive === 0
	};
}

/** Reads what stands before the frames of a film in H.264 or H.265; null: nothing, or nothing that can be read. */
export function readDecoderConfig(codec: string, config: Uint8Array | undefined): FramesSaid | null {
	if (!config || config.length < 9 || config.length > 100_000) return null;
	try {
		return codec === 'h264' ? fromAvc(config) : codec === 'h265' ? fromHevc(config) : null;
	} catch {
		return null;
	}
}
