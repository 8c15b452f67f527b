import { crc32, packRuns } from './runs';
import type { Drawing, Shape } from './drawing';

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
/** A palette has no more. Source: PNG (ISO/IEC 15948), clause 11.2.3. */
const MOST_COLOURS = 256;

/** Each pixel's place in the palette, row by row. */
export function paint({ widthPx, heightPx, ground, shapes }: Drawing): { pixels: Uint8Array; palette: string[] } {
	const palette = [...new Set([ground, ...shapes.map(({ colour }) => colour)])];
	if (palette.length > MOST_COLOURS) throw new RangeError(`a drawing of ${palette.length} colours`);
	const indexOf = new Map(palette.map((colour, n) => [colour, n]));
	const pixels = new Uint8Array(widthPx * heightPx);
	const fill = (y: number, from: number, to: number, index: number): void => {
		if (y < 0 || y >= heightPx) return;
		const start = Math.max(0, from);
		const end = Math.min(widthPx, to);
		if (start < end) pixels.fill(index, y * widthPx + start, y * widthPx + end);
	};
	const draw: { [K in Shape['kind']]: (shape: Extract<Shape, { kind: K }>, index: number) => void } = {
		box({ x, y, width, height }, index) {
			for (let row = y; row < y + height; row++) fill(row, x, x + width, index);
		},
		chequer({ x, y, width, height }, index) {
			for (let row = y; row < y + height; row++)
				for (let at = x + ((row - y) & 1); at < x + width; at += 2) fill(row, at, at + 1, index);
		},
		ring({ x, y, radius, line }, index) {
			const outer = radius + line / 2;
			const inner = radius - line / 2;
			const half = (of: number, down: number): number => Math.sqrt(Math.max(0, of * of - down * down));
			for (let row = Math.ceil(y - outer); row <= y + outer; row++) {
				const down = row + 0.5 - y;
				const to = half(outer, down);
				const from = Math.abs(down) < inner ? half(inner, down) : 0;
				fill(row, Math.round(x - to), Math.round(x - from), index);
				fill(row, Math.round(x + from), Math.round(x + to), index);
			}
		}
	};
	for (const shape of shapes)
		(draw[shape.kind] as (shape: Shape, index: number) => void)(shape, indexOf.get(shape.colour)!);
	return { pixels, palette };
}

function chunk(type: string, data: Uint8Array): Uint8Array {
	const out = new Uint8Array(12 + data.length);
	const view = new DataView(out.buffer);
	view.setUint32(0, data.length);
	for (let n = 0; n < 4; n++) out[4 + n] = type.charCodeAt(n);
	out.set(data, 8);
	view.setUint32(8 + data.length, crc32(out.subarray(4, 8 + data.length)));
	return out;
}

/** A drawing as PNG with a palette. Source: PNG (ISO/IEC 15948). */
export function writePng(drawing: Drawing): Uint8Array {
	const { widthPx, heightPx } = drawing;
	const { pixels, palette } = paint(drawing);
	// Each row as its difference to the one above: flat drawings become zeros, which pack best and fastest.
	const rows = new Uint8Array((widthPx + 1) * heightPx);
	for (let y = 0; y < heightPx; y++) {
		const to = y * (widthPx + 1);
		const from = y * widthPx;
		rows[to] = y === 0 ? 0 : 2;
		if (y === 0) rows.set(pixels.subarray(0, widthPx), 1);
		else for (let x = 0; x < widthPx; x++) rows[to + 1 + x] = pixels[from + x]! - pixels[from + x - widthPx]!;
	}
	const header = new Uint8Array(13);
	const view = new DataView(header.buffer);
	view.setUint32(0, widthPx);
	view.setUint32(4, heightPx);
	header.set([8, 3, 0, 0, 0], 8);
	const colours = Uint8Array.from(
		palette.flatMap((colour) => [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16)))
	);
	const parts = [
		Uint8Array.from(SIGNATURE),
		chunk('IHDR', header),
		chunk('PLTE', colours),
		chunk('IDAT', packRuns(rows)),
		chunk('IEND', new Uint8Array())
	];
	const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
	let at = 0;
	for (const part of parts) {
		out.set(part, at);
		at += part.length;
	}
	return out;
}
