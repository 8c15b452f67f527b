import type { Context } from '../../link';
import type { SourcesSettings } from './settings';

/** How a stream comes: it stands still so often, each time for so long on average. */
export interface Pauses {
	readonly perHour: number;
	readonly meanSec: number;
}

/** By the endpoint's own way into the network; the server's own come on top. Typical. */
export const USUAL_PAUSES = {
	wired: { perHour: 0.5, meanSec: 0.3 },
	radio: { perHour: 20, meanSec: 0.6 }
} as const satisfies Record<string, Pauses>;

/** How streams come here: as measured, else as is usual of the endpoint's way; null: it has none. */
export const pausesOf = ({ pauses }: SourcesSettings, { facts }: Context): Pauses | null =>
	facts.way === 'none' ? null : (pauses ?? USUAL_PAUSES[facts.way]);

/** What the player holds without being told: after its first dropout it waits for one second. Source: mpv(1), --cache-pause-wait. */
export const OWN_BUFFER_SEC = 1;
/** What stood in the way arrives so many times as fast as it is played. Typical of a link that is not full. */
const CATCHES_UP = 4;

/** What is heard of it. */
export interface Dropouts {
	readonly perHour: number;
	readonly silentSecPerHour: number;
}

/** A repeatable sequence between 0 and 1. Source: Marsaglia, Xorshift RNGs (2003), 32 bits. */
function numbersFrom(seed: number): () => number {
	let state = seed >>> 0 || 1;
	return () => {
		state ^= state << 13;
		state ^= state >>> 17;
		state ^= state << 5;
		return ((state >>> 0) + 0.5) / 2 ** 32;
	};
}

/**
 * Plays a stream through a buffer for so many hours: pauses come at random and last at random (both exponentially), the buffer is
 * filled again faster than it is played, and a player that runs dry waits until it is full once more.
 */
export function simulateBuffer({ perHour, meanSec }: Pauses, bufferSec: number, hours = 2000, seed = 7): Dropouts {
	if (perHour <= 0) return { perHour: 0, silentSecPerHour: 0 };
	const next = numbersFrom(seed);
	const exponential = (mean: number): number => -mean * Math.log(next());
	let level = bufferSec;
	let dropouts = 0;
	let silent = 0;
	for (let sec = 0; sec < hours * 3600;) {
		const calm = exponential(3600 / perHour);
		level = Math.min(bufferSec, level + calm * (CATCHES_UP - 1));
		const pause = exponential(meanSec);
		sec += calm + pause;
		if (pause <= level) level -= pause;
		else {
			dropouts++;
			silent += pause - level + bufferSec / CATCHES_UP;
			level = bufferSec;
		}
	}
	return { perHour: dropouts / hours, silentSecPerHour: silent / hours };
}

/** The same by a formula, where pauses are rare against the time of filling: one in e^(buffer/mean) outlasts the buffer. */
export const expectedDropouts = ({ perHour, meanSec }: Pauses, bufferSec: number): number =>
	perHour * Math.exp(-bufferSec / meanSec);

/** The shortest buffer, in half seconds, with which at most so many dropouts a day are expected. */
export function leastBuffer(pauses: Pauses, mostPerDay = 1): number {
	const sec = pauses.meanSec * Math.log((24 * pauses.perHour) / mostPerDay);
	return Math.max(0, Math.ceil(sec * 2) / 2);
}
