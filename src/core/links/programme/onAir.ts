import { dayFacts, type DayFacts } from '../../basics/calendar';
import { wallClockMs } from '../../formats/systemd/zone';
import { holdsOn, type LineMoment, type RuleLine } from './ruleLines';
import { sunOn, type SunRow } from './sun';

const DAY_MIN = 1440;
const MINUTE_MS = 60_000;
const DAY_MS = DAY_MIN * MINUTE_MS;

/** Rules as an endpoint follows them, where it follows them. */
export interface Rulebook {
	readonly lines: readonly RuleLine[];
	/** What is on while none holds. */
	readonly otherwise: string;
	readonly zone: string;
	readonly sun: readonly SunRow[];
}
/** What is on, and by which line; null: by none. */
export interface OnAir {
	readonly show: string;
	readonly line: RuleLine | null;
}
/** The same for a while. */
export interface Stretch extends OnAir {
	readonly fromUtcMs: number;
	readonly untilUtcMs: number;
}

function minuteOf({ by, min }: LineMoment, day: DayFacts, { sun }: Rulebook, offsetMin: number): number {
	if (by === 'clock') return min;
	const row = sunOn(sun, day.monthDay);
	const utcMin = (by === 'rise' ? row?.riseMin : row?.setMin) ?? NaN;
	return (Number.isNaN(utcMin) ? 0 : utcMin + offsetMin) + min;
}

/** From when until when a line would hold on a day, in minutes after its midnight; it may go on into the next. */
function windowOf(line: RuleLine, day: DayFacts, book: Rulebook, offsetMin: number): readonly [number, number] {
	const from = minuteOf(line.from, day, book, offsetMin);
	const until = minuteOf(line.until, day, book, offsetMin);
	return [from, until <= from ? until + DAY_MIN : until];
}

const isWithin = (line: RuleLine, [from, until]: readonly [number, number], minute: number): boolean =>
	minute >= from && minute < until && (line.everyMin === 0 || (minute - from) % line.everyMin < line.forMin);

/** What is on at a wall clock. The clock on the wall decides: an hour that comes twice is treated twice alike. */
function atWall(book: Rulebook, day: number, minute: number, offsetMin: number): OnAir {
	const today = dayFacts(day);
	const yesterday = dayFacts(day - 1);
	const line = book.lines.find(
		(known) =>
			(holdsOn(known, today) && isWithin(known, windowOf(known, today, book, offsetMin), minute)) ||
			(holdsOn(known, yesterday) && isWithin(known, windowOf(known, yesterday, book, offsetMin), minute + DAY_MIN))
	);
	return line ? { show: line.show, line } : { show: book.otherwise, line: null };
}

/** What is on at an instant, and which rule says so. */
export function onAirAt(book: Rulebook, utcMs: number): OnAir {
	const wall = wallClockMs(book.zone, utcMs);
	const day = Math.floor(wall / DAY_MS);
	return atWall(book, day, Math.floor((wall - day * DAY_MS) / MINUTE_MS), Math.round((wall - utcMs) / MINUTE_MS));
}

/** Minutes of a day at which something may begin or end. */
function edgesOf(book: Rulebook, day: number, offsetMin: number): number[] {
	const edges = new Set([0]);
	for (const [facts, shift] of [
		[dayFacts(day), 0],
		[dayFacts(day - 1), DAY_MIN]
	] as const)
		for (const line of book.lines) {
			if (!holdsOn(line, facts)) continue;
			const [from, until] = windowOf(line, facts, book, offsetMin);
			const add = (minute: number): void => {
				const at = minute - shift;
				if (at > 0 && at < DAY_MIN) edges.add(at);
			};
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
			for (const minute of edgesOf(book, day, begins))
				look(midnight + (minute - begins) * MINUTE_MS, () => atWall(book, day, minute, begins));
			continue;
		}
		const wanted = new Set<number>();
		for (const offset of new Set([known, begins, ends])) {
			const at = (minute: number): unknown => wanted.add(midnight + (minute - offset) * MINUTE_MS);
			edgesOf(book, day, offset).forEach(at);
			// No zone changes its clock at another time than a quarter of an hour.
			for (let minute = 0; minute <= DAY_MIN; minute += 15) at(minute);
		}
		for (const utcMs of [...wanted].sort((a, b) => a - b)) look(utcMs, () => onAirAt(book, utcMs));
		begins = ends;
	}
	return out;
}
