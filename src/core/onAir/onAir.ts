import { dayFacts } from '../basics/calendar';
import { wallClockMs } from '../formats/systemd/zone';
import { holdsOn, type LineMoment, type RuleLine } from './line';
import { sunOn, type SunRow } from './sun';

const DAY_MIN = 1440;
export const MINUTE_MS = 60_000;
const DAY_MS = DAY_MIN * MINUTE_MS;

/** Rules as an endpoint follows them, where it follows them. */
export interface Rulebook {
	readonly lines: readonly RuleLine[];
	/** What is on while none holds. */
	readonly otherwise: string;
	readonly zone: string;
	readonly sun: readonly SunRow[];
	/** Lists are played in an order by chance, another one each round. */
	readonly shuffled?: boolean;
}
/** What is on, and by which line; null: by none. */
export interface OnAir {
	readonly show: string;
	readonly line: RuleLine | null;
	/** Minutes since its window, or its turn within that, began; null: no line holds. */
	readonly sinceMin?: number | null;
}
/** The same for a while. */
export interface Stretch extends OnAir {
	readonly fromUtcMs: number;
	readonly untilUtcMs: number;
}

/** When a line holds on a day, in minutes after the midnight of the day that is looked at; repeats count from `from`. */
interface Window {
	readonly line: RuleLine;
	readonly from: number;
	readonly until: number;
}

/** By book the days that were looked at last: who asks what is on asks again soon. */
const lately = new WeakMap<Rulebook, Map<string, readonly Window[]>>();
const MOST_DAYS = 8;

/** Windows of all lines that reach into a day, in the lines' order: those of the day itself, and those of the day before that go on. */
function windowsOf(book: Rulebook, day: number, offsetMin: number): readonly Window[] {
	let days = lately.get(book);
	if (!days) lately.set(book, (days = new Map()));
	const key = `${day} ${offsetMin}`;
	let windows = days.get(key);
	if (!windows) {
		if (days.size >= MOST_DAYS) days.clear();
		days.set(key, (windows = findWindows(book, day, offsetMin)));
	}
	return windows;
}

function findWindows(book: Rulebook, day: number, offsetMin: number): Window[] {
	const days = [dayFacts(day), dayFacts(day - 1)] as const;
	const rows = book.sun.length ? days.map(({ monthDay }) => sunOn(book.sun, monthDay)) : [];
	const minuteOf = ({ by, min }: LineMoment, n: number): number => {
		if (by === 'clock') return min;
		const utcMin = (by === 'rise' ? rows[n]?.riseMin : rows[n]?.setMin) ?? NaN;
		return (Number.isNaN(utcMin) ? 0 : utcMin + offsetMin) + min;
	};
	const out: Window[] = [];
	for (const line of book.lines)
		for (const n of [0, 1] as const) {
			if (!holdsOn(line, days[n])) continue;
			const from = minuteOf(line.from, n);
			const end = minuteOf(line.until, n);
			const shift = n * DAY_MIN;
			// An end at or before the beginning is on the next morning.
			const until = (end <= from ? end + DAY_MIN : end) - shift;
			if (n === 0 || until > 0) out.push({ line, from: from - shift, until });
		}
	return out;
}

/** What is on at a minute. The clock on the wall decides: an hour that comes twice is treated twice alike. */
function atMinute(windows: readonly Window[], otherwise: string, minute: number): OnAir {
	for (const { line, from, until } of windows)
		if (minute >= from && minute < until && (line.everyMin === 0 || (minute - from) % line.everyMin < line.forMin))
			return { show: line.show, line, sinceMin: line.everyMin === 0 ? minute - from : (minute - from) % line.everyMin };
	return { show: otherwise, line: null, sinceMin: null };
}

/** What is on at an instant, and which rule says so. */
export function onAirAt(book: Rulebook, utcMs: number): OnAir {
	const wall = wallClockMs(book.zone, utcMs);
	const day = Math.floor(wall / DAY_MS);
	const windows = windowsOf(book, day, Math.round((wall - utcMs) / MINUTE_MS));
	return atMinute(windows, book.otherwise, Math.floor((wall - day * DAY_MS) / MINUTE_MS));
}

/** Minutes of a day at which something may begin or end. */
function edgesOf(windows: readonly Window[]): number[] {
	const edges = new Set([0]);
	const add = (at: number): void => {
		if (at > 0 && at < DAY_MIN) edges.add(at);
	};
	for (const { line, from, until } of windows) {
		add(from);
		add(until);
		if (line.everyMin)
			for (let at = from; at < until; at += line.everyMin) {
				add(at);
				if (at + line.forMin < until) add(at + line.forMin);
			}
	}
	return [...edges].sort((a, b) => a - b);
}

/**
 * What is on from one instant to another, without a gap; neighbours that show the same by the same rule are one.
 * Days on which the clock is put forward or back are gone through by the hour as well.
 */
export function resolve(book: Rulebook, fromUtcMs: number, untilUtcMs: number): Stretch[] {
	const out: Stretch[] = [];
	const put = (at: OnAir, from: number): void => {
		const last = out.at(-1);
		if (last && last.show === at.show && last.line?.rule === at.line?.rule) return;
		if (last) out[out.length - 1] = { ...last, untilUtcMs: from };
		out.push({ ...at, fromUtcMs: Math.max(from, fromUtcMs), untilUtcMs });
	};
	const firstDay = Math.floor(wallClockMs(book.zone, fromUtcMs) / DAY_MS);
	const lastDay = Math.floor(wallClockMs(book.zone, untilUtcMs - 1) / DAY_MS);
	const offsetAt = (utcMs: number): number => Math.round((wallClockMs(book.zone, utcMs) - utcMs) / MINUTE_MS);
	put(onAirAt(book, fromUtcMs), fromUtcMs);
	let reached = fromUtcMs;
	/** In order, each once: an hour that is skipped would come before what has been looked at. */
	const look = (utcMs: number, at: () => OnAir): void => {
		if (utcMs <= reached || utcMs >= untilUtcMs) return;
		reached = utcMs;
		put(at(), utcMs);
	};
	let begins = offsetAt(fromUtcMs - DAY_MS);
	for (let day = firstDay; day <= lastDay; day++) {
		const midnight = day * DAY_MS;
		const known = begins;
		begins = offsetAt(midnight - known * MINUTE_MS);
		const ends = offsetAt(midnight + DAY_MS - begins * MINUTE_MS);
		if (known === begins && begins === ends) {
			const windows = windowsOf(book, day, begins);
			for (const minute of edgesOf(windows))
				look(midnight + (minute - begins) * MINUTE_MS, () => atMinute(windows, book.otherwise, minute));
			continue;
		}
		const wanted = new Set<number>();
		for (const offset of new Set([known, begins, ends])) {
			const at = (minute: number): unknown => wanted.add(midnight + (minute - offset) * MINUTE_MS);
			edgesOf(windowsOf(book, day, offset)).forEach(at);
			// No zone changes its clock at another time than a quarter of an hour, but Casey's, until 2022. Source: tz database.
			for (let minute = 0; minute <= DAY_MIN; minute += 15) at(minute);
		}
		for (const utcMs of [...wanted].sort((a, b) => a - b)) look(utcMs, () => onAirAt(book, utcMs));
		begins = ends;
	}
	return out;
}

/** The first instant, within a span, at which any of the lines begins to hold; null: none does. */
export function firstHold(book: Rulebook, fromUtcMs: number, untilUtcMs: number): number | null {
	const first = Math.floor(wallClockMs(book.zone, fromUtcMs) / DAY_MS);
	const last = Math.floor(wallClockMs(book.zone, untilUtcMs) / DAY_MS);
	for (let day = first; day <= last; day++) {
		if (!book.lines.some((line) => holdsOn(line, dayFacts(day)))) continue;
		const noon = day * DAY_MS + DAY_MS / 2;
		const offsetMin = Math.round((wallClockMs(book.zone, noon) - noon) / MINUTE_MS);
		for (const { from } of windowsOf(book, day, offsetMin)) {
			const utcMs = day * DAY_MS + (from - offsetMin) * MINUTE_MS;
			if (from >= 0 && utcMs >= fromUtcMs && utcMs < untilUtcMs && onAirAt(book, utcMs).line) return utcMs;
		}
	}
	return null;
}
