/** So many bytes of a stream had come by then. */
export interface Arrival {
	readonly atMs: number;
	readonly bytes: number;
}
/** What a stream was like while it was tried. */
export interface Tried {
	/** Average since the first byte, bit/s. */
	readonly rateBps: number;
	/** How often, and how long on average, nothing came that was due. */
	readonly pauses: readonly { readonly atMs: number; readonly lastedMs: number }[];
	/** Of a player that gathers so much first, and so much again after each dropout: how often it would have stood still. */
	dropouts(bufferSec: number, refillSec?: number): number;
}

/** Shorter ones every player bridges. */
export const SHORTEST_PAUSE_MS = 250;

/** What the arrivals of a stream of that rate come to, `bitRateBps` being what playing it takes. Times and bytes only grow. What comes in segments is to come only so often: `shortestMs`. */
export function triedWith(arrivals: readonly Arrival[], bitRateBps: number, shortestMs = SHORTEST_PAUSE_MS): Tried {
	const [first] = arrivals;
	const last = arrivals.at(-1);
	const bytesPerMs = bitRateBps / 8000;
	const pauses: { atMs: number; lastedMs: number }[] = [];
	for (const [n, { atMs }] of arrivals.entries()) {
		const before = arrivals[n - 1];
		// What came at once is played for a while: only what goes beyond that was missed.
		const gapMs = before ? atMs - before.atMs : 0;
		if (before && gapMs > shortestMs && gapMs > (before.bytes - (arrivals[n - 2]?.bytes ?? 0)) / bytesPerMs)
			pauses.push({ atMs: before.atMs, lastedMs: gapMs });
	}
	const spanMs = first && last ? last.atMs - first.atMs : 0;
	return {
		rateBps: spanMs > 0 ? ((last!.bytes - first!.bytes) * 8000) / spanMs : 0,
		pauses,
		dropouts(bufferSec, refillSec = bufferSec) {
			let count = 0;
			let held = 0;
			let playing = false;
			let wantedSec = bufferSec;
			let thenMs = first?.atMs ?? 0;
			let thenBytes = first?.bytes ?? 0;
			for (const { atMs, bytes } of arrivals) {
				if (playing) {
					held -= (atMs - thenMs) * bytesPerMs;
					if (held < 0) {
						count++;
						held = 0;
						playing = false;
						wantedSec = refillSec;
					}
				}
				held += bytes - thenBytes;
				if (!playing && held >= wantedSec * 1000 * bytesPerMs && held > 0) playing = true;
				thenMs = atMs;
				thenBytes = bytes;
			}
			return count;
		}
	};
}
