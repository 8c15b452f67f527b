import { formatSeconds } from '../../format';
import type { TrackKind } from '../../engines/machine';
import type { Answer } from './knock';

/** What came of a visit, for the verdict. */
export interface Visited extends Answer {
	readonly from: string;
	readonly welcome: boolean;
}

export const reachTrack: TrackKind = {
	id: 'reach',
	title: 'Reachability',
	rank: 20,
	states: {
		off: { words: 'off', tone: 'off' },
		away: { words: 'not on the network', tone: 'bad' },
		there: { words: 'on the network', tone: 'good' }
	},
	off: 'off',
	wakes: 'away',
	missed: 'nobody reaches it',
	verdict({ spans, marks }, say) {
		const there = spans.find(({ state }) => state === 'there');
		const last = spans.at(-1);
		// On a bench without any network nobody expects to reach it.
		if (!there)
			return last && last.why.code !== 'no-network' ? { good: false, words: `Not reached: ${say(last.why)}` } : null;
		const name = marks.find(({ name: mark }) => mark === 'name')?.data as string | undefined;
		const visits = marks.filter(({ name: mark }) => mark !== 'name').map(({ data }) => data as Visited);
		return {
			good: visits.every(({ open, welcome }) => open === welcome),
			words: [
				`Reached after ${formatSeconds(there.fromMs)}${name ? ` as ${name}` : ', by its number only'}`,
				...visits.map(({ from, words }) => `${from} ${words}`)
			].join('; ')
		};
	}
};
