import { inflateSync } from 'node:zlib';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { box, paint, word, wordHeight, wordWidth, writePng, writeSvg, type Drawing, type Shape } from '.';
import { crc32, packRuns } from './runs';

const at = ({ widthPx }: Drawing, pixels: Uint8Array, x: number, y: number): number => pixels[y * widthPx + x]!;

describe('runs', () => {
	it('unpack with zlib to what was packed, whatever it is', () => {
		const run = fc
			.tuple(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 1, max: 900 }))
			.map(([value, length]) => Array<number>(length).fill(value));
		fc.assert(
			fc.property(fc.array(fc.oneof(run, fc.array(fc.integer({ min: 0, max: 255 }))), { maxLength: 12 }), (parts) => {
				const bytes = Uint8Array.from(parts.flat());
				expect(Buffer.from(inflateSync(packRuns(bytes)))).toEqual(Buffer.from(bytes));
			})
		);
	});
	it('have every length of a match at its edge', () => {
		for (const length of [1, 2, 3, 4, 10, 11, 18, 19, 257, 258, 259, 260, 261, 262, 517, 70_000])
			expect(inflateSync(packRuns(new Uint8Array(length).fill(7))).length, String(length)).toBe(length);
	});
	it('are far smaller than what they stand for', () =>
		expect(packRuns(new Uint8Array(1_000_000)).length).toBeLessThan(8000));
	it('have the sum that the standard gives as its example', () =>
		expect(crc32(new TextEncoder().encode('123456789'))).toBe(0xcbf43926));
});

/** A PNG read again by the standard's own words: chunks with their sums, one palette, filters 0 and 2. */
function readAgain(bytes: Uint8Array): { widthPx: number; heightPx: number; colours: string[] } {
	const view = new DataView(bytes.buffer, bytes.byteOffset);
	const chunks = new Map<string, Uint8Array>();
	for (let from = 8; from < bytes.length;) {
		const length = view.getUint32(from);
		expect(view.getUint32(from + 8 + length)).toBe(crc32(bytes.subarray(from + 4, from + 8 + length)));
		chunks.set(String.fromCharCode(...bytes.subarray(from + 4, from + 8)), bytes.slice(from + 8, from + 8 + length));
		from += 12 + length;
	}
	expect([...chunks.keys()]).toEqual(['IHDR', 'PLTE', 'IDAT', 'IEND']);
	const header = new DataView(chunks.get('IHDR')!.buffer);
	const [widthPx, heightPx] = [header.getUint32(0), header.getUint32(4)];
	const rows = inflateSync(chunks.get('IDAT')!);
	const palette = chunks.get('PLTE')!;
	const colours: string[] = [];
	let above = new Uint8Array(widthPx);
	for (let y = 0; y < heightPx; y++) {
		const from = y * (widthPx + 1);
		const row = Uint8Array.from(above, (up, x) => rows[from + 1 + x]! + (rows[from] === 2 ? up : 0));
		for (const n of row) colours.push(`#${Buffer.from(palette.subarray(3 * n, 3 * n + 3)).toString('hex')}`);
		above = row;
	}
	return { widthPx, heightPx, colours };
}

describe('a drawing', () => {
	const colour = fc.constantFrom('#000000', '#ff0000', '#00ff00', '#123456', '#f4f0e2');
	const place = fc.integer({ min: -20, max: 60 });
	const size = fc.integer({ min: 0, max: 50 });
	const shape: fc.Arbitrary<Shape> = fc.oneof(
		fc.record({
			kind: fc.constantFrom('box' as const, 'chequer' as const),
			x: place,
			y: place,
			width: size,
			height: size,
			colour
		}),
		fc.record({ kind: fc.constant('ring' as const), x: place, y: place, radius: size, line: size, colour })
	);
	const drawing = fc.record({
		widthPx: fc.integer({ min: 1, max: 40 }),
		heightPx: fc.integer({ min: 1, max: 40 }),
		ground: colour,
		shapes: fc.array(shape, { maxLength: 8 })
	});
	it('is in its PNG what was painted, also where shapes reach over the edge', () => {
		fc.assert(
			fc.property(drawing, (one) => {
				const { pixels, palette } = paint(one);
				const read = readAgain(writePng(one));
				expect(read).toMatchObject({ widthPx: one.widthPx, heightPx: one.heightPx });
				expect(read.colours).toEqual(Array.from(pixels, (n) => palette[n]));
			})
		);
	});
	it('is covered by what is drawn later, and no wider than it says', () => {
		const one: Drawing = {
			widthPx: 10,
			heightPx: 10,
			ground: '#000000',
			shapes: [box(2, 2, 4, 4, '#ff0000'), box(4, 4, 4, 4, '#00ff00')]
		};
		const { pixels, palette } = paint(one);
		const seen = (x: number, y: number): string => palette[at(one, pixels, x, y)]!;
		expect([seen(1, 2), seen(2, 2), seen(3, 3), seen(4, 4), seen(7, 7), seen(8, 7)]).toEqual([
			'#000000',
			'#ff0000',
			'#ff0000',
			'#00ff00',
			'#00ff00',
			'#000000'
		]);
	});
	it('of a ring is as wide as its radius, and empty inside', () => {
		const one: Drawing = {
			widthPx: 101,
			heightPx: 101,
			ground: '#000000',
			shapes: [{ kind: 'ring', x: 50, y: 50, radius: 40, line: 4, colour: '#ffffff' }]
		};
		const { pixels } = paint(one);
		const across = Array.from({ length: 101 }, (_, x) => at(one, pixels, x, 50));
		expect(across.indexOf(1)).toBe(8);
		expect(across.lastIndexOf(1)).toBe(91);
		expect(across[50]).toBe(0);
		const area = pixels.reduce((sum, n) => sum + n, 0);
		expect(area / (Math.PI * (42 ** 2 - 38 ** 2))).toBeCloseTo(1, 1);
	});
	it('of a word stands in its own box, and its letters differ', () => {
		const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789×%/'];
		const drawn = letters.map((letter) => JSON.stringify(word(letter, 0, 0, 1, '#ffffff')));
		expect(new Set(drawn).size).toBe(letters.length);
		for (const one of word('PIER 3', 10, 20, 3, '#ffffff')) {
			if (one.kind !== 'box') throw new Error('a word is boxes');
			expect(one.x).toBeGreaterThanOrEqual(10);
			expect(one.y + one.height).toBeLessThanOrEqual(20 + wordHeight(3));
			expect(one.x + one.width).toBeLessThanOrEqual(10 + wordWidth('PIER 3', 3));
		}
	});
	it('of more colours than a palette has is refused', () => {
		const shapes = Array.from({ length: 300 }, (_, n) => box(0, 0, 1, 1, `#${n.toString(16).padStart(6, '0')}`));
		expect(() => paint({ widthPx: 4, heightPx: 4, ground: '#ffffff', shapes })).toThrow(RangeError);
	});
	it('as SVG has one pattern for each colour of a chequer, and nothing else of the text', () => {
		const chequer = { kind: 'chequer', x: 0, y: 0, width: 4, height: 4, colour: '#123456' } as const;
		const text = writeSvg({ widthPx: 8, heightPx: 8, ground: '#000000', shapes: [chequer, chequer] });
		expect(text.match(/<pattern/g)).toHaveLength(1);
		expect(text.match(/url\(#c123456\)/g)).toHaveLength(2);
	});
});
