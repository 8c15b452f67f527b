import { formatSeconds } from '../../basics/format';
import type { TrackKind } from '../../engines/machine';
import type { Seen } from './seen';

/** "1920 × 1080, 50 Hz", and what is wrong with it. */
export function describeSeen(seen: Seen): string {
	const wrong = [
		...(seen.turnedDeg ? [`turned by ${seen.turnedDeg}°`] : []),
		...(seen.cutPercent >= 0.5 ? [`${seen.cutPercent.toFixed(1)}\u2009% cut off`] : []),
		...(seen.shownFps !== null && seen.wantedFps !== null && seen.shownFps < seen.wantedFps - 0.5
			? [`${seen.shownFps.toFixed(0)} of ${seen.wantedFps} frames a second`]
			: []),
		...(seen.slipsPerSec > 0 ? [`${seen.slipsPerSec.toFixed(seen.slipsPerSec < 1 ? 2 : 0)} slips a second`] : [])
	];
	return `${seen.mode}${wrong.length ? `, ${wrong.join(', ')}` : ', whole and upright'}`;
}

/** The track of what is seen. */
export const eyeTrack: TrackKind = {
	id: 'eye',
	title: 'Eye',
	rank: 1,
	states: {
		off: { words: 'off', tone: 'off' },
		unused: { words: 'nothing to be seen', tone: 'rest' },
		dark: { words: 'dark', tone: 'bad' },
		console: { words: 'console', tone: 'bad' },
		wrong: { words: 'wrong picture', tone: 'bad' },
		resting: { words: 'off by plan', tone: 'rest' },
		picture: { words: 'picture', tone: 'good' }
	},
	off: 'off',
	wakes: 'dark',
	missed: 'nothing is seen',
	unnoticedMs: 200,
	verdict({ spans, marks }, say) {
		// Nothing is wanted of the eye where no screen is.
		if (spans.every(({ state }) => state === 'off' || state === 'unused')) return null;
		const first = marks[0];
		const last = spans.at(-1);
		if (first) {
			const isGood = spans.some(({ state }) => state === 'picture');
			return {
				good: isGood,
				words: `${isGood ? 'Picture' : 'Wrong picture'} after ${formatSeconds(first.atMs)}: ${describeSeen(first.data as Seen)}`
			};
		}
		return { good: false, words: `No picture: ${last ? say(last.why) : 'nothing happened'}` };
	}
};
