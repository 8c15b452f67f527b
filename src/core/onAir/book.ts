import { minuteOfTime } from '../basics/calendar';
import { WEEKDAYS } from '../basics/weekdays';
import { ruleLines } from './ruleLines';
import type { Venue } from '../plan/venue';
import { ALWAYS, type RuleLine } from './line';
import type { Rulebook } from './onAir';
import { sunTable } from './sun';
import type { ProgrammeRule, QuietHours, Timetable } from './when';

const isBySun = ({ from, until }: ProgrammeRule): boolean =>
	[from, until].some(({ at }) => at === 'sunrise' || at === 'sunset');

/** The rules of an endpoint at its venue. */
export const bookOf = (
	{ rules, otherwise, shuffle }: Pick<Timetable, 'rules' | 'otherwise' | 'shuffle'>,
	venue: Venue
): Rulebook => ({
	lines: ruleLines(rules, venue),
	otherwise,
	zone: venue.timeZone,
	sun: venue.place && rules.some(isBySun) ? sunTable(venue.place) : [],
	...(shuffle ? { shuffled: true } : {})
});

/** Quiet hours go before every rule. */
const quietAsLine = (hours: QuietHours, n: number): RuleLine => ({
	rule: `quiet-${n}`,
	title: 'Quiet hours',
	show: 'quiet',
	days: hours.weekdays.length ? hours.weekdays.map((day) => WEEKDAYS.indexOf(day) + 1) : null,
	nth: 0,
	weekParity: null,
	seasons: [],
	validFrom: ALWAYS.from,
	validUntil: ALWAYS.until,
	only: null,
	never: [],
	from: { by: 'clock', min: minuteOfTime(hours.from) },
	until: { by: 'clock', min: minuteOfTime(hours.until) },
	everyMin: 0,
	forMin: 0,
	quieterDb: 0
});

/** All that decides what an endpoint does at an hour: quiet hours, then its rules, then what is on otherwise; "off" while nothing starts by itself. */
export function programmeBook(settings: Omit<Timetable, 'lists'>, venue: Venue): Rulebook {
	if (!settings.used || !settings.startAtBoot) return { lines: [], otherwise: 'off', zone: venue.timeZone, sun: [] };
	const { lines, ...book } = bookOf(settings, venue);
	return { ...book, lines: [...settings.quiet.map(quietAsLine), ...lines] };
}
