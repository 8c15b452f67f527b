import { wallClockMs } from '../formats/systemd/zone';
import { MINUTE_MS, onAirAt, resolve, type OnAir, type Rulebook } from './onAir';
import type { EntryPart } from '../files/entryPart';
import { dayFacts } from '../basics/calendar';
import { ALWAYS, type Span } from './line';
import { shuffledOrder } from './shuffled';
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
	/** First and last day on which it is on, such as 20261201; absent: on any. */
	readonly days?: Span | null;
	/** What of it is played; absent: all of it. */
	readonly part?: EntryPart | null;
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
/** Between two entries the next one's decoder begins, though it was opened before, ms. Typical: from real starts of the player on small boards. */
export const SEAM_MS = 250;
/** How long an entry has the turn, ms. */
export const turnMs = ({ lastsMs }: { readonly lastsMs: number | null }): number =>
	Math.max(1000, lastsMs ?? ASSUMED_MS);
const DAY_MS = 86_400_000;

/**
 * Since when a list is on, and how long it has played: it begins when its line does, or at midnight; what has come between does not count,
 * so that it goes on where it was.
 */
function playedOf(
	book: Rulebook,
	{ show, line, sinceMin }: OnAir,
	utcMs: number
): { readonly beganMs: number; readonly playedMs: number } {
	const beganMs =
		sinceMin === null || sinceMin === undefined
			? startOfDayMs(book.zone, Math.floor(wallClockMs(book.zone, utcMs) / DAY_MS))
			: utcMs - (utcMs % MINUTE_MS) - sinceMin * MINUTE_MS;
	if (beganMs >= utcMs) return { beganMs, playedMs: 0 };
	const playedMs = resolve(book, beganMs, utcMs)
		.filter((stretch) => stretch.show === show && stretch.line?.rule === line?.rule)
		.reduce((sum, { fromUtcMs, untilUtcMs }) => sum + untilUtcMs - fromUtcMs, 0);
	return { beganMs, playedMs };
}

/** The days of an entry, as they are asked for; null: any. */
export const spanOfDates = (from: string, until: string): Span | null =>
	from === '' && until === ''
		? null
		: {
				from: from === '' ? ALWAYS.from : Number(from.replaceAll('-', '')),
				until: until === '' ? ALWAYS.until : Number(until.replaceAll('-', ''))
			};
/** Whether an entry is on at all on a day, such as 20261201. */
export const isOfDay = ({ days }: { readonly days?: Span | null }, ymd: number): boolean =>
	!days || (ymd >= days.from && ymd <= days.until);

/**
 * What is on at an instant, to the item: by the clock alone, so that after a power cut it goes on as if there had been none.
 * `listed` gives what a list plays, in order.
 */
export function itemAt<I extends { readonly lastsMs: number | null; readonly days?: Span | null }>(
	book: Rulebook,
	listed: (show: string) => readonly I[],
	utcMs: number
): OnNow<I> {
	const on = onAirAt(book, utcMs);
	const all = listed(on.show);
	const day = Math.floor(wallClockMs(book.zone, utcMs) / DAY_MS);
	const items = all.filter((item) => isOfDay(item, dayFacts(day).ymd));
	const stretch = resolve(book, utcMs, utcMs + DAY_MS)[0]!.untilUtcMs;
	// Tomorrow others may be of the day.
	const ends = all.some(({ days }) => days) ? Math.min(stretch, startOfDayMs(book.zone, day + 1)) : stretch;
	const lengths = items.map(turnMs);
	const totalMs = lengths.reduce((sum, ms) => sum + ms, 0);
	if (totalMs === 0) return { ...on, item: null, index: -1, intoMs: 0, untilUtcMs: ends, endsUtcMs: ends };
	const { beganMs, playedMs } = playedOf(book, on, utcMs);
	const order = book.shuffled
		? shuffledOrder(
				items.length,
				`${on.show} ${Math.floor(wallClockMs(book.zone, beganMs) / DAY_MS)}`,
				Math.floor(playedMs / totalMs)
			)
		: null;
	let intoMs = playedMs % totalMs;
	let turn = 0;
	const placeOf = (n: number): number => order?.[n] ?? n;
	while (intoMs >= lengths[placeOf(turn)]!) intoMs -= lengths[placeOf(turn++)]!;
	const index = placeOf(turn);
	return {
		...on,
		item: items[index]!,
		index,
		intoMs,
		untilUtcMs: Math.min(ends, utcMs + lengths[index]! - intoMs),
		endsUtcMs: ends
	};
}
