import ICAL from 'ical.js';
import { daysInMonth } from '../basics/calendar';
import { fault, ok, type Result } from '../basics/result';
import { fitLine } from '../plan/text';

/** A day that is kept, such as a public holiday. */
export interface Holiday {
	readonly date: string;
	readonly title: string;
}
/** Longer files are no lists of holidays. */
const LONGEST = 2_000_000;
const MOST_EVENTS = 5000;
const MOST_DAYS = 400;
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
	for (const component of events.slice(0, MOST_EVENTS)) {
		try {
			const event = new ICAL.Event(component);
			if (!event.startDate?.isDate || !isThere(component, event.startDate)) continue;
			const title = fitLine(String(event.summary ?? ''), 80);
			const days = Math.max(1, Math.min(31, event.duration.toSeconds() / 86_400));
			const each = (start: ICAL.Time): void => {
				for (let n = 0; n < days; n++) {
					const day = start.clone();
					day.adjust(n, 0, 0, 0);
					put(day.toString(), title);
				}
			};
			if (!comesEachYear(component)) {
				each(event.startDate);
				continue;
			}
			const iterator = event.iterator();
			for (let n = 0; n < YEARS * 12; n++) {
				const next = iterator.next();
				if (!next || next.toString() > last) break;
				each(next);
			}
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

/**
 * Whether an event comes again each year on a day that there is. Other rules are not followed: a calendar of holidays has none, and one
 * that never comes, such as the thirtieth of February, would be looked for without end.
 */
function comesEachYear(component: ICAL.Component): boolean {
	const rule: unknown = component.getFirstPropertyValue('rrule');
	if (!(rule instanceof ICAL.Recur) || rule.freq !== 'YEARLY') return false;
	const parts = rule.parts as Readonly<Record<string, unknown[] | undefined>>;
	const plain = ['BYMONTH', 'BYMONTHDAY', 'BYDAY'];
	if (Object.keys(parts).some((part) => !plain.includes(part))) return false;
	const numbers = (part: string): number[] => (parts[part] ?? []).map(Number);
	const months = numbers('BYMONTH');
	// Of each month some weekday comes up to four times for certain.
	const weekdays = (parts.BYDAY ?? []).every((day) => /^(?:-?[1-4])?(?:MO|TU|WE|TH|FR|SA|SU)$/.test(String(day)));
	return (
		weekdays &&
		!(parts.BYDAY && parts.BYMONTHDAY) &&
		months.every((month) => month >= 1 && month <= 12) &&
		numbers('BYMONTHDAY').every(
			(day) => day >= 1 && (months.length ? months.every((month) => day <= daysInMonth(2027, month)) : day <= 28)
		)
	);
}
