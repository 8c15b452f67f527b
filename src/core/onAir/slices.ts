import { instantOf, wallClockMs } from '../formats/systemd/zone';
import { resolve, type OnAir, type Rulebook } from './onAir';

/**
 * The instant at which the clock of a zone shows "2026-11-27T16:45": the first of two, the one after a gap where it never does; null:
 * that is no time.
 */
export function instantOfClock(zone: string, text: string): number | null {
	const wallMs = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/.test(text) ? Date.parse(`${text}:00Z`) : NaN;
	if (Number.isNaN(wallMs)) return null;
	const found = instantOf(zone, wallMs);
	if (found !== null) return found;
	// By the offset before the gap.
	const before = wallMs - DAY_MS;
	return wallMs - (wallClockMs(zone, before) - before);
}

/** A stretch within one day, by the clock on the wall. */
export interface Slice {
	readonly on: OnAir;
	/** Counted from the first day that was asked for. */
	readonly day: number;
	readonly fromMin: number;
	readonly untilMin: number;
	/** Of the whole stretch that it is part of. */
	readonly fromUtcMs: number;
	readonly untilUtcMs: number;
}

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;

/** The first instant of a day in a zone, even where its midnight is skipped. */
export function startOfDayMs(zone: string, day: number): number {
	let at = day * DAY_MS;
	// Twice, since the offset at the first guess may be that of the day before.
	for (let tries = 0; tries < 2; tries++) at = day * DAY_MS - (wallClockMs(zone, at) - at);
	// Where midnight is skipped that is the hour before: the day begins when the clock jumps.
	return at + Math.max(0, day * DAY_MS - wallClockMs(zone, at));
}

/** What is on from one day on, cut at each midnight: for drawing. An hour that comes twice is drawn once. */
export function slices(book: Rulebook, firstDay: number, days: number): Slice[] {
	const from = startOfDayMs(book.zone, firstDay);
	const until = startOfDayMs(book.zone, firstDay + days);
	return resolve(book, from, until).flatMap(({ fromUtcMs, untilUtcMs, ...on }) => {
		const begins = wallClockMs(book.zone, fromUtcMs) - firstDay * DAY_MS;
		const ends = Math.max(begins + MINUTE_MS, wallClockMs(book.zone, untilUtcMs) - firstDay * DAY_MS);
		const out: Slice[] = [];
		for (let day = Math.floor(begins / DAY_MS); day < days && day * DAY_MS < ends; day++) {
			if (day < 0) continue;
			out.push({
				on,
				day,
				fromMin: Math.max(0, begins - day * DAY_MS) / MINUTE_MS,
				untilMin: Math.min(DAY_MS, ends - day * DAY_MS) / MINUTE_MS,
				fromUtcMs,
				untilUtcMs
			});
		}
		return out;
	});
}

/** The next instant within a year at which a zone's clock is changed, and by how many minutes; null: none is. */
export function nextClockChange(zone: string, fromUtcMs: number): { utcMs: number; byMin: number } | null {
	const offsetAt = (utcMs: number): number => wallClockMs(zone, utcMs) - utcMs;
	const now = offsetAt(fromUtcMs);
	for (let day = 1; day <= 366; day++) {
		let high = fromUtcMs + day * DAY_MS;
		if (offsetAt(high) === now) continue;
		let low = high - DAY_MS;
		while (high - low > MINUTE_MS) {
			const middle = low + Math.floor((high - low) / (2 * MINUTE_MS)) * MINUTE_MS;
			if (offsetAt(middle) === now) low = middle;
			else high = middle;
		}
		return { utcMs: high, byMin: (offsetAt(high) - now) / MINUTE_MS };
	}
	return null;
}
