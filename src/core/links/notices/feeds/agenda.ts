import ICAL from 'ical.js';
import { fault, ok, type Result } from '../../../basics/result';
import { expandRecurrence, type Budget, type Recurrence } from '../../../formats/recurrence';
import { instantOf, wallClockMs } from '../../../formats/systemd/zone';
import { startOfDayMs } from '../../../onAir/slices';
import { fitLine } from '../../../basics/text';
import { zonesOf } from './calendarZone';
import { LONGEST_FEED } from './schema';

/** An event of a calendar, once or again and again. */
export interface Happening {
	readonly title: string;
	readonly place: string;
	readonly wholeDay: boolean;
	/** The clock on the wall where it begins, ms as if it were UTC. */
	readonly wallMs: number;
	readonly zone: string;
	readonly lengthMs: number;
	/** As in RFC 5545; "": once. */
	readonly rrule: string;
	readonly exceptWallMs: readonly number[];
}
/** One time at which it happens. */
export interface Coming {
	readonly title: string;
	readonly place: string;
	readonly wholeDay: boolean;
	readonly fromUtcMs: number;
	readonly untilUtcMs: number;
}

const MOST_EVENTS = 2000;
/** Of all its rules together, each time that it is looked through: some tens of milliseconds on a small board. */
const STEPS_OF_A_FEED = 60_000;
/** Of one rule that must be counted from its beginning. */
const STEPS_TO_COUNT = 20_000;
/** What comes again and lasts so long each time would be looked for as far back. */
const LONGEST_AGAIN_MS = 400 * 86_400_000;
const DAY_MS = 86_400_000;

interface Moment {
	readonly wallMs: number;
	readonly zone: string;
	readonly isDate: boolean;
}

/** A moment as the file writes it, and its zone. */
function momentOf(
	component: ICAL.Component,
	name: string,
	zoneOf: (said: string, wallMs: number) => string
): Moment | null {
	const property = component.getFirstProperty(name);
	const time: unknown = property?.getFirstValue();
	if (!(time instanceof ICAL.Time)) return null;
	const wallMs = Date.UTC(time.year, time.month - 1, time.day, time.hour, time.minute, time.second);
	const said: unknown = property!.getParameter('tzid');
	const isUtc = /Z$/.test(time.toString());
	return {
		wallMs,
		zone: isUtc ? 'UTC' : zoneOf(typeof said === 'string' ? said : '', wallMs),
		isDate: time.isDate
	};
}

const utcOf = ({ zone, wallMs }: Moment): number =>
	instantOf(zone, wallMs) ?? wallMs - (wallClockMs(zone, wallMs) - wallMs);

interface ReadEvent {
	readonly uid: string;
	/** It stands in the place of one occurrence of a series; null: it does not. */
	readonly replacesWallMs: number | null;
	/** null: it is cancelled, or broken. */
	readonly happening: Happening | null;
}

/** One event; null: it never begins. What it takes the place of does not come, even where it is cancelled or broken itself. Throws where the library does. */
function readEvent(component: ICAL.Component, zone: string, zoneOf: Parameters<typeof momentOf>[2]): ReadEvent | null {
	const start = momentOf(component, 'dtstart', zoneOf);
	if (!start || Number.isNaN(start.wallMs)) return null;
	const uid = String(component.getFirstPropertyValue('uid') ?? '');
	const place = { uid, replacesWallMs: momentOf(component, 'recurrence-id', zoneOf)?.wallMs ?? null };
	if (String(component.getFirstPropertyValue('status') ?? '') === 'CANCELLED') return { ...place, happening: null };
	try {
		return { ...place, happening: happeningOf(component, start, zone, zoneOf) };
	} catch {
		return { ...place, happening: null };
	}
}

function happeningOf(
	component: ICAL.Component,
	start: Moment,
	zone: string,
	zoneOf: Parameters<typeof momentOf>[2]
): Happening {
	// Not by the library's own end of an event: it would follow the file's own rules of a time zone, without a bound.
	const end = momentOf(component, 'dtend', zoneOf);
	const lasts: unknown = component.getFirstPropertyValue('duration');
	const saidMs = end
		? end.zone === start.zone
			? end.wallMs - start.wallMs
			: utcOf(end) - utcOf(start)
		: lasts instanceof ICAL.Duration
			? lasts.toSeconds() * 1000
			: 0;
	const lengthMs = Math.max(start.isDate ? DAY_MS : 0, Number.isFinite(saidMs) ? saidMs : 0);
	const textOf = (name: string): string => String(component.getFirstPropertyValue(name) ?? '');
	const rule: unknown = component.getFirstPropertyValue('rrule');
	return {
		title: fitLine(textOf('summary'), 200),
		place: fitLine(textOf('location'), 120),
		wholeDay: start.isDate,
		wallMs: start.wallMs,
		zone: start.isDate ? zone : start.zone,
		lengthMs,
		rrule: rule instanceof ICAL.Recur ? rule.toString() : '',
		exceptWallMs: component
			.getAllProperties('exdate')
			.flatMap((property) => property.getValues() as unknown[])
			.flatMap((time) =>
				time instanceof ICAL.Time
					? [Date.UTC(time.year, time.month - 1, time.day, time.hour, time.minute, time.second)]
					: []
			)
	};
}

/**
 * Events of a calendar; clocks without a zone that is known are the venue's. Faults: `agenda-long`, `agenda-unread`, `agenda-empty`.
 * Source: RFC 5545.
 */
export function readAgenda(text: string, zone: string): Result<Happening[]> {
	if (text.length > LONGEST_FEED)
		return fault(
			'agenda-long',
			`The calendar has more than ${LONGEST_FEED / 1000}\u2009000 characters. Export a shorter span.`
		);
	let components: ICAL.Component[];
	let known: ReturnType<typeof zonesOf>;
	try {
		const calendar = new ICAL.Component(ICAL.parse(text) as never);
		components = calendar.getAllSubcomponents('vevent');
		known = zonesOf(calendar, zone);
	} catch {
		return fault('agenda-unread', 'This is no calendar file. Export it as iCalendar (.ics).');
	}
	const strange = new Set<string>();
	const zoneOf = (said: string, wallMs: number): string => {
		const found = said && Number.isFinite(wallMs) ? known(said, wallMs) : zone;
		if (found === null) strange.add(fitLine(said, 60));
		return found ?? zone;
	};
	const found = components.slice(0, MOST_EVENTS).flatMap((component) => {
		try {
			return readEvent(component, zone, zoneOf) ?? [];
		} catch {
			// One event that is broken does not take the others away.
			return [];
		}
	});
	const events = found.flatMap(({ happening, ...place }) => (happening ? [{ ...place, happening }] : []));
	if (events.length === 0) return fault('agenda-empty', 'The calendar has no event.');
	const movedOf = new Map<string, number[]>();
	for (const { uid, replacesWallMs } of found)
		if (replacesWallMs !== null) movedOf.set(uid, [...(movedOf.get(uid) ?? []), replacesWallMs]);
	const all = events.map(({ uid, replacesWallMs, happening }): Happening => ({
		...happening,
		exceptWallMs: [
			...happening.exceptWallMs,
			...(replacesWallMs !== null || uid === '' ? [] : (movedOf.get(uid) ?? []))
		]
	}));
	const budget = { stepsLeft: STEPS_OF_A_FEED };
	const odd = new Set(all.filter((event) => !canBeFollowed(event, budget)));
	const kept = all.filter((event) => !odd.has(event));
	remarks.set(kept, { leftOut: [...odd].map(({ title }) => title), strangeZones: [...strange] });
	return ok(kept);
}

interface Remarks {
	/** Titles of what comes again by a rule that cannot be followed: they are shown nowhere. */
	readonly leftOut: readonly string[];
	/** Names of zones that nobody knows, whose events are read by the venue's clock. */
	readonly strangeZones: readonly string[];
}
const remarks = new WeakMap<readonly Happening[], Remarks>();
/** What there is to say of a calendar that was read. */
export const remarksOn = (events: readonly Happening[]): Remarks =>
	remarks.get(events) ?? { leftOut: [], strangeZones: [] };

/** Whether what comes again can be found at any instant in a bounded number of steps. */
function canBeFollowed(event: Happening, budget: Budget): boolean {
	if (event.rrule === '') return true;
	if (event.lengthMs > LONGEST_AGAIN_MS) return false;
	// What is counted is counted from its beginning, however late somebody looks.
	const counts = /(?:^|;)COUNT=/i.test(event.rrule);
	const far = counts ? Date.UTC(9999, 0) : event.wallMs;
	const own = { stepsLeft: Math.min(STEPS_TO_COUNT, budget.stepsLeft) };
	const before = own.stepsLeft;
	const found = expandRecurrence(recurrenceOf(event, far, far), own);
	budget.stepsLeft -= before - own.stepsLeft;
	return found.ok;
}

const recurrenceOf = (
	{ zone, wallMs, rrule, exceptWallMs }: Happening,
	windowStartUtcMs: number,
	windowEndUtcMs: number
): Recurrence => ({
	zone,
	dtstartLocal: asLocal(wallMs),
	rrule,
	exdatesLocal: exceptWallMs.map(asLocal),
	windowStartUtcMs,
	windowEndUtcMs
});

const asLocal = (wallMs: number): string => new Date(wallMs).toISOString().replace(/[-:]|\.\d+Z$/g, '');

/** What goes on at an instant or comes within so many days, the earliest first. */
export const comingUp = (events: readonly Happening[], nowUtcMs: number, days: number, most: number): Coming[] =>
	withinDay(events, Math.floor(nowUtcMs / DAY_MS), days)
		.filter(
			({ fromUtcMs, untilUtcMs }) =>
				Math.max(untilUtcMs, fromUtcMs + 1) > nowUtcMs && fromUtcMs < nowUtcMs + days * DAY_MS
		)
		.slice(0, most);

const lately = new WeakMap<readonly Happening[], { day: number; days: number; found: Coming[] }>();

/** All that is or begins within so many days from some instant of a day on; a page looks again and again within one. */
function withinDay(events: readonly Happening[], day: number, days: number): Coming[] {
	const before = lately.get(events);
	if (before?.day === day && before.days === days) return before.found;
	const from = day * DAY_MS;
	const windowEndUtcMs = from + DAY_MS + days * DAY_MS;
	const budget = { stepsLeft: STEPS_OF_A_FEED };
	const found = events
		.flatMap((event): Coming[] => {
			const { title, place, wholeDay, wallMs, zone, lengthMs, rrule } = event;
			const starts = rrule ? expandRecurrence(recurrenceOf(event, from - lengthMs, windowEndUtcMs), budget) : null;
			const begins = starts ? (starts.ok ? starts.value : []) : [utcOf({ zone, wallMs, isDate: wholeDay })];
			return begins.map((fromUtcMs) => ({
				title,
				place,
				wholeDay,
				fromUtcMs,
				untilUtcMs: wholeDay
					? startOfDayMs(zone, wallClockMs(zone, fromUtcMs) / DAY_MS + Math.round(lengthMs / DAY_MS))
					: fromUtcMs + lengthMs
			}));
		})
		.filter(({ fromUtcMs, untilUtcMs }) => Math.max(untilUtcMs, fromUtcMs + 1) > from && fromUtcMs < windowEndUtcMs)
		.sort((a, b) => a.fromUtcMs - b.fromUtcMs);
	lately.set(events, { day, days, found });
	return found;
}
