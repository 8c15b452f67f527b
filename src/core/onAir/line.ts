import type { DayFacts } from '../basics/calendar';
import type { Season } from '../basics/dates';

/** A time of a day as an endpoint reckons it: minutes after midnight, or after sunrise or sunset. */
export interface LineMoment {
	readonly by: 'clock' | 'rise' | 'set';
	readonly min: number;
}
/** Days within a year, such as 401 to 930; the first may be the greater. */
export interface Span {
	readonly from: number;
	readonly until: number;
}

/** A rule as an endpoint follows it: every condition must hold. A rule by opening hours becomes one line for each line of those. */
export interface RuleLine {
	readonly rule: string;
	readonly title: string;
	readonly show: string;
	/** 1 is Monday; null: every day. */
	readonly days: readonly number[] | null;
	readonly nth: number;
	readonly weekParity: 0 | 1 | null;
	readonly seasons: readonly Span[];
	/** Such as 20260401. */
	readonly validFrom: number;
	readonly validUntil: number;
	/** On these alone; null: on any. */
	readonly only: readonly number[] | null;
	readonly never: readonly number[];
	readonly from: LineMoment;
	readonly until: LineMoment;
	readonly everyMin: number;
	readonly forMin: number;
	/** So much softer than otherwise, dB. */
	readonly quieterDb: number;
}

/** Of a rule without first or last day. */
export const ALWAYS = { from: 0, until: 99_999_999 };

/** A season's days as numbers. */
export const spanOf = ({ from, until }: Season): Span => ({
	from: Number(from.replace('-', '')),
	until: Number(until.replace('-', ''))
});
/** Whether a day of the year is within. */
export const isWithin = ({ from, until }: Span, monthDay: number): boolean =>
	from <= until ? monthDay >= from && monthDay <= until : monthDay >= from || monthDay <= until;

/** Whether a line’s conditions hold on a day. */
export function holdsOn(line: RuleLine, day: DayFacts): boolean {
	const { days, nth, weekParity, only } = line;
	return (
		(days === null || days.includes(day.weekday)) &&
		(nth === 0 || (nth < 0 ? day.isLast : day.nth === nth)) &&
		(weekParity === null || weekParity === day.weekParity) &&
		day.ymd >= line.validFrom &&
		day.ymd <= line.validUntil &&
		(only === null || only.includes(day.ymd)) &&
		!line.never.includes(day.ymd) &&
		line.seasons.every((span) => isWithin(span, day.monthDay))
	);
}
