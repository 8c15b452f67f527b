import { minuteOfTime } from '../../basics/calendar';
import { nextElapses, readCalendar } from '../../formats/systemd/calendar';
import { wallClockMs } from '../../formats/systemd/zone';
import { WEEKDAYS, type Weekday } from '../../basics/weekdays';
import type { QuietHours } from '../../onAir/when';

const after = (day: Weekday): Weekday => WEEKDAYS[(WEEKDAYS.indexOf(day) + 1) % 7]!;

/** True when it ends on the morning after the evening it began. */
const crossesMidnight = (hours: QuietHours): boolean => hours.until < hours.from;

const calendar = (days: readonly Weekday[], time: string): string =>
	`${days.length ? `${days.join(',')} ` : ''}*-*-* ${time}:00`;

/** When quiet begins and ends, as OnCalendar expressions in the endpoint's own zone. */
export const quietCalendars = (hours: QuietHours): { begins: string; ends: string } => ({
	begins: calendar(hours.weekdays, hours.from),
	ends: calendar(crossesMidnight(hours) ? hours.weekdays.map(after) : hours.weekdays, hours.until)
});

/** The same as data for may-sound.sh: weekday digits (1 is Monday), from, until as HHMM. */
export const quietLine = (hours: QuietHours): string =>
	`${(hours.weekdays.length ? hours.weekdays : WEEKDAYS).map((day) => WEEKDAYS.indexOf(day) + 1).join('')} ${hours.from.replace(':', '')} ${hours.until.replace(':', '')}`;

/**
 * Whether quiet-hours data forbid sound at a wall clock.
 * @param weekday 1 (Monday) to 7; @param hhmm such as 2205.
 */
export function isQuiet(data: string, weekday: number, hhmm: number): boolean {
	const yesterday = ((weekday + 5) % 7) + 1;
	return data.split('\n').some((line) => {
		const m = /^([1-7]+) (\d{4}) (\d{4})$/.exec(line);
		if (!m) return false;
		const [days, from, until] = [m[1]!, Number(m[2]), Number(m[3])];
		if (from < until) return days.includes(String(weekday)) && hhmm >= from && hhmm < until;
		return (days.includes(String(weekday)) && hhmm >= from) || (days.includes(String(yesterday)) && hhmm < until);
	});
}

const MINUTES = 24 * 60;

/** Hours of quiet a day, on average over a week; hours that overlap count once. */
export function quietHoursPerDay(quiet: readonly QuietHours[]): number {
	if (quiet.length === 0) return 0;
	// From Monday's first minute on; what crosses the end of the week goes on at its beginning.
	const edges = quiet
		.flatMap((hours) =>
			(hours.weekdays.length ? hours.weekdays : WEEKDAYS).map((day) => {
				const from = WEEKDAYS.indexOf(day) * MINUTES + minuteOfTime(hours.from);
				const length = (minuteOfTime(hours.until) - minuteOfTime(hours.from) + MINUTES) % MINUTES || MINUTES;
				return [from, from + length] as const;
			})
		)
		.flatMap(([from, until]) =>
			until > 7 * MINUTES
				? ([
						[from, 7 * MINUTES],
						[0, until - 7 * MINUTES]
					] as const)
				: ([[from, until]] as const)
		)
		.sort(([a], [b]) => a - b);
	let reached = 0;
	let minutes = 0;
	for (const [from, until] of edges) {
		minutes += Math.max(0, until - Math.max(from, reached));
		reached = Math.max(reached, until);
	}
	return minutes / 60 / 7;
}

/** "Mon, Tue 22:00 to 07:00". */
export const quietInWords = (hours: QuietHours): string =>
	`${hours.weekdays.length ? hours.weekdays.join(', ') : 'every day'} ${hours.from} to ${hours.until}`;

/** Whether an instant is within quiet hours, and the next instant at which that changes; null when it never does. */
export function quietNow(
	quiet: readonly QuietHours[],
	zone: string,
	utcMs: number
): { isQuiet: boolean; changesUtcMs: number | null } {
	const data = quiet.map(quietLine).join('\n');
	const at = (ms: number): boolean => {
		const wall = new Date(wallClockMs(zone, ms));
		return isQuiet(data, ((wall.getUTCDay() + 6) % 7) + 1, wall.getUTCHours() * 100 + wall.getUTCMinutes());
	};
	const now = at(utcMs);
	const edges = quiet.flatMap((hours) =>
		Object.values(quietCalendars(hours)).flatMap((expression) => {
			const rule = readCalendar(expression);
			return rule.ok ? nextElapses(rule.value, zone, utcMs, 2) : [];
		})
	);
	return { isQuiet: now, changesUtcMs: edges.sort((a, b) => a - b).find((edge) => at(edge) !== now) ?? null };
}
