import { fault, ok, type Result } from '../../basics/result';
import { VICS } from '../../standards/vicTable';
import { hSyncKhzOf, refreshHzOf, type VideoTiming } from '../../standards/videoTiming';
import { DESCRIPTOR_PLACES } from './base';
import { fitsDetailed, writeDetailed } from './detailed';
import { BLOCK_BYTES, LPCM_BITS, LPCM_RATES_HZ } from './edid';

/** What a screen is to say of itself. */
export interface WantedEdid {
	/** Up to 13 characters of ASCII. */
	readonly name: string;
	/** The picture, mm; 0: not said. */
	readonly widthMm: number;
	readonly heightMm: number;
	/** The first is the one that is preferred. */
	readonly modes: readonly VideoTiming[];
	/** It takes sound over HDMI, so much of it; null: a screen without. */
	readonly sound: {
		readonly channels: number;
		readonly ratesHz: readonly number[];
		readonly bits: readonly number[];
	} | null;
	readonly year: number;
}

/** YPH in three times five bits: no maker's. */
const MANUFACTURER = (25 << 10) | (16 << 5) | 8;
/** x and y of red, green, blue, white. Source: IEC 61966-2-1 (sRGB), clause 4.1. */
const SRGB = [0.64, 0.33, 0.3, 0.6, 0.15, 0.06, 0.3127, 0.329].map((value) => Math.round(value * 1024));
const MOST_DETAILED = 6;

/** The byte that makes a block add up to nothing. */
function seal(block: Uint8Array): Uint8Array {
	block[BLOCK_BYTES - 1] =
		(256 - (block.subarray(0, BLOCK_BYTES - 1).reduce((sum, byte) => sum + byte, 0) & 0xff)) & 0xff;
	return block;
}

const asciiOf = (text: string): number[] => {
	const codes = [...text].map((char) => char.charCodeAt(0));
	return codes.length < 13 ? [...codes, 0x0a, ...Array<number>(12 - codes.length).fill(0x20)] : codes;
};

/** Code of a timing that CTA-861 has a number for, in the shape of the picture where two share it. */
function vicOf(timing: VideoTiming, wide: boolean): number | null {
	const same = VICS.filter(({ timing: known }) =>
		(Object.keys(known) as (keyof VideoTiming)[]).every((key) => known[key] === timing[key])
	);
	return (same.find(({ shape }) => (shape === '16:9') === wide) ?? same[0])?.vic ?? null;
}

function rangeBytes(modes: readonly VideoTiming[]): number[] {
	const hz = modes.map(refreshHzOf);
	const khz = modes.map(hSyncKhzOf);
	const clock = Math.max(...modes.map(({ pixelClockKhz }) => pixelClockKhz));
	const [vMin, vMax] = [Math.floor(Math.min(...hz)) - 1, Math.ceil(Math.max(...hz)) + 1];
	const [hMin, hMax] = [Math.floor(Math.min(...khz)) - 1, Math.ceil(Math.max(...khz)) + 1];
	return [0, 0, 0, 0xfd, 0, vMin, vMax, hMin, hMax, Math.ceil(clock / 10_000), 0, 0x0a, ...Array<number>(6).fill(0x20)];
}

function ctaBlock(wanted: WantedEdid, rest: readonly VideoTiming[]): Uint8Array {
	const wide = wanted.modes[0]!.widthPx * 3 > wanted.modes[0]!.heightPx * 4;
	const vics = [...new Set(wanted.modes.flatMap((timing) => vicOf(timing, wide) ?? []))];
	const { sound } = wanted;
	const data: number[] = [];
	const add = (tag: number, payload: readonly number[]): void =>
		void data.push((tag << 5) | payload.length, ...payload);
	// 640 × 480 belongs to every HDMI sink. Source: CTA-861-H, clause 4.1.
	add(2, [...vics, ...(vics.includes(1) ? [] : [1])]);
	if (sound) {
		const rates = LPCM_RATES_HZ.reduce((bits, hz, n) => bits | (sound.ratesHz.includes(hz) ? 1 << n : 0), 0);
		const depths = LPCM_BITS.reduce((bits, depth, n) => bits | (sound.bits.includes(depth) ? 1 << n : 0), 0);
		add(1, [(1 << 3) | (sound.channels - 1), rates, depths]);
		add(4, [sound.channels > 2 ? 0x0f : 0x01, 0, 0]);
	}
	const clock = Math.max(...wanted.modes.map(({ pixelClockKhz }) => pixelClockKhz));
	// The vendor block makes it HDMI rather than DVI, and only HDMI carries sound.
	add(3, [0x03, 0x0c, 0x00, 0x10, 0x00, 0x00, Math.max(33, Math.ceil(clock / 5000))]);
	// Levels can be chosen; nothing is cut, whatever is shown. Source: CTA-861-H, clause 7.5.6.
	add(7, [0x00, 0x4a]);
	const block = new Uint8Array(BLOCK_BYTES);
	// It shows all of the picture; the first detailed timing is its own, where it is progressive.
	const native = wanted.modes[0]!.interlaced ? 0 : 1;
	block.set([0x02, 0x03, 4 + data.length, 0x80 | (sound ? 0x40 : 0x00) | native, ...data]);
	rest.slice(0, MOST_DETAILED).forEach((timing, n) => {
		const at = 4 + data.length + 18 * n;
		if (at + 18 < BLOCK_BYTES) block.set(writeDetailed({ timing, ...sizeOf(wanted) }), at);
	});
	return seal(block);
}

const sizeOf = ({ widthMm, heightMm }: WantedEdid): { widthMm: number; heightMm: number } => ({
	widthMm: Math.min(4095, widthMm),
	heightMm: Math.min(4095, heightMm)
});

/**
 * A valid block for a screen without one, or with a wrong one: version 1.3, and a CTA-861 extension that makes it HDMI. Faults:
 * `no-mode`, `name` where it is no ASCII or too long, `mode` where a timing has neither room in 18 bytes nor a video code, `sound`.
 * Source: VESA E-EDID A.2; CTA-861-H; HDMI 1.4b, clause 8.3.
 */
export function writeEdid(wanted: WantedEdid): Result<Uint8Array> {
	const { name, modes, sound } = wanted;
	if (modes.length === 0) return fault('no-mode', 'An EDID needs at least one mode.');
	if (!/^[\x20-\x7e]{1,13}$/.test(name) || name !== name.trim())
		return fault('name', 'The name is 1 to 13 plain letters, digits and signs.');
	// Those that television has a number for can do with that, but for the preferred one.
	const large = modes.find((timing, n) => !fitsDetailed(timing) && (n === 0 || vicOf(timing, true) === null));
	if (large)
		return fault(
			'mode',
			`${large.widthPx} × ${large.heightPx} with ${(large.pixelClockKhz / 1000).toFixed(1)}\u2009MHz does not fit into an EDID of this version: its clock goes from 10 to 655\u2009MHz, its size to 4095 pixels. Choose another mode.`
		);
	const hz = modes.map(refreshHzOf);
	if (Math.max(...hz, ...modes.map(hSyncKhzOf)) > 253 || Math.min(...hz) < 2)
		return fault('mode', 'Rates above 253 Hz or kHz do not fit into an EDID of this version. Choose a lower rate.');
	if (
		sound &&
		(sound.channels < 1 || sound.channels > 8 || !sound.ratesHz.some((rate) => LPCM_RATES_HZ.includes(rate)))
	)
		return fault('sound', 'Sound needs 1 to 8 channels and at least one rate that HDMI carries.');
	const { widthMm, heightMm } = sizeOf(wanted);
	const base = new Uint8Array(BLOCK_BYTES);
	const [rx, ry, gx, gy, bx, by, wx, wy] = SRGB as [number, number, number, number, number, number, number, number];
	const low = (a: number, b: number, c: number, d: number): number =>
		((a & 3) << 6) | ((b & 3) << 4) | ((c & 3) << 2) | (d & 3);
	base.set([
		...[0x00, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0x00],
		...[MANUFACTURER >> 8, MANUFACTURER & 0xff, 0x01, 0x00, 0, 0, 0, 0],
		...[0, wanted.year - 1990, 1, 3, 0x80],
		...[Math.min(255, Math.round(widthMm / 10)), Math.min(255, Math.round(heightMm / 10)), 120, 0x0e],
		...[
			low(rx, ry, gx, gy),
			low(bx, by, wx, wy),
			rx >> 2,
			ry >> 2,
			gx >> 2,
			gy >> 2,
			bx >> 2,
			by >> 2,
			wx >> 2,
			wy >> 2
		],
		// 640 × 480 among the established ones; no standard timings.
		...[0x20, 0, 0, ...Array<number>(16).fill(1)]
	]);
	// Detailed timings come before all other descriptors. Source: VESA E-EDID A.2, clause 3.10.1.
	const detailed = modes.filter(fitsDetailed);
	const descriptors = [
		...detailed.slice(0, 2).map((timing) => [...writeDetailed({ timing, widthMm, heightMm })]),
		rangeBytes([...modes, VICS[0]!.timing]),
		[0, 0, 0, 0xfc, 0, ...asciiOf(name)],
		[0, 0, 0, 0x10, 0, ...Array<number>(13).fill(0)]
	];
	DESCRIPTOR_PLACES.forEach((at, n) => base.set(descriptors[n]!, at));
	base[126] = 1;
	const out = new Uint8Array(2 * BLOCK_BYTES);
	out.set(seal(base));
	out.set(ctaBlock(wanted, detailed.slice(2)), BLOCK_BYTES);
	return ok(out);
}
