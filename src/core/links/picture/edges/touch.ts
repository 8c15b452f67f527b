/** Turns of the picture on its panel, clockwise. */
export const TURNS = [0, 90, 180, 270] as const;
/** A quarter turn. */
export type Turn = (typeof TURNS)[number];
/** x′ = a·x + b·y + c, y′ = d·x + e·y + f; x and y from 0 to 1, origin top left. Source: libinput, "calibration matrix". */
export type Matrix = readonly [number, number, number, number, number, number];

/** How touches are turned, by the libinput manual's naming: 90 sends the top left to the top right. */
const TOUCH: Readonly<Record<Turn, Matrix>> = {
	0: [1, 0, 0, 0, 1, 0],
	90: [0, -1, 1, 1, 0, 0],
	180: [-1, 0, 1, 0, -1, 1],
	270: [0, 1, 0, -1, 0, 1]
};

/** Whether a number is a quarter turn. */
export const isTurn = (degrees: number): degrees is Turn => (TURNS as readonly number[]).includes(degrees);

/** The matrix that turns touches by so much. */
export const touchMatrix = (turn: Turn): Matrix => TOUCH[turn];
/** A picture turned clockwise on its panel needs its touches turned back. */
export const matrixForContent = (turn: Turn): Matrix => TOUCH[((360 - turn) % 360) as Turn];

/** Where a touch ends up. */
export const turnPoint = ([a, b, c, d, e, f]: Matrix, x: number, y: number): { x: number; y: number } => ({
	x: a * x + b * y + c,
	y: d * x + e * y + f
});
