import { daysInMonth } from '../../basics/calendar';
import { fault, ok, type Result } from '../../basics/result';
import { wallClockMs } from '../systemd/zone';
import { readRule, wallOf, type Rule } from './rule';

/** A rule that comes again, by the wall clock of a zone. */
export interface Recurrence {
	readonly zone: string;
	/** "20260320T023000". */
	readonly dtstartLocal: string;
	readonly rrule: string;
	/** Instances at these wall clocks are taken out, after COUNT has counted them. */
	readonly exdatesLocal: readonly string[];
	readonly windowStartUtcMs: number;
	readonly windowEndUtcMs: number;
}

/** How many steps may still be taken: periods and days that are looked at, whether or not anything is found in them. */
export interface Budget {
	stepsLeft: number;
}
/** Of a single rule: a daily one is counted from 1900 on, and an hourly one through eleven years. */
export const STEPS_OF_A_RULE = 100_000;

const HOUR_MS = 3_600_000;
const DAY_MS = 86_400_000;
/** No zone is further from UTC. */
const FURTHEST_MS = DAY_MS;

/** The instant at which a clock shows that; the first of two; where it never does, by the offset before the gap. Source: RFC 5545, 3.3.5. */
function instantBefore(zone: string, wallMs: number): number {
	const before = wallClockMs(zone, wallMs - DAY_MS) - (wallMs - DAY_MS);
	const after = wallClockMs(zone, wallMs + DAY_MS) - (wallMs + DAY_MS);
	const found = [before, after].map((offset) => wallMs - offset).filter((utcMs) => wallClockMs(zone, utcMs) === wallMs);
	return found.length ? Math.min(...found) : wallMs - before;
}

/**
 * Instances of a rule within a window, in order. Its first moment is always one. Without COUNT the search begins at the window; it counts
 * its steps and not what it finds, so a rule that never comes costs no more than one that does. Faults: `recurrence-start`,
 * `recurrence-rule`, `recurrence-endless` (more steps than are left). Source: RFC 5545, 3.3.10.
 */
export function expandRecurrence(rule: Recurrence, budget: Budget = { stepsLeft: STEPS_OF_A_RULE }): Result<number[]> {
	const startMs = wallOf(rule.dtstartLocal);
	if (startMs === null || !rule.dtstartLocal.includes('T'))
		return fault('recurrence-start', 'The first moment is written as 20260320T023000, by the clock on the wall.');
	const read = readRule(rule.rrule);
	if (!read.ok) return read;
	const parsed = read.value;
	const taken = new Set(rule.exdatesLocal.map(wallOf));
	const out: number[] = [];
	let counted = 0;
	const endsBefore = lastOf(parsed, rule.zone);
	/** False: nothing after it is wanted. */
	const take = (wallMs: number): boolean => {
		if (++counted > (parsed.count ?? Infinity) || endsBefore(wallMs)) return false;
		if (wallMs >= rule.windowEndUtcMs + FURTHEST_MS) return false;
		// Far before the window nobody asks what the clock of the zone was.
		if (wallMs < rule.windowStartUtcMs - FURTHEST_MS || taken.has(wallMs)) return true;
		const utcMs = instantBefore(rule.zone, wallMs);
		if (utcMs >= rule.windowEndUtcMs) return false;
		if (utcMs >= rule.windowStartUtcMs) out.push(utcMs);
		return true;
	};
	if (!take(startMs)) return ok(out);
	const periods = periodsOf(parsed, startMs);
	const first = parsed.count === null ? periods.indexAt(rule.windowStartUtcMs - FURTHEST_MS) : 0;
	for (let index = Math.max(0, first); ; index++) {
		const beginMs = periods.beginMs(index);
		// Further than dates go it is no number, and ends here too.
		if (!(beginMs < rule.windowEndUtcMs + FURTHEST_MS && beginMs <= LAST_MS)) return ok(out);
		if ((budget.stepsLeft -= 1) < 0) break;
		let goesOn = true;
		for (const wallMs of periods.moments(index, budget))
			if (wallMs > startMs && !take(wallMs)) {
				goesOn = false;
				break;
			}
		if (!goesOn) return ok(out);
		if (budget.stepsLeft < 0) break;
	}
	return fault('recurrence-endless', 'The rule takes too many steps before the window ends. Begin it later.');
}

/** No calendar goes further. */
const LAST_MS = Date.UTC(9999, 11, 31);

/** Whether a moment lies behind UNTIL. */
function lastOf({ until }: Rule, zone: string): (wallMs: number) => boolean {
	if (!until) return () => false;
	if (until.by === 'day') return (wallMs) => wallMs >= until.ms + DAY_MS;
	if (until.by === 'wall') return (wallMs) => wallMs > until.ms;
	return (wallMs) =>
		Math.abs(wallMs - until.ms) > FURTHEST_MS ? wallMs > until.ms : instantBefore(zone, wallMs) > until.ms;
}

/** Periods of a rule's kind, by their number from the one in which it begins. */
interface Periods {
	beginMs(index: number): number;
	/** The last that begins at or before that moment, or one before it. */
	indexAt(wallMs: number): number;
	/** What the rule names within one, in order. */
	moments(index: number, budget: Budget): readonly number[];
}

const dayOf = (wallMs: number): number => Math.floor(wallMs / DAY_MS) * DAY_MS;
const yearOf = (wallMs: number): number => new Date(wallMs).getUTCFullYear();
const monthOf = (wallMs: number): number => new Date(wallMs).getUTCMonth() + 1;
/** Monday is 0; 1 January 1970 was a Thursday. */
const weekdayOf = (wallMs: number): number => (((Math.floor(wallMs / DAY_MS) + 3) % 7) + 7) % 7;
const firstOf = (year: number, month = 1): number => {
	const at = new Date(Date.UTC(2000, month - 1, 1));
	at.setUTCFullYear(year, month - 1, 1);
	return at.getTime();
};

function periodsOf(rule: Rule, startMs: number): Periods {
	const { interval, frequency } = rule;
	const start = new Date(startMs);
	const day = dayFilter(rule, start);
	const times = timesOf(rule, start);
	const days = (beginMs: number, count: number, budget: Budget): number[] => {
		const found: number[] = [];
		budget.stepsLeft -= count;
		for (let n = 0; n < count; n++) if (day(beginMs + n * DAY_MS)) found.push(beginMs + n * DAY_MS);
		return found;
	};
	/** Each day with each time, and of these those that BYSETPOS names. */
	const within = (found: readonly number[]): readonly number[] =>
		positioned(
			rule,
			found.flatMap((dayMs) => times.map((timeMs) => dayMs + timeMs))
		);
	const steady = (beginMs: number, lengthMs: number, moments: Periods['moments']): Periods => ({
		beginMs: (index) => beginMs + index * interval * lengthMs,
		indexAt: (wallMs) => Math.floor((wallMs - beginMs) / (interval * lengthMs)),
		moments
	});
	switch (frequency) {
		case 'YEARLY': {
			const begin = (index: number): number => firstOf(start.getUTCFullYear() + index * interval);
			return {
				beginMs: begin,
				indexAt: (wallMs) => Math.floor((yearOf(wallMs) - start.getUTCFullYear()) / interval),
				moments: (index, budget) => {
					const beginMs = begin(index);
					return within(days(beginMs, (firstOf(yearOf(beginMs) + 1) - beginMs) / DAY_MS, budget));
				}
			};
		}
		case 'MONTHLY': {
			const zero = start.getUTCFullYear() * 12 + start.getUTCMonth();
			const begin = (index: number): number => {
				const month = zero + index * interval;
				return firstOf(Math.floor(month / 12), (month % 12) + 1);
			};
			return {
				beginMs: begin,
				indexAt: (wallMs) => Math.floor((yearOf(wallMs) * 12 + monthOf(wallMs) - 1 - zero) / interval),
				moments: (index, budget) => {
					const beginMs = begin(index);
					return within(days(beginMs, daysInMonth(yearOf(beginMs), monthOf(beginMs)), budget));
				}
			};
		}
		case 'WEEKLY': {
			const monday = dayOf(startMs) - ((weekdayOf(startMs) - rule.weekStart + 7) % 7) * DAY_MS;
			const week = steady(monday, 7 * DAY_MS, (index, budget) => within(days(week.beginMs(index), 7, budget)));
			return week;
		}
		case 'DAILY': {
			const daily = steady(dayOf(startMs), DAY_MS, (index, budget) => within(days(daily.beginMs(index), 1, budget)));
			return daily;
		}
		case 'HOURLY': {
			const begin = Math.floor(startMs / HOUR_MS) * HOUR_MS;
			const hourly = steady(begin, HOUR_MS, (index) => {
				const hourMs = hourly.beginMs(index);
				const hour = Math.floor((hourMs - dayOf(hourMs)) / HOUR_MS);
				if ((rule.hours.length && !rule.hours.includes(hour)) || !day(dayOf(hourMs))) return [];
				return positioned(
					rule,
					times.map((timeMs) => hourMs + timeMs)
				);
			});
			return hourly;
		}
	}
}

/** Times of day, or of the hour where a rule goes by hours, ms. What is not said is as at the beginning. */
function timesOf({ frequency, hours, minutes, seconds }: Rule, start: Date): number[] {
	const orStart = (values: readonly number[], usual: number): readonly number[] => (values.length ? values : [usual]);
	const byHour = frequency === 'HOURLY' ? [0] : orStart(hours, start.getUTCHours());
	return byHour.flatMap((hour) =>
		orStart(minutes, start.getUTCMinutes()).flatMap((minute) =>
			orStart(seconds, start.getUTCSeconds()).map((second) => ((hour * 60 + minute) * 60 + second) * 1000)
		)
	);
}

function positioned({ positions }: Rule, moments: readonly number[]): readonly number[] {
	if (positions.length === 0) return moments;
	const at = new Set(positions.map((position) => (position > 0 ? position - 1 : moments.length + position)));
	return moments.filter((_, n) => at.has(n));
}

/** Whether a rule names a day. Where it says nothing of days they are as at the beginning. */
function dayFilter(rule: Rule, start: Date): (dayMs: number) => boolean {
	const { frequency, weekNumbers, yearDays, months, monthDays, weekdays } = rule;
	const saysDays = weekNumbers.length + yearDays.length + monthDays.length + weekdays.length > 0;
	const byDay = frequency === 'DAILY' || frequency === 'HOURLY' || saysDays;
	const ownMonths = !byDay && frequency === 'YEARLY' && months.length === 0 ? [start.getUTCMonth() + 1] : months;
	const ownMonthDays = !byDay && frequency !== 'WEEKLY' ? [start.getUTCDate()] : monthDays;
	const ownWeekdays = !byDay && frequency === 'WEEKLY' ? [{ day: weekdayOf(start.getTime()), nth: 0 }] : weekdays;
	const inMonth = frequency === 'MONTHLY' || months.length > 0;
	const counts = frequency === 'YEARLY' || frequency === 'MONTHLY';
	return (dayMs) => {
		const date = new Date(dayMs);
		const [year, month, day] = [date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate()];
		if (ownMonths.length && !ownMonths.includes(month)) return false;
		if (ownMonthDays.length) {
			const length = daysInMonth(year, month);
			if (!ownMonthDays.some((one) => (one > 0 ? one : length + 1 + one) === day)) return false;
		}
		if (yearDays.length) {
			const length = (firstOf(year + 1) - firstOf(year)) / DAY_MS;
			const at = (dayMs - firstOf(year)) / DAY_MS + 1;
			if (!yearDays.some((one) => (one > 0 ? one : length + 1 + one) === at)) return false;
		}
		if (weekNumbers.length && !isInWeeks(rule, dayMs, year)) return false;
		if (ownWeekdays.length === 0) return true;
		const weekday = weekdayOf(dayMs);
		return ownWeekdays.some((one) => {
			if (one.day !== weekday) return false;
			if (one.nth === 0 || !counts) return true;
			const from = inMonth ? firstOf(year, month) : firstOf(year);
			const until = inMonth ? firstOf(month === 12 ? year + 1 : year, (month % 12) + 1) : firstOf(year + 1);
			const before = Math.floor((dayMs - from) / (7 * DAY_MS)) + 1;
			const behind = Math.floor((until - DAY_MS - dayMs) / (7 * DAY_MS)) + 1;
			return one.nth > 0 ? before === one.nth : behind === -one.nth;
		});
	};
}

/** Weeks of a year, the first being that which has four of its days. Source: RFC 5545, 3.3.10, BYWEEKNO; ISO 8601. */
function isInWeeks({ weekNumbers, weekStart }: Rule, dayMs: number, year: number): boolean {
	const beginOf = (of: number): number => {
		const fourth = firstOf(of) + 3 * DAY_MS;
		return fourth - ((weekdayOf(fourth) - weekStart + 7) % 7) * DAY_MS;
	};
	// Days around New Year are of a week of the year beside it: those count as its first or last, as libraries have it.
	const weeks = Math.round((beginOf(year + 1) - beginOf(year)) / (7 * DAY_MS));
	const week = Math.floor((dayMs - beginOf(year)) / (7 * DAY_MS)) + 1;
	if (week >= 1 && week <= weeks) return weekNumbers.some((one) => (one > 0 ? one : weeks + 1 + one) === week);
	if (week > weeks) return weekNumbers.includes(1);
	const before = Math.round((beginOf(year) - beginOf(year - 1)) / (7 * DAY_MS));
	return weekNumbers.some((one) => one === before || one === -1);
}
