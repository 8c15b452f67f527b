import { fault, ok, type Result } from '../../basics/result';
import { instantOf, isTimeZone, wallClockMs } from './zone';

/**
 * Calendar expressions of timers (OnCalendar=): weekdays, date, time, zone.
 * Source: systemd.time(7), "Calendar Events".
 */
export interface CalendarRule {
	/** 0 is Monday; empty means every day. */
	readonly weekdays: readonly number[];
	readonly years: Matcher;
	readonly months: Matcher;
	/** Takes the day of the month, and that day counted from the month's end (1 is the last). */
	readonly days: (fromStart: number, fromEnd: number) => boolean;
	readonly hours: readonly number[];
	readonly minutes: readonly number[];
	readonly seconds: readonly number[];
	/** null: the machine's own zone. */
	readonly zone: string | null;
}

type Matcher = (value: number) => boolean;

const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
const SHORTHANDS: Record<string, string> = {
	minutely: '*-*-* *:*:00',
	hourly: '*-*-* *:00:00',
	daily: '*-*-* 00:00:00',
	weekly: 'Mon *-*-* 00:00:00',
	monthly: '*-*-01 00:00:00',
	quarterly: '*-01,04,07,10-01 00:00:00',
	semiannually: '*-01,07-01 00:00:00',
	yearly: '*-01-01 00:00:00',
	annually: '*-01-01 00:00:00'
};
const DAY_MS = 86_400_000;

const shorthand = (word: string): string =>
	Object.hasOwn(SHORTHANDS, word.toLowerCase()) ? SHORTHANDS[word.toLowerCase()]! : word;

/** Fault: `calendar-unreadable`, naming the part. */
export function readCalendar(expression: string): Result<CalendarRule> {
	const words = expression.trim().split(/\s+/);
	const last = words.at(-1) ?? '';
	const zone = words.length > 1 && /^[A-Za-z]/.test(last) && isTimeZone(last) ? words.pop()! : null;
	const rest = words.flatMap((word) => shorthand(word).split(' '));
	const weekdays = /^[A-Za-z]/.test(rest[0] ?? '') ? readWeekdays(rest.shift()!) : [];
	const date = /[-~]/.test(rest[0] ?? '') ? rest.shift()! : '*-*-*';
	const time = rest.shift() ?? '00:00:00';
	const bad = (part: string) =>
		fault(
			'calendar-unreadable',
			`"${part}" in "${expression}" is not a calendar time. Write for example Mon..Fri *-*-* 07:30:00.`
		);
	if (!weekdays) return bad(words[0]!);
	if (rest.length) return bad(rest[0]!);

	const countsFromEnd = date.includes('~');
	const dateParts = date.split(/[-~]/);
	const [year, month, day] = dateParts.length === 2 ? ['*', ...dateParts] : dateParts;
	const [hour, minute, second = '00'] = time.split(':');
	if (dateParts.length > 3 || time.split(':').length > 3 || minute === undefined) return bad(time);
	const hours = expand(hour!, 0, 23);
	const minutes = expand(minute, 0, 59);
	const seconds = expand(second, 0, 59);
	const years = expand(year!, 1970, 2199);
	const months = expand(month!, 1, 12);
	const days = expand(day!, 1, 31);
	if (!hours || !minutes || !seconds) return bad(time);
	if (!years || !months || !days) return bad(date);
	const isIn = (values: number[]): Matcher => {
		const set = new Set(values);
		return (value) => set.has(value);
	};
	const isDay = isIn(days);
	return ok({
		weekdays,
		years: isIn(years),
		months: isIn(months),
		days: (fromStart, fromEnd) => isDay(countsFromEnd ? fromEnd : fromStart),
		hours,
		minutes,
		seconds,
		zone
	});
}

function readWeekdays(text: string): number[] | null {
	const found = new Set<number>();
	for (const item of text.split(',').filter(Boolean)) {
		const ends = item.split(/\.\.|-/).map((name) => WEEKDAYS.indexOf(name.slice(0, 3).toLowerCase()));
		if (ends.length > 2 || ends.includes(-1)) return null;
		for (let day = ends[0]!; ; day = (day + 1) % 7) {
			found.add(day);
			if (day === (ends[1] ?? ends[0])) break;
		}
	}
	return [...found].sort((a, b) => a - b);
}

/** "*", "5", "1..5", "0/15", "1,2,5..7/2" as ascending numbers; null when it is no such list or out of range. */
function expand(text: string, low: number, high: number): number[] | null {
	const found = new Set<number>();
	for (const item of text.split(',')) {
		const m = /^(\*|\d+)(?:\.\.(\d+))?(?:\/(\d+))?$/.exec(item);
		if (!m) return null;
		const from = m[1] === '*' ? low : Number(m[1]);
		const step = m[3] === undefined ? 1 : Number(m[3]);
		const to = m[2] !== undefined ? Number(m[2]) : m[1] === '*' || m[3] !== undefined ? high : from;
		if (from < low || to > high || step < 1) return null;
		for (let value = from; value <= to; value += step) found.add(value);
	}
	return [...found].sort((a, b) => a - b);
}

const HOUR_MS = 3_600_000;
const MINUTE_MS = 60_000;
/** No zone has put its clock back by more at once. Source: tz database, its largest shift but for changes of the date line. */
const LARGEST_SHIFT_MS = 3 * HOUR_MS;

/**
 * The next `count` instants (ms UTC) strictly after `afterUtcMs`, in `zone` unless the rule names its own.
 * A wall clock that a day skips is passed over, one shown twice counts once. Gives fewer when 60 years hold no more.
 * Searches by fields, from the wall clock on: what lies before it on the day is never tried.
 */
export function nextElapses(rule: CalendarRule, zone: string, afterUtcMs: number, count = 1): number[] {
	const where = rule.zone ?? zone;
	const found: number[] = [];
	const wallMs = wallClockMs(where, afterUtcMs);
	const offsetMs = (utcMs: number): number => wallClockMs(where, utcMs) - utcMs;
	// Near a change of the clocks what comes later may be shown earlier.
	const isSteady = offsetMs(afterUtcMs - DAY_MS) === offsetMs(afterUtcMs + DAY_MS);
	const fromMs = isSteady ? wallMs : wallMs - LARGEST_SHIFT_MS;
	let dayMs = Math.floor(fromMs / DAY_MS) * DAY_MS;
	for (let n = 0; n < 60 * 366 && found.length < count; n++, dayMs += DAY_MS)
		if (isDayOf(rule, new Date(dayMs)))
			for (const timeMs of timesFrom(rule, fromMs - dayMs)) {
				const utc = instantOf(where, dayMs + timeMs);
				if (utc !== null && utc > afterUtcMs) found.push(utc);
				if (found.length === count) break;
			}
	return found;
}

function isDayOf(rule: CalendarRule, date: Date): boolean {
	if (!rule.years(date.getUTCFullYear()) || !rule.months(date.getUTCMonth() + 1)) return false;
	if (!rule.days(date.getUTCDate(), monthLength(date) - date.getUTCDate() + 1)) return false;
	return rule.weekdays.length === 0 || rule.weekdays.includes((date.getUTCDay() + 6) % 7);
}

/** Times of the day, in ms, in their order, those that end before `fromMs` left out. */
function* timesFrom({ hours, minutes, seconds }: CalendarRule, fromMs: number): Generator<number> {
	for (const hour of hours) {
		const hourMs = hour * HOUR_MS;
		if (hourMs + HOUR_MS <= fromMs) continue;
		for (const minute of minutes) {
			const minuteMs = hourMs + minute * MINUTE_MS;
			if (minuteMs + MINUTE_MS <= fromMs) continue;
			for (const second of seconds) if (minuteMs + second * 1000 >= fromMs) yield minuteMs + second * 1000;
		}
	}
}

const monthLength = (date: Date): number =>
	new Date(Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + 1, 0)).getUTCDate();
