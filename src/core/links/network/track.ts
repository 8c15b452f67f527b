import { formatSeconds } from '../../basics/format';
import type { TrackKind } from '../../engines/machine';
import type { Answer } from './knock';

/** What came of a visit, for the verdict. */
export interface Visited extends Answer {
	readonly from: string;
	readonly welcome: boolean;
}

/** Begins the names of marks that are visits. */
export const VISIT = 'visit ';

/** The track of who can reach the endpoint. */
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
		const visits = marks.filter((mark) => mark.name.startsWith(VISIT)).map(({ data }) => data as Visited);
		const good = visits.every(({ open, welcome }) => open === welcome);
		if (!there && last?.why.code !== 'no-network')
			return last ? { good: false, words: `Not reached: ${say(last.why)}` } : null;
		if (!there)
			return visits.length > 0 ? { good, words: visits.map(({ from, words }) => `${from} ${words}`).join('; ') } : null;
		const markOf = (name: string): string | undefined => marks.find((mark) => mark.name === name)?.data as string;
		const name = markOf('name');
		const address = markOf('address');
		const updates = marks.find((mark) => mark.name === 'updates');
		return {
			good,
			words: [
				`Reached after ${formatSeconds(there.fromMs)}${name ? ` as ${name}` : ', by its number only'}${address ? ` at ${address}` : ''}`,
				...visits.map(({ from, words }) => `${from} ${words}`),
				...(markOf('guard') ? [markOf('guard')!] : []),
				...(updates ? [`security updates were in after ${formatSeconds(updates.atMs)}`] : [])
			].join('; ')
		};
	}
};
