import { fault, ok, type Result } from '../../basics/result';

/** The greatest first: a rule goes from one period of its kind to the next. Those of minutes and seconds are no matter of a calendar. */
export const FREQUENCIES = ['YEARLY', 'MONTHLY', 'WEEKLY', 'DAILY', 'HOURLY'] as const;
type Frequency = (typeof FREQUENCIES)[number];
/** Monday first. Source: RFC 5545, 3.3.10, weekday. */
const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

/** A rule as it is written, in parts; an empty list: it says nothing of that. */
export interface Rule {
	readonly frequency: Frequency;
	readonly interval: number;
	readonly count: number | null;
	/** The last moment: an instant, a clock on the wall, or a whole day of it. */
	readonly until: { readonly ms: number; readonly by: 'instant' | 'wall' | 'day' } | null;
	readonly months: readonly number[];
	readonly weekNumbers: readonly number[];
	readonly yearDays: readonly number[];
	readonly monthDays: readonly number[];
	/** `nth`: of the month or year, from its end where it is negative; 0: each of them. */
	readonly weekdays: readonly { readonly day: number; readonly nth: number }[];
	readonly hours: readonly number[];
	readonly minutes: readonly number[];
	readonly seconds: readonly number[];
	readonly positions: readonly number[];
	/** 0: Monday. */
	readonly weekStart: number;
}

const LONGEST = 2000;
const MOST_VALUES = 400;
const MOMENT = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})(Z)?)?$/;

/** "20260320T023000" as ms of the same reading in UTC; null: there is no such moment. */
export function wallOf(text: string): number | null {
	const m = MOMENT.exec(text);
	if (!m) return null;
	const [year, month, day, hour, minute, second] = m.slice(1, 7).map((part) => Number(part ?? 0)) as [
		number,
		number,
		number,
		number,
		number,
		number
	];
	const at = new Date(Date.UTC(2000, month - 1, day, hour, minute, second));
	at.setUTCFullYear(year, month - 1, day);
	const same = at.getUTCMonth() === month - 1 && at.getUTCDate() === day && at.getUTCHours() === hour;
	return same && at.getUTCMinutes() === minute && at.getUTCSeconds() === second ? at.getTime() : null;
}

/** The parts of a rule. Fault: `recurrence-rule`. Source: RFC 5545, 3.3.10. */
export function readRule(text: string): Result<Rule> {
	const bad = (why: string): Result<never> => fault('recurrence-rule', why);
	if (text.length > LONGEST) return bad('The rule has more than 2000 characters.');
	const parts = new Map<string, string>();
	for (const part of text.split(';')) {
		const [, name, value] = /^([A-Za-z-]+)=(.+)$/.exec(part.trim()) ?? [];
		if (name === undefined) {
			if (part.trim() === '') continue;
			return bad(`${text.slice(0, 80)} is no recurrence rule: it begins with FREQ=.`);
		}
		parts.set(name.toUpperCase(), value!.toUpperCase());
	}
	const frequency = FREQUENCIES.find((known) => known === parts.get('FREQ'));
	if (!frequency)
		return bad(
			parts.has('FREQ')
				? 'FREQ is YEARLY, MONTHLY, WEEKLY, DAILY or HOURLY.'
				: `${text.slice(0, 80)} is no recurrence rule: it begins with FREQ=.`
		);
	const wrong: string[] = [];
	const numbers = (name: string, least: number, most: number): number[] => {
		const given = parts.get(name);
		if (given === undefined) return [];
		const values = given
			.split(',')
			.slice(0, MOST_VALUES)
			.map((one) => (/^[+-]?\d{1,5}$/.test(one) ? Number(one) : NaN));
		if (
			values.some(
				(value) => !(Math.abs(value) >= Math.max(0, least) && Math.abs(value) <= most) || (value < 0 && least >= 0)
			)
		)
			wrong.push(name);
		return [...new Set(values)].sort((a, b) => a - b);
	};
	/** From 1, or from the end. */
	const signed = (name: string, most: number): number[] => {
		const values = numbers(name, -1, most);
		if (values.includes(0)) wrong.push(name);
		return values;
	};
	const until = parts.get('UNTIL');
	const untilMs = until === undefined ? null : wallOf(until.replace(/Z$/, ''));
	if (until !== undefined && untilMs === null) return bad('UNTIL is written as 20260401T000000Z.');
	const weekdays = (parts.get('BYDAY')?.split(',') ?? []).slice(0, MOST_VALUES).map((one) => {
		const [, nth = '', name = ''] = /^([+-]?\d{1,3})?(MO|TU|WE|TH|FR|SA|SU)$/.exec(one) ?? [];
		if (name === '' || Math.abs(Number(nth)) > 53) wrong.push('BYDAY');
		return { day: WEEKDAYS.indexOf(name), nth: Number(nth) };
	});
	const whole = (name: string, usual: number | null): number | null => {
		const given = parts.get(name);
		if (given === undefined) return usual;
		const value = /^\d{1,9}$/.test(given) ? Number(given) : 0;
		if (value < 1) wrong.push(name);
		return value;
	};
	const weekStart = WEEKDAYS.indexOf(parts.get('WKST') ?? 'MO');
	if (weekStart < 0) wrong.push('WKST');
	const rule: Rule = {
		frequency,
		interval: whole('INTERVAL', 1)!,
		count: whole('COUNT', null),
		until:
			untilMs === null
				? null
				: { ms: untilMs, by: until!.endsWith('Z') ? 'instant' : until!.includes('T') ? 'wall' : 'day' },
		months: numbers('BYMONTH', 1, 12),
		weekNumbers: signed('BYWEEKNO', 53),
		yearDays: signed('BYYEARDAY', 366),
		monthDays: signed('BYMONTHDAY', 31),
		weekdays,
		hours: numbers('BYHOUR', 0, 23),
		minutes: numbers('BYMINUTE', 0, 59),
		seconds: numbers('BYSECOND', 0, 59),
		positions: signed('BYSETPOS', 366),
		weekStart
	};
	return wrong.length ? bad(`${wrong[0]} says what no calendar has: ${parts.get(wrong[0]!)!.slice(0, 60)}`) : ok(rule);
}
