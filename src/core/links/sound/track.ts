import { formatHz, formatSeconds } from '../../basics/format';
import type { Mark, TrackKind } from '../../engines/machine';
import type { Heard } from './heard';

/** Between two titles a player is silent for some hundredths of a second; below this, nobody speaks of silence. */
const UNNOTICED_MS = 200;

/** "44.1 kHz, 16 bit, unchanged". */
export const describeHeard = (heard: Heard): string =>
	`${formatHz(heard.sampleRateHz)}, ${heard.bitDepth} bit, ${heard.treatment}`;

/** What was heard in a rehearsal, each title once, as it sounded first. */
export const heardIn = (
	tracks: readonly { readonly id: string; readonly marks: readonly Mark[] }[]
): { atMs: number; heard: Heard }[] =>
	(tracks.find(({ id }) => id === 'ear')?.marks ?? []).map(({ atMs, data }) => ({ atMs, heard: data as Heard }));

/** The track of what is heard. */
export const earTrack: TrackKind = {
	id: 'ear',
	title: 'Ear',
	rank: 0,
	states: {
		off: { words: 'off', tone: 'off' },
		silence: { words: 'silence', tone: 'bad' },
		unused: { words: 'silent by plan', tone: 'rest' },
		quiet: { words: 'quiet', tone: 'rest' },
		sound: { words: 'sound', tone: 'good' }
	},
	off: 'off',
	wakes: 'silence',
	missed: 'nothing is heard',
	unnoticedMs: UNNOTICED_MS,
	verdict({ spans, marks }, say) {
		const first = marks[0];
		if (first)
			return { good: true, words: `Sound after ${formatSeconds(first.atMs)}: ${describeHeard(first.data as Heard)}` };
		const last = spans.at(-1);
		// What shows pictures alone is told to make no sound.
		if (last?.state === 'unused') return null;
		const why = last ? say(last.why) : 'nothing happened';
		return { good: false, words: `Silence: ${why}` };
	}
};
