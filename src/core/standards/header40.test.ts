import { expect, it } from 'vitest';
import { displayLines, FUNCTION_LINES, HEADER_PINS, PWM_LINES } from './header40Table';

it('has 40 pins: 2 of 5 V, 2 of 3.3 V, 8 of ground, and lines 0 to 27 once each', () => {
	expect(HEADER_PINS.map(({ pin }) => pin)).toEqual(Array.from({ length: 40 }, (_, n) => n + 1));
	const count = (kind: string): number => HEADER_PINS.filter((pin) => pin.kind === kind).length;
	expect([count('5 V'), count('3.3 V'), count('ground'), count('gpio')]).toEqual([2, 2, 8, 28]);
	expect(HEADER_PINS.flatMap(({ gpio }) => gpio ?? []).sort((a, b) => a - b)).toEqual(
		Array.from({ length: 28 }, (_, n) => n)
	);
});
it('keeps both 5 V pins in the even row and the identifying memory at 27 and 28', () => {
	expect(HEADER_PINS.filter(({ kind }) => kind === '5 V').map(({ pin }) => pin)).toEqual([2, 4]);
	const pinsOf = (lines: readonly number[]): number[] =>
		lines.map((line) => HEADER_PINS.find(({ gpio }) => gpio === line)!.pin);
	expect(pinsOf(FUNCTION_LINES.idMemory)).toEqual([27, 28]);
	expect(pinsOf(FUNCTION_LINES.i2s)).toEqual([12, 35, 38, 40]);
	expect(pinsOf(FUNCTION_LINES.i2c)).toEqual([3, 5]);
});
it('names no line twice within a function, and PWM only on lines that have it', () => {
	for (const lines of Object.values(FUNCTION_LINES)) expect(new Set(lines).size).toBe(lines.length);
	expect(displayLines(18)).toHaveLength(22);
	expect(displayLines(24)).toHaveLength(28);
	expect(new Set(PWM_LINES.map(({ line }) => line)).size).toBe(4);
});
