import { withUnit } from '../../basics/format';
import type { Words } from '../../engines/machine';

const volts = (reading: number | null): string => (reading === null ? '' : withUnit(reading, 2, 'V'));

/** The power's events in words, by code. */
export const POWER_WORDS = {
	'mains-on': ({ boardV }: { boardV: number | null }) => ['Mains on', volts(boardV)],
	'mains-back': ({ boardV }: { boardV: number | null }) => ['Mains back', volts(boardV)],
	'tries-again': ({ boardV }: { boardV: number | null }) => ['The board tries again', volts(boardV)],
	'mains-gone': () => ['Mains gone: everything stops at once', '0.00\u2009V'],
	'brown-out': ({ watts, boardV }: { watts: number; boardV: number }) => [
		`Too little voltage at ${withUnit(watts, 1, 'W')}: the board goes down`,
		boardV === 0 ? 'collapses' : withUnit(boardV, 2, 'V')
	],
	warns: ({ watts, boardV }: { watts: number; boardV: number }) => [
		`Low voltage at ${withUnit(watts, 1, 'W')}: the board complains and slows itself`,
		withUnit(boardV, 2, 'V')
	],
	low: () => 'below what the board wants',
	'for-ever': ({ times }: { times: number }) => `It has gone down ${times} times and will go on so`,
	'too-little': () => 'too little voltage',
	'too-little-for-ever': () => 'too little voltage: it restarts for ever',
	'charger-in': () => 'A telephone charger is put in its place',
	'charger-out': () => 'The planned supply is back',
	enough: () => 'the supply suffices'
} as const satisfies Words;

export default POWER_WORDS;
