import { formatSeconds } from '../../basics/format';
import type { TrackKind } from '../../engines/machine';

/** The track of volts and cuts. */
export const powerTrack: TrackKind = {
	id: 'power',
	title: 'Power',
	rank: 30,
	states: {
		off: { words: 'no power', tone: 'off' },
		'brown-out': { words: 'too little voltage', tone: 'bad' },
		low: { words: 'low voltage', tone: 'rest' },
		on: { words: 'on', tone: 'good' }
	},
	off: 'off',
	wakes: 'on',
	missed: 'it is without power',
	verdict({ spans }, say) {
		const dips = spans.filter(({ state }) => state === 'brown-out');
		const last = spans.at(-1);
		if (last?.state === 'brown-out') return { good: false, words: `Power fails: ${say(last.why)}` };
		const isLow = spans.some(({ state }) => state === 'low');
		if (dips.length === 0)
			return {
				good: true,
				words: isLow ? 'Power suffices, but the board complains of low voltage' : 'Enough power throughout'
			};
		const lostMs = dips.reduce((sum, { fromMs, toMs }) => sum + toMs - fromMs, 0);
		return {
			good: false,
			words: `Too little voltage ${dips.length === 1 ? 'once' : `${dips.length} times`}, ${formatSeconds(lostMs)} in all`
		};
	}
};
