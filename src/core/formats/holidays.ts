import ICAL from 'ical.js';
import { fault, ok, type Result } from '../basics/result';
import { fitLine } from '../basics/text';
import { expandRecurrence } from './recurrence';

/** A day that is kept, such as a public holiday. */
export interface Holiday {
	readonly date: string;
	readonly title: string;
}
/** Longer files are no lists of holidays. */
const LONGEST = 2_000_000;
const MOST_EVENTS = 5000;
const MOST_DAYS = 400;
const MOST_DAYS_LONG = 31;
const DAY_MS = 86_400_000;
/** Of all rules of a file together. */
const STEPS = 400_000;
/** A rule that comes again each year is followed for so many. */
const YEARS = 6;

/**
 * Days that a calendar file names, in order, each once: events of whole days, those that come again for six years from `fromYear` on;
 * an event with a time of day is passed over. Faults: `holidays-long`, `holidays-unread`, `holidays-none`. Source: RFC 5545.
 */
export function readHolidays(text: string, fromYear: number): Result<Holiday[]> {
	if (text.length > LONGEST)
		return fault('holidays-long', 'The file has more than 2\u2009MB. Choose a calendar that holds only holidays.');
	let events: ICAL.Component[];
	try {
		const calendar = new ICAL.Component(ICAL.parse(text) as never);
		events = calendar.getAllSubcomponents('vevent');
	} catch {
		return fault(
			'holidays-unread',
			'This is no calendar file. Export the holidays as iCalendar (.ics) and choose that.'
		);
	}
	const found = new Map<string, string>();
	const last = `${fromYear + YEARS}-12-31`;
	const put = (date: string, title: string): void => {
		if (date >= `${fromYear}-01-01` && date <= last && found.size < MOST_DAYS && !found.has(date))
			found.set(date, title);
	};
	const budget = { stepsLeft: STEPS };
	for (const component of events.slice(0, MOST_EVENTS)) {
		try {
			const start: unknown = component.getFirstPropertyValue('dtstart');
			if (!(start instanceof ICAL.Time) || !start.isDate || !isThere(component, start)) continue;
			const title = fitLine(String(component.getFirstPropertyValue('summary') ?? ''), 80);
			const days = daysOf(component, start);
			const each = (startMs: number): void => {
				for (let n = 0; n < days; n++) put(new Date(startMs + n * DAY_MS).toISOString().slice(0, 10), title);
			};
			const startMs = Date.UTC(start.year, start.month - 1, start.day);
			const rule: unknown = component.getFirstPropertyValue('rrule');
			if (!(rule instanceof ICAL.Recur)) {
				each(startMs);
				continue;
			}
			const found = expandRecurrence(
				{
					zone: 'UTC',
					dtstartLocal: `${new Date(startMs).toISOString().slice(0, 10).replaceAll('-', '')}T000000`,
					rrule: rule.toString(),
					exdatesLocal: [],
					windowStartUtcMs: Date.UTC(fromYear, 0, 1) - MOST_DAYS_LONG * DAY_MS,
					windowEndUtcMs: Date.UTC(fromYear + YEARS + 1, 0, 1)
				},
				budget
			);
			if (found.ok) for (const at of found.value) each(at);
		} catch {
			// One event that is broken does not take the others away.
			continue;
		}
	}
	const days = [...found].map(([date, title]) => ({ date, title })).sort((a, b) => a.date.localeCompare(b.date));
	return days.length
		? ok(days)
		: fault(
				'holidays-none',
				`The calendar names no whole day from ${fromYear} to ${fromYear + YEARS}. Events with a time of day are passed over.`
			);
}

/** A day that the calendar does not have is taken for one of the next month. */
const isThere = (component: ICAL.Component, start: ICAL.Time): boolean =>
	(component.getFirstProperty('dtstart')?.toJSON() as unknown[] | undefined)?.[3] === start.toString();

/** How many days it lasts, one at least. */
function daysOf(component: ICAL.Component, start: ICAL.Time): number {
	const end: unknown = component.getFirstPropertyValue('dtend');
	const lasts: unknown = component.getFirstPropertyValue('duration');
	const days =
		end instanceof ICAL.Time
			? (Date.UTC(end.year, end.month - 1, end.day) - Date.UTC(start.year, start.month - 1, start.day)) / DAY_MS
			: lasts instanceof ICAL.Duration
				? lasts.toSeconds() / 86_400
				: 1;
	return Math.max(1, Math.min(MOST_DAYS_LONG, Math.floor(days) || 1));
}
