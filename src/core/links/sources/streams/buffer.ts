/**
 * How often a live stream breaks off. The player holds some seconds of it; a pause that outlasts them is a dropout. What was missed comes
 * after all and is played later, so each dropout leaves the player as much further behind, and it bears longer pauses from then on: dropouts
 * grow rarer the longer it plays.
 */
import type { Context } from '../../../link/context';
import type { SourcesSettings } from '../settings';

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

/** What the player holds where it begins at once, from a server that sends no faster than is played. Measured with mpv 0.35.1. */
const BEGINS_WITH_SEC = 0.4;
/** What it gathers after a dropout without being told. Source: mpv(1), --cache-pause-wait. */
const OWN_WAIT_SEC = 1;
/** The output empties in a dropout and is filled again too. Source: mpv(1), --audio-buffer. */
const OUTPUT_SEC = 0.2;
/** What stood in the way arrives so many times as fast as it is played. Typical of a link that is not full. */
const CATCHES_UP = 4;
/** Streams are begun anew at least once a day: by quiet hours, a cut, or the station. */
export const LONGEST_PLAY_H = 24;

/** What the player holds at the start, and what it gathers after each dropout, s. */
export const heldBy = (bufferSec: number): { readonly startSec: number; readonly refillSec: number } => ({
	startSec: Math.max(BEGINS_WITH_SEC, bufferSec),
	refillSec: (bufferSec > 0 ? bufferSec : OWN_WAIT_SEC) + OUTPUT_SEC
});
/** The same, with the time in which that arrives. */
const held = (bufferSec: number): { readonly startSec: number; readonly waitSec: number } => {
	const { startSec, refillSec } = heldBy(bufferSec);
	return { startSec, waitSec: refillSec / CATCHES_UP };
};

/** Steps of the reckoning for each e-fold of time. */
const STEPS = 24;

/**
 * The same without chance. A dropout leaves the lag longer by what is left of an exponential pause, which is exponential again, and by the
 * refilling; so with f(a) the dropouts expected of a pauses that outlast the first lag, f' + f = 1 + the mean of f from 0 to qa, where q is
 * by how much the refilling alone makes them rarer. Solved in steps of equal ratio.
 */
export function expectedDropouts({ perHour, meanSec }: Pauses, bufferSec: number, hours = LONGEST_PLAY_H): number {
	const { startSec, waitSec } = held(bufferSec);
	const most = perHour * hours * Math.exp(-startSec / meanSec);
	// Below this nearly all of them are the first.
	const SMALL = 1e-4;
	if (!(most > SMALL)) return Math.max(0, most);
	const behind = (waitSec / meanSec) * STEPS;
	const [whole, part] = [Math.floor(behind), behind % 1];
	const means: number[] = [];
	const meanAt = (n: number): number => (n < 0 ? (SMALL / 2) * Math.exp(n / STEPS) : means[n]!);
	let f = SMALL;
	let sum = SMALL ** 2 / 2;
	let at = SMALL;
	for (let n = 0; at < most; n++) {
		means.push(sum / at);
		const next = Math.min(most, at * Math.exp(1 / STEPS));
		const level = 1 + meanAt(n - whole) * (1 - part) + meanAt(n - whole - 1) * part;
		const then = level + (f - level) * Math.exp(at - next);
		sum += ((f + then) / 2) * (next - at);
		f = then;
		at = next;
	}
	return f;
}

/** How far behind the player is on average after so many dropouts, s. */
export const lagAfter = ({ meanSec }: Pauses, bufferSec: number, dropouts: number): number => {
	const { startSec, waitSec } = held(bufferSec);
	return startSec + dropouts * (meanSec + waitSec);
};

/** The shortest buffer, in half seconds, with which at most so many dropouts are expected in a day; null: none that can be set. */
export function leastBuffer(pauses: Pauses, mostPerDay = 1): number | null {
	for (let sec = 0; sec <= 60; sec += 0.5) if (expectedDropouts(pauses, sec) <= mostPerDay) return sec;
	return null;
}
