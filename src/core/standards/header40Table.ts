/**
 * The 40-pin header that boards of these classes share, pin by pin. There is no standards document: the layout is by custom,
 * published alike in the sheets of many makers; the functions are those of the pins' GPIO lines.
 */
export interface HeaderPin {
	/** 1 to 40; odd numbers in one row, even in the other; 1 is the corner with the square pad. */
	readonly pin: number;
	readonly kind: '5 V' | '3.3 V' | 'ground' | 'gpio';
	readonly gpio: number | null;
}

const V5 = 'v5';
const V3 = 'v3';
const GND = 'gnd';
/** In pin order, two a line: odd pin, even pin. A number is a GPIO line. */
const LAYOUT: readonly (number | typeof V5 | typeof V3 | typeof GND)[] = [
	...[V3, V5],
	...[2, V5],
	...[3, GND],
	...[4, 14],
	...[GND, 15],
	...[17, 18],
	...[27, GND],
	...[22, 23],
	...[V3, 24],
	...[10, GND],
	...[9, 25],
	...[11, 8],
	...[GND, 7],
	...[0, 1],
	...[5, GND],
	...[6, 12],
	...[13, GND],
	...[19, 16],
	...[26, 20],
	...[GND, 21]
] as const;

/** The 40-pin header, pin 1 first. */
export const HEADER_PINS: readonly HeaderPin[] = LAYOUT.map((what, index) => ({
	pin: index + 1,
	kind: what === V5 ? '5 V' : what === V3 ? '3.3 V' : what === GND ? 'ground' : 'gpio',
	gpio: typeof what === 'number' ? what : null
}));

/** GPIO lines of each function, in the order in which the function names them. */
export const FUNCTION_LINES = {
	/** Bit clock, frame, in, out. */
	i2s: [18, 19, 20, 21],
	/** Data, clock. */
	i2c: [2, 3],
	/** Data, clock of the identifying memory. */
	idMemory: [0, 1],
	/** Out, in. */
	uart: [14, 15],
	/** Out, in, clock. */
	spi0: [10, 9, 11],
	spi1: [20, 19, 21],
	/** Selects 0 and 1 of bus 0; 0, 1 and 2 of bus 1. */
	spi0Selects: [8, 7],
	spi1Selects: [18, 17, 16]
} as const;

/** Parallel display: clock, enable and the two syncs on 0 to 3, then six or eight bits a colour. */
export const displayLines = (bits: 18 | 24): number[] => Array.from({ length: 4 + bits }, (_, line) => line);

/** Lines on which a hardware PWM channel can come out. */
export const PWM_LINES: readonly { readonly line: number; readonly channel: 0 | 1 }[] = [
	{ line: 12, channel: 0 },
	{ line: 18, channel: 0 },
	{ line: 13, channel: 1 },
	{ line: 19, channel: 1 }
];
