import type { Words } from '../../engines/machine';
import { pinOf } from './occupancy';

/** The header's conflicts in words, by kind. */
export const HEADER_WORDS = {
	line: ({ gpio, a, b }: { gpio: number; a: string; b: string }) =>
		`Pin ${pinOf(gpio)} is wanted twice: ${a} and ${b} are not to be relied on`,
	address: ({ names }: { names: readonly string[] }) => `Two parts answer at one address: ${names.join(', ')}`,
	'id-memory': ({ names }: { names: readonly string[] }) =>
		`Two identifying memories: neither ${names[0]} nor ${names[1]} is recognised`,
	'no-pwm': ({ name, gpio }: { name: string; gpio: number }) => `${name} does not turn: GPIO ${gpio} has no PWM`
} as const satisfies Words;

export default HEADER_WORDS;
