import { withUnit } from '../../basics/format';
import type { Words } from '../../engines/machine';

const percent = (part: number): string => `${Math.max(1, Math.round(part * 100))}\u2009%`;

/** The heat's events in words, by code. */
export const HEAT_WORDS = {
	'fan-begins': ({ chipC }: { chipC: number }) => ['The fan begins to turn', withUnit(chipC, 0, '°C')],
	'fan-stands': () => 'The fan stands still',
	'fan-again': () => 'The fan turns again',
	settled: ({ chipC }: { chipC: number }) => ['As warm as it gets', withUnit(chipC, 0, '°C')],
	throttled: ({ chipC, dropped }: { chipC: number; dropped: number }) => [
		dropped > 0
			? `Too hot: the board slows itself, ${percent(dropped)} of the frames are dropped`
			: 'Too hot: the board slows itself; what it plays does not suffer',
		withUnit(chipC, 0, '°C')
	],
	late: ({ dropped }: { dropped: number }) =>
		`The processors cannot keep up: ${percent(dropped)} of the frames are late`
} as const satisfies Words;

export default HEAT_WORDS;
