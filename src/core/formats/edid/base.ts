import type { Fault } from '../../basics/result';
import { computeTiming } from '../../standards/computedTimings';
import { dmtByStandardCode } from '../../standards/dmtTable';
import { ESTABLISHED, ESTABLISHED_III, type Established } from '../../standards/establishedTable';
import { DESCRIPTOR_BYTES, readDetailed } from './detailed';
import type { Edid, EdidMode, EdidRanges } from './edid';

/** The base block's part of what a screen says. */
export type EdidBase = Omit<Edid, 'cta' | 'blockChecksumOk' | 'extensionBlocks' | 'remarks'> & { remarks: Fault[] };

const LETTER = 0x1f;
/** Three letters in fifteen bits, A is 1. Source: VESA E-EDID A.2, "ID Manufacturer Name". */
const manufacturerOf = (code: number): string =>
	[10, 5, 0].map((shift) => String.fromCharCode(64 + ((code >> shift) & LETTER))).join('');

/** Thirteen bytes, ended by a line feed where there are fewer. */
function textOf(block: Uint8Array, at: number): string | null {
	let text = '';
	for (let n = 0; n < 13; n++) {
		const byte = block[at + 5 + n]!;
		if (byte === 0x0a) break;
		text += byte >= 0x20 && byte < 0x7f ? String.fromCharCode(byte) : '';
	}
	return text.trim() || null;
}

const establishedMode = ({ timing, dmtId }: Established): EdidMode =>
	dmtId === null ? { timing, from: 'established' } : { timing, from: 'dmt', dmtId };

/** One bit a timing, from the highest bit of the first byte on. */
const announced = (table: readonly Established[], block: Uint8Array, at: number): EdidMode[] =>
	table.flatMap((row, n) => ((block[at + (n >> 3)]! >> (7 - (n & 7))) & 1 ? [establishedMode(row)] : []));

/** How a formula fills in what two bytes leave open. */
interface Formula {
	readonly version: number;
	readonly cvt: boolean;
}

/** Source: VESA E-EDID A.2, "Standard Timings". */
function standardModes(first: number, second: number, { version, cvt }: Formula): EdidMode[] {
	if (first <= 1) return [];
	const known = dmtByStandardCode((first << 8) | second);
	if (known) return [{ timing: known.timing, from: 'dmt', dmtId: known.dmtId }];
	// Before 1.2 nothing says by which formula.
	if (version < 2) return [];
	const widthPx = (first + 31) * 8;
	const [across, down] = [version >= 3 ? [16, 10] : [1, 1], [4, 3], [5, 4], [16, 9]][second >> 6]! as [number, number];
	const wanted = { widthPx, heightPx: Math.floor((widthPx * down) / across), refreshHz: (second & 0x3f) + 60 };
	const methods = version >= 4 && cvt ? (['cvt', 'gtf'] as const) : (['gtf'] as const);
	return methods.flatMap((method): EdidMode[] => {
		const timing = computeTiming(method, wanted);
		return timing.ok ? [{ timing: timing.value, from: method }] : [];
	});
}

/** Three bytes a size with a bit for each rate. Source: VESA E-EDID A.2, "CVT 3 Byte Timing Codes". */
function cvtModes(block: Uint8Array, at: number): EdidMode[] {
	if (block[at] === 0 && block[at + 1] === 0 && block[at + 2] === 0) return [];
	const heightPx = ((block[at]! | ((block[at + 1]! & 0xf0) << 4)) + 1) * 2;
	const [across, down] = (
		[
			[4, 3],
			[16, 9],
			[16, 10],
			[15, 9]
		] as const
	)[(block[at + 1]! >> 2) & 3]!;
	const widthPx = 8 * Math.floor(Math.floor((heightPx * across) / down) / 8);
	const rates = [
		[0x10, 50, 'cvt'],
		[0x08, 60, 'cvt'],
		[0x04, 75, 'cvt'],
		[0x02, 85, 'cvt'],
		[0x01, 60, 'cvt-rb']
	] as const;
	return rates.flatMap(([bit, refreshHz, method]): EdidMode[] => {
		if ((block[at + 2]! & bit) === 0) return [];
		const timing = computeTiming(method, { widthPx, heightPx, refreshHz });
		return timing.ok ? [{ timing: timing.value, from: 'cvt' }] : [];
	});
}

/** Source: VESA E-EDID A.2, "Display Range Limits & Additional Timing Descriptor"; offsets of 255 from 1.4 on. */
function rangesOf(block: Uint8Array, at: number, version: number): EdidRanges {
	const offset = version >= 4 ? block[at + 4]! : 0;
	const more = (bit: number): number => (offset & bit ? 255 : 0);
	const clock = block[at + 9]!;
	// Bit 0 alone is reserved: the lower limit moves only together with the upper one.
	return {
		vMinHz: block[at + 5]! + ((offset & 3) === 3 ? 255 : 0),
		vMaxHz: block[at + 6]! + more(2),
		hMinKhz: block[at + 7]! + ((offset & 12) === 12 ? 255 : 0),
		hMaxKhz: block[at + 8]! + more(8),
		maxPixelClockMhz: clock === 0 || clock === 0xff ? null : clock * 10
	};
}

/** All that the four descriptors say. */
interface Described {
	name: string | null;
	serialText: string | null;
	texts: string[];
	ranges: EdidRanges | null;
	cvt: boolean;
	detailed: EdidMode[];
	others: EdidMode[];
}

const TAG = {
	serial: 0xff,
	text: 0xfe,
	ranges: 0xfd,
	name: 0xfc,
	standard: 0xfa,
	cvtCodes: 0xf8,
	established: 0xf7
} as const;

function describe(block: Uint8Array, version: number, remarks: Fault[]): Described {
	const out: Described = {
		name: null,
		serialText: null,
		texts: [],
		ranges: null,
		cvt: false,
		detailed: [],
		others: []
	};
	const places = [54, 72, 90, 108];
	// The formula for standard timings hangs on the ranges, wherever they stand.
	const limits = places.find((at) => block[at] === 0 && block[at + 1] === 0 && block[at + 3] === TAG.ranges);
	out.cvt = limits !== undefined && block[limits + 10] === 4;
	const readers: Readonly<Record<number, (at: number) => void>> = {
		[TAG.serial]: (at) => (out.serialText ??= textOf(block, at)),
		[TAG.name]: (at) => (out.name ??= textOf(block, at)),
		[TAG.text]: (at) => {
			const text = textOf(block, at);
			if (text) out.texts.push(text);
		},
		[TAG.ranges]: (at) => (out.ranges ??= rangesOf(block, at, version)),
		[TAG.standard]: (at) => {
			for (let n = 0; n < 6; n++)
				out.others.push(...standardModes(block[at + 5 + 2 * n]!, block[at + 6 + 2 * n]!, { version, cvt: out.cvt }));
		},
		[TAG.cvtCodes]: (at) => {
			for (let n = 0; n < 4; n++) out.others.push(...cvtModes(block, at + 6 + 3 * n));
		},
		[TAG.established]: (at) => out.others.push(...announced(ESTABLISHED_III, block, at + 6))
	};
	for (const at of places) {
		if (block[at] === 0 && block[at + 1] === 0) readers[block[at + 3]!]?.(at);
		else {
			const detailed = readDetailed(block, at);
			if (detailed) out.detailed.push({ ...detailed, from: 'detailed' });
			else
				remarks.push({
					code: 'detailed-unusable',
					message: 'A detailed timing without a size or a clock is passed over.',
					where: `byte ${at}`
				});
		}
	}
	return out;
}

/** The first 128 bytes, whose header is right. Source: VESA E-EDID A.2, clause 3. */
export function readBase(block: Uint8Array): EdidBase {
	const remarks: Fault[] = [];
	const version = block[19]!;
	const digital = (block[20]! & 0x80) !== 0;
	const described = describe(block, version, remarks);
	const formula = { version, cvt: described.cvt };
	const standard = Array.from({ length: 8 }, (_, n) =>
		standardModes(block[38 + 2 * n]!, block[39 + 2 * n]!, formula)
	).flat();
	const depth = (block[20]! >> 4) & 7;
	const colour = (high: number, low: number, shift: number): number =>
		((block[high]! << 2) | ((block[low]! >> shift) & 3)) / 1024;
	const sized = block[21] !== 0 && block[22] !== 0;
	const serial = (block[12]! | (block[13]! << 8) | (block[14]! << 16) | (block[15]! << 24)) >>> 0;
	return {
		version: `${block[18]}.${version}`,
		manufacturer: manufacturerOf((block[8]! << 8) | block[9]!),
		productCode: block[10]! | (block[11]! << 8),
		serialNumber: serial === 0 ? null : serial,
		serialText: described.serialText,
		name: described.name,
		texts: described.texts,
		week: block[16]! >= 1 && block[16]! <= 54 ? block[16]! : null,
		year: 1990 + block[17]!,
		digital,
		bitsPerColour: digital && version >= 4 && depth >= 1 && depth <= 6 ? 4 + 2 * depth : null,
		widthCm: sized ? block[21]! : null,
		heightCm: sized ? block[22]! : null,
		gamma: block[23] === 0xff ? null : (block[23]! + 100) / 100,
		chromaticity: [
			[colour(27, 25, 6), colour(28, 25, 4)],
			[colour(29, 25, 2), colour(30, 25, 0)],
			[colour(31, 26, 6), colour(32, 26, 4)],
			[colour(33, 26, 2), colour(34, 26, 0)]
		],
		srgb: (block[24]! & 0x04) !== 0,
		continuous: (block[24]! & 0x01) !== 0,
		modes: [...described.detailed, ...announced(ESTABLISHED, block, 35), ...standard, ...described.others],
		preferred: described.detailed[0]?.timing ?? null,
		ranges: described.ranges,
		remarks
	};
}

/** Where the 18-byte descriptors stand in the base block. */
export const DESCRIPTOR_PLACES = [54, 54 + DESCRIPTOR_BYTES, 54 + 2 * DESCRIPTOR_BYTES, 54 + 3 * DESCRIPTOR_BYTES];
