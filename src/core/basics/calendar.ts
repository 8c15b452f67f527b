/** The Gregorian calendar by whole days, counted from 1 January 1970. Nothing here knows a time zone. */

const DAY_MS = 86_400_000;

/** How many days a month has; January is 1. */
export const daysInMonth = (year: number, month: number): number => new Date(Date.UTC(year, month, 0)).getUTCDate();

/** What a rule may ask of a day. */
export interface DayFacts {
	readonly day: number;
	/** 1 is Monday. */
	readonly weekday: number;
	/** 20261127. */
	readonly ymd: number;
	/** 1127. */
	readonly monthDay: number;
	/** Which of its weekday it is in its month, from 1. */
	readonly nth: number;
	/** None of its weekday comes after it in its month. */
	readonly isLast: boolean;
	/** Weeks, from Monday on, by turns 0 and 1. */
	readonly weekParity: 0 | 1;
}

const known = new Map<number, DayFacts>();

/** What is to be said of the day with that number. */
export function dayFacts(day: number): DayFacts {
	let facts = known.get(day);
	if (!facts) {
		const date = new Date(day * DAY_MS);
		const [year, month, ofMonth] = [date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate()];
		facts = {
			day,
			weekday: ((day + 3) % 7) + 1,
			ymd: (year * 100 + month) * 100 + ofMonth,
			monthDay: month * 100 + ofMonth,
			nth: Math.ceil(ofMonth / 7),
			isLast: ofMonth + 7 > daysInMonth(year, month),
			weekParity: (Math.floor((day + 3) / 7) % 2) as 0 | 1
		};
		// A few years at most are looked at; who leafs through centuries begins anew.
		if (known.size > 5000) known.clear();
		known.set(day, facts);
	}
	return facts;
}

/** The number of a day that is written "2026-11-27". */
export const dayOf = (date: string): number => Math.round(Date.parse(`${date}T00:00:00Z`) / DAY_MS);
/** "2026-11-27". */
export const dateOf = (day: number): string => new Date(day * DAY_MS).toISOString().slice(0, 10);

/** Minutes after midnight of a time that is written "16:45". */
export const minuteOfTime = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
