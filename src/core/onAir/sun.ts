import { getPosition, getTimes } from 'suncalc';
import { dateOf, dayFacts, dayOf } from '../basics/calendar';

/** When the sun rises and sets from this day of a year on, in minutes after midnight UTC of that day; it may be before it, or after the next. */
export interface SunRow {
	/** 1127. */
	readonly monthDay: number;
	readonly riseMin: number;
	readonly setMin: number;
}

/** One year stands for all: from one to the next the sun differs by a minute or two. */
const YEAR = 2026;
const MINUTE_MS = 60_000;
/** To this the times are rounded, so that few of them differ. */
export const SUN_STEP_MIN = 5;

/**
 * Sunrise and sunset of a place for the days of any year, a row only where one of them changes: upper edge of the sun on a level horizon.
 * Where the sun does not set, the day lasts from midnight to midnight by its own noon; where it does not rise, it has no length.
 */
export function sunTable({ latitudeDeg, longitudeDeg }: Place): SunRow[] {
	const rows: SunRow[] = [];
	const first = dayOf(`${YEAR}-01-01`);
	for (let day = first; day < first + 365; day++) {
		// The sun's own noon tells which day is meant, however far the place is from Greenwich.
		const times = getTimes(new Date(`${dateOf(day)}T12:00:00Z`), latitudeDeg, longitudeDeg);
		const noonMin = 720 - 4 * longitudeDeg;
		const minutes = (date: Date | null, without: number): number => {
			if (date === null || Number.isNaN(date.getTime())) return roundToStep(without);
			const raw = (date.getTime() - day * 1440 * MINUTE_MS) / MINUTE_MS;
			return roundToStep(raw - 1440 * Math.round((raw - noonMin) / 1440));
		};
		const half = times.alwaysUp ? 720 : 0;
		const riseMin = minutes(times.sunrise, noonMin - half);
		const setMin = minutes(times.sunset, noonMin + half);
		const last = rows.at(-1);
		if (last?.riseMin !== riseMin || last.setMin !== setMin)
			rows.push({ monthDay: dayFacts(day).monthDay, riseMin, setMin });
	}
	return rows;
}

/** Where on the earth. */
export interface Place {
	readonly latitudeDeg: number;
	readonly longitudeDeg: number;
}

/** What the air's bending of light, the height of the horizon and the eye's own height leave open, degrees of the sun's height. Typical. */
const HEIGHT_DEG = 0.25;

/** How sure sunrise and sunset are: where the sun skims the horizon a quarter of a degree is long. */
export interface SunSure {
	/** At the worst day that has both, min. */
	readonly worstMin: number;
	/** Days of a year on which it is more than a quarter of an hour. */
	readonly days: number;
}

const known = new Map<string, SunSure>();
/** By how fast the sun's height changes when it rises. */
export function sunSure({ latitudeDeg, longitudeDeg }: Place): SunSure {
	const key = `${latitudeDeg} ${longitudeDeg}`;
	let sure = known.get(key);
	if (!sure) {
		let [worstMin, days] = [0, 0];
		const first = dayOf(`${YEAR}-01-01`);
		for (let day = first; day < first + 365; day++) {
			const { sunrise } = getTimes(new Date(`${dateOf(day)}T12:00:00Z`), latitudeDeg, longitudeDeg);
			if (!sunrise || Number.isNaN(sunrise.getTime())) continue;
			const heightAt = (afterMin: number): number =>
				getPosition(new Date(sunrise.getTime() + afterMin * MINUTE_MS), latitudeDeg, longitudeDeg).altitude;
			const degPerMin = Math.abs(heightAt(5) - heightAt(-5)) / 10;
			const openMin = HEIGHT_DEG / Math.max(1e-4, degPerMin);
			worstMin = Math.max(worstMin, openMin);
			if (openMin > 15) days++;
		}
		if (known.size > 20) known.clear();
		known.set(key, (sure = { worstMin, days }));
	}
	return sure;
}

const roundToStep = (minutes: number): number => Math.round(minutes / SUN_STEP_MIN) * SUN_STEP_MIN;

/** The row that holds on a day of the year. */
export function sunOn(table: readonly SunRow[], monthDay: number): SunRow | undefined {
	let low = 0;
	let high = table.length;
	while (low < high) {
		const middle = (low + high) >> 1;
		if (table[middle]!.monthDay <= monthDay) low = middle + 1;
		else high = middle;
	}
	return table[low - 1];
}

/** A line for each month: its number, then day/rise/set from each day on that differs from the one before, the first of the month at any rate. */
export function writeSunTable(table: readonly SunRow[]): string[] {
	if (table.length === 0) return [];
	return Array.from({ length: 12 }, (_, n) => n + 1).map((month) => {
		const first = sunOn(table, month * 100 + 1)!;
		const rows = table.filter(({ monthDay }) => Math.floor(monthDay / 100) === month && monthDay % 100 > 1);
		return [
			month,
			...[{ ...first, monthDay: 1 }, ...rows].map(
				({ monthDay, riseMin, setMin }) => `${monthDay % 100}/${riseMin}/${setMin}`
			)
		].join(' ');
	});
}

/** The same back; what is no such line is left out. A month without a line is known to be missing: its times are no numbers. */
export function readSunTable(text: string): SunRow[] {
	const months = new Map<number, SunRow[]>();
	for (const line of text.split('\n')) {
		const [month, ...rows] = line.trim().split(/\s+/);
		// Of two lines of one month the first is found.
		if (!/^(?:[1-9]|1[0-2])$/.test(month!) || months.has(Number(month))) continue;
		months.set(
			Number(month),
			rows.flatMap((row) => {
				const [day, riseMin, setMin] = row.split('/').map(Number);
				return [day, riseMin, setMin].every(Number.isFinite)
					? [{ monthDay: Number(month) * 100 + day!, riseMin: riseMin!, setMin: setMin! }]
					: [];
			})
		);
	}
	if (months.size === 0) return [];
	return Array.from({ length: 12 }, (_, n) => n + 1).flatMap(
		(month) => months.get(month) ?? [{ monthDay: month * 100, riseMin: NaN, setMin: NaN }]
	);
}
