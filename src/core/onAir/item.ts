import { wallClockMs } from '../formats/systemd/zone';
import { MINUTE_MS, onAirAt, resolve, type OnAir, type Rulebook } from './onAir';
import { startOfDayMs } from './slices';

/** One thing of a playlist, as it is shown or heard. */
export interface Item {
	readonly id: string;
	readonly title: string;
	readonly kind: 'page' | 'still' | 'film' | 'sound' | 'stream';
	/** Where an entry's file or stream is; "" of a page. */
	readonly location: string;
	/** null: without end, or nobody knows. */
	readonly lastsMs: number | null;
}

/** What of a playlist is on, and until when at most. */
export interface OnNow<I> extends OnAir {
	/** null: nothing is shown. */
	readonly item: I | null;
	readonly index: number;
	/** Of the item, what is over already, ms. */
	readonly intoMs: number;
	readonly untilUtcMs: number;
	/** When another list may be on; not further than a day. */
	readonly endsUtcMs: number;
}

/** Of unknown length: as long as a still of a careful plan. */
const ASSUMED_MS = 12_000;
/** How long an entry has the turn, ms. */
export const turnMs = ({ lastsMs }: { readonly lastsMs: number | null }): number =>
	Math.max(1000, lastsMs ?? ASSUMED_MS);
const DAY_MS = 86_400_000;

/** A list begins when its line does, or at midnight; what has come between does not count, so that it goes on where it was. */
function playedMs(book: Rulebook, { show, line, sinceMin }: OnAir, utcMs: number): number {
	const beganMs =
		sinceMin === null || sinceMin === undefined
			? startOfDayMs(book.zone, Math.floor(wallClockMs(book.zone, utcMs) / DAY_MS))
			: utcMs - (utcMs % MINUTE_MS) - sinceMin * MINUTE_MS;
	if (beganMs >= utcMs) return 0;
	return resolve(book, beganMs, utcMs)
		.filter((stretch) => stretch.show === show && stretch.line?.rule === line?.rule)
		.reduce((sum, { fromUtcMs, untilUtcMs }) => sum + untilUtcMs - fromUtcMs, 0);
}

/**
 * What is on at an instant, to the item: by the clock alone, so that after a power cut it goes on as if there had been none.
 * `listed` gives what a list plays, in order.
 */
export function itemAt<I extends { readonly lastsMs: number | null }>(
	book: Rulebook,
	listed: (show: string) => readonly I[],
	utcMs: number
): OnNow<I> {
	const on = onAirAt(book, utcMs);
	const ends = resolve(book, utcMs, utcMs + DAY_MS)[0]!.untilUtcMs;
	const items = listed(on.show);
	const lengths = items.map(turnMs);
	const totalMs = lengths.reduce((sum, ms) => sum + ms, 0);
	if (totalMs === 0) return { ...on, item: null, index: -1, intoMs: 0, untilUtcMs: ends, endsUtcMs: ends };
	let intoMs = playedMs(book, on, utcMs) % totalMs;
	let index = 0;
	while (intoMs >= lengths[index]!) intoMs -= lengths[index++]!;
	return {
		...on,
		item: items[index]!,
		index,
		intoMs,
		untilUtcMs: Math.min(ends, utcMs + lengths[index]! - intoMs),
		endsUtcMs: ends
	};
}
