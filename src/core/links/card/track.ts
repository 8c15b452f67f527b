import { formatSeconds } from '../../basics/format';
import type { TrackKind } from '../../engines/machine';

/** The track of what is written and what a cut tears. */
export const cardTrack: TrackKind = {
	id: 'card',
	title: 'Card',
	rank: 40,
	states: {
		off: { words: 'off', tone: 'off' },
		starting: { words: 'not mounted yet', tone: 'rest' },
		whole: { words: 'whole', tone: 'good' },
		full: { words: 'full', tone: 'bad' },
		torn: { words: 'torn', tone: 'bad' }
	},
	off: 'off',
	wakes: 'starting',
	missed: 'the card cannot be used',
	verdict({ spans, marks }, say) {
		const bad = spans.filter(({ state }) => state === 'torn' || state === 'full');
		const last = spans.at(-1);
		if (last && (last.state === 'torn' || last.state === 'full'))
			return { good: false, words: `The card: ${say(last.why)}` };
		const kept = marks[0]?.data as string | undefined;
		return bad.length === 0
			? { good: true, words: `The card stays whole${kept ? `; ${kept}` : ''}` }
			: {
					good: true,
					words: `The card was ${bad[0]!.state} at ${formatSeconds(bad[0]!.fromMs)}, and is whole again${kept ? `; ${kept}` : ''}`
				};
	}
};
