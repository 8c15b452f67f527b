/** A drawing of flat shapes in whole pixels, which becomes the same SVG and PNG. Colours are "#rrggbb". */
export interface Drawing {
	readonly widthPx: number;
	readonly heightPx: number;
	readonly ground: string;
	readonly shapes: readonly Shape[];
}
/** One shape; a later one covers an earlier one. */
export type Shape =
	| {
			readonly kind: 'box';
			readonly x: number;
			readonly y: number;
			readonly width: number;
			readonly height: number;
			readonly colour: string;
	  }
	| {
			readonly kind: 'ring';
			readonly x: number;
			readonly y: number;
			readonly radius: number;
			readonly line: number;
			readonly colour: string;
	  }
	/** Every second pixel, as a chequer. */
	| {
			readonly kind: 'chequer';
			readonly x: number;
			readonly y: number;
			readonly width: number;
			readonly height: number;
			readonly colour: string;
	  };

/** A box. */
export const box = (x: number, y: number, width: number, height: number, colour: string): Shape => ({
	kind: 'box',
	x: Math.round(x),
	y: Math.round(y),
	width: Math.round(width),
	height: Math.round(height),
	colour
});

/** Four boxes as a frame, its line within. */
export const frame = (x: number, y: number, width: number, height: number, line: number, colour: string): Shape[] => [
	box(x, y, width, line, colour),
	box(x, y + height - line, width, line, colour),
	box(x, y, line, height, colour),
	box(x + width - line, y, line, height, colour)
];

/** Five by seven dots a character, a number for each row, the leftmost dot highest. Drawn for this project. */
const DOTS: Readonly<Record<string, readonly number[]>> = {
	'0': [14, 17, 19, 21, 25, 17, 14],
	'1': [4, 12, 4, 4, 4, 4, 14],
	'2': [14, 17, 1, 6, 8, 16, 31],
	'3': [31, 2, 4, 2, 1, 17, 14],
	'4': [2, 6, 10, 18, 31, 2, 2],
	'5': [31, 16, 30, 1, 1, 17, 14],
	'6': [6, 8, 16, 30, 17, 17, 14],
	'7': [31, 1, 2, 4, 8, 8, 8],
	'8': [14, 17, 17, 14, 17, 17, 14],
	'9': [14, 17, 17, 15, 1, 2, 12],
	A: [14, 17, 17, 31, 17, 17, 17],
	B: [30, 17, 17, 30, 17, 17, 30],
	C: [14, 17, 16, 16, 16, 17, 14],
	D: [30, 17, 17, 17, 17, 17, 30],
	E: [31, 16, 16, 30, 16, 16, 31],
	F: [31, 16, 16, 30, 16, 16, 16],
	G: [14, 17, 16, 23, 17, 17, 15],
	H: [17, 17, 17, 31, 17, 17, 17],
	I: [14, 4, 4, 4, 4, 4, 14],
	J: [7, 2, 2, 2, 2, 18, 12],
	K: [17, 18, 20, 24, 20, 18, 17],
	L: [16, 16, 16, 16, 16, 16, 31],
	M: [17, 27, 21, 21, 17, 17, 17],
	N: [17, 25, 21, 19, 17, 17, 17],
	O: [14, 17, 17, 17, 17, 17, 14],
	P: [30, 17, 17, 30, 16, 16, 16],
	Q: [14, 17, 17, 17, 21, 18, 13],
	R: [30, 17, 17, 30, 20, 18, 17],
	S: [15, 16, 16, 14, 1, 1, 30],
	T: [31, 4, 4, 4, 4, 4, 4],
	U: [17, 17, 17, 17, 17, 17, 14],
	V: [17, 17, 17, 17, 17, 10, 4],
	W: [17, 17, 17, 21, 21, 27, 17],
	X: [17, 17, 10, 4, 10, 17, 17],
	Y: [17, 17, 10, 4, 4, 4, 4],
	Z: [31, 1, 2, 4, 8, 16, 31],
	'?': [14, 17, 1, 2, 4, 0, 4],
	':': [0, 4, 4, 0, 4, 4, 0],
	'.': [0, 0, 0, 0, 0, 12, 12],
	',': [0, 0, 0, 0, 12, 4, 8],
	'-': [0, 0, 0, 31, 0, 0, 0],
	'/': [1, 1, 2, 4, 8, 16, 16],
	'%': [25, 26, 2, 4, 8, 11, 19],
	'×': [0, 17, 10, 4, 10, 17, 0]
};
/** Dots across one character with the gap behind it, and down. */
const ACROSS = 6;
const DOWN = 7;

/** How wide a line of dots of this size becomes, px. */
export const wordWidth = (text: string, dotPx: number): number => Math.max(0, text.length * ACROSS - 1) * dotPx;
/** How tall it is. */
export const wordHeight = (dotPx: number): number => DOWN * dotPx;

/** A line of capitals and digits from dots of so many pixels; what has no dots is a gap. */
export function word(text: string, x: number, y: number, dotPx: number, colour: string): Shape[] {
	const shapes: Shape[] = [];
	[...text.toUpperCase()].forEach((character, n) => {
		DOTS[character]?.forEach((row, down) => {
			// Runs of dots become one box.
			for (let dot = 0; dot < 5;) {
				let run = 0;
				while (dot + run < 5 && (row >> (4 - dot - run)) & 1) run++;
				if (run > 0) shapes.push(box(x + (n * ACROSS + dot) * dotPx, y + down * dotPx, run * dotPx, dotPx, colour));
				dot += Math.max(1, run);
			}
		});
	});
	return shapes;
}
