import { refreshHzOf } from '../../standards/videoTiming';
import { DESCRIPTOR_PLACES } from './base';
import { DESCRIPTOR_BYTES, readDetailed } from './detailed';
import { BLOCK_BYTES, sumsToZero } from './edid';

/** What some bytes mean, from the first to the last of them. */
export interface ByteMeaning {
	readonly from: number;
	readonly to: number;
	readonly what: string;
}

/** The base block's fields. Source: VESA E-EDID A.2, clause 3, table "EDID Structure". */
const BASE: readonly (readonly [from: number, to: number, what: string])[] = [
	[0, 7, 'Header: by it an EDID is known'],
	[8, 9, 'Maker, three letters'],
	[10, 11, 'Product code'],
	[12, 15, 'Serial number'],
	[16, 16, 'Week of making'],
	[17, 17, 'Year of making, since 1990'],
	[18, 19, 'Version of the structure'],
	[20, 20, 'Input: digital or analogue'],
	[21, 21, 'Width of the picture, cm'],
	[22, 22, 'Height of the picture, cm'],
	[23, 23, 'Gamma'],
	[24, 24, 'Features: power saving, colour, preferred mode'],
	[25, 34, 'Colours: red, green, blue and white'],
	[35, 37, 'Established timings, a bit each'],
	[38, 53, 'Standard timings, two bytes each'],
	[126, 126, 'Number of blocks that follow'],
	[127, 127, 'Checksum of the block']
];

const DESCRIPTORS: Readonly<Record<number, string>> = {
	0xff: 'Serial number as text',
	0xfe: 'Text',
	0xfd: 'Ranges of rates and the highest clock',
	0xfc: 'Name',
	0xfb: 'White points',
	0xfa: 'Further standard timings',
	0xf9: 'Colour management',
	0xf8: 'CVT timings, three bytes each',
	0xf7: 'Established timings, third part',
	0x10: 'Empty'
};
const DATA_BLOCKS: Readonly<Record<number, string>> = {
	1: 'Sound formats',
	2: 'Video codes',
	3: 'Vendor block: HDMI, deep colour, clock, delay',
	4: 'Loudspeakers',
	5: 'Transfer curves'
};
const EXTENDED: Readonly<Record<number, string>> = {
	0: 'Levels and overscan',
	5: 'Colour spaces',
	6: 'HDR: curves and light',
	13: 'Preferred video codes',
	14: 'Video codes with 4:2:0 only',
	15: 'Which video codes take 4:2:0 too'
};

/** Bytes 54 to 71 and so on. */
function descriptor(bytes: Uint8Array, at: number): string {
	if (bytes[at] === 0 && bytes[at + 1] === 0) return DESCRIPTORS[bytes[at + 3]!] ?? 'Descriptor of its maker';
	const detailed = readDetailed(bytes, at);
	if (!detailed) return 'Detailed timing that cannot be';
	const { widthPx, heightPx, interlaced } = detailed.timing;
	return `Detailed timing: ${widthPx} × ${heightPx}${interlaced ? ' interlaced' : ''}, ${refreshHzOf(detailed.timing).toFixed(2)} Hz`;
}

function* ctaMeanings(bytes: Uint8Array, start: number): Generator<ByteMeaning> {
	const at = (n: number): number => start + n;
	yield { from: at(0), to: at(0), what: 'Extension: CTA-861' };
	yield { from: at(1), to: at(1), what: 'Revision' };
	yield { from: at(2), to: at(2), what: 'Where detailed timings begin' };
	yield { from: at(3), to: at(3), what: 'Sound, colour at full or half resolution, native timings' };
	const detailedAt = bytes[at(2)]!;
	const dataEnd = detailedAt >= 4 && detailedAt <= 127 ? detailedAt : 4;
	for (let n = 4; n < dataEnd;) {
		const length = bytes[at(n)]! & 0x1f;
		const tag = bytes[at(n)]! >> 5;
		if (n + length + 1 > dataEnd) break;
		const what = tag === 7 ? EXTENDED[bytes[at(n + 1)]!] : DATA_BLOCKS[tag];
		yield { from: at(n), to: at(n + length), what: what ?? 'Data block of another kind' };
		n += length + 1;
	}
	for (let n = dataEnd; n + DESCRIPTOR_BYTES <= 127 && detailedAt >= 4; n += DESCRIPTOR_BYTES) {
		if (bytes[at(n)] === 0 && bytes[at(n + 1)] === 0) break;
		yield { from: at(n), to: at(n + DESCRIPTOR_BYTES - 1), what: descriptor(bytes, at(n)) };
	}
}

/** Every byte of an EDID with what it means; bytes that mean nothing are called padding. In order, without gaps. */
export function explainEdid(bytes: Uint8Array): ByteMeaning[] {
	const known: ByteMeaning[] = [];
	for (let start = 0; start + BLOCK_BYTES <= bytes.length; start += BLOCK_BYTES) {
		const block = bytes.subarray(start, start + BLOCK_BYTES);
		const sum = `Checksum of the block: ${sumsToZero(block) ? 'right' : 'wrong'}`;
		if (start === 0) {
			known.push(...BASE.slice(0, -2).map(([from, to, what]) => ({ from, to, what })));
			known.push(
				...DESCRIPTOR_PLACES.map((at) => ({ from: at, to: at + DESCRIPTOR_BYTES - 1, what: descriptor(bytes, at) }))
			);
			known.push({ from: 126, to: 126, what: BASE.at(-2)![2] });
		} else if (block[0] === 0x02) known.push(...ctaMeanings(bytes, start));
		else
			known.push({
				from: start,
				to: start + 126,
				what: block[0] === 0x70 ? 'Extension: DisplayID' : 'Extension of another kind'
			});
		known.push({ from: start + 127, to: start + 127, what: sum });
	}
	const out: ByteMeaning[] = [];
	let next = 0;
	const upTo = (end: number): void => {
		if (next < end) out.push({ from: next, to: end - 1, what: next >= 128 ? 'Padding' : 'Nothing' });
	};
	for (const meaning of known) {
		upTo(meaning.from);
		out.push(meaning);
		next = meaning.to + 1;
	}
	upTo(bytes.length);
	return out;
}
