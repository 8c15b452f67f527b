import { canonicalTimeZone } from '../../standards/timeZones';

/**
 * Wall clock and instant in a named time zone, by the runtime's own tz database.
 * Instants are milliseconds since 1970 UTC; a wall clock is the same number read as if it were UTC.
 */
const formatters = new Map<string, Intl.DateTimeFormat>();

function formatterFor(zone: string): Intl.DateTimeFormat {
	let formatter = formatters.get(zone);
	if (!formatter) {
		formatter = new Intl.DateTimeFormat('en-GB', {
			timeZone: zone,
			hourCycle: 'h23',
			year: 'numeric',
			month: 'numeric',
			day: 'numeric',
			hour: 'numeric',
			minute: 'numeric',
			second: 'numeric'
		});
		formatters.set(zone, formatter);
	}
	return formatter;
}

/** A zone that both an endpoint and this runtime know, in the one spelling by which an endpoint finds it. */
export function isTimeZone(zone: string): boolean {
	if (canonicalTimeZone(zone) !== zone) return false;
	try {
		formatterFor(zone);
		return true;
	} catch {
		return false;
	}
}

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;
/** From then on no zone is changed twice within a week, nor but at a full minute. Source: tz database, its files gone through. */
const STEADY_SINCE_MS = Date.UTC(2012, 0, 1);
/** By zone, ms ahead of UTC: on whole days of UTC, null where one is changed; on such a day by the minute. */
const offsets = new Map<string, { readonly days: Map<number, number | null>; readonly minutes: Map<number, number> }>();
const MOST_OFFSETS = 50_000;

/** The wall clock in `zone` at an instant, as ms of the same reading in UTC. Asking the runtime costs more than all else that is reckoned with a time. */
export function wallClockMs(zone: string, utcMs: number): number {
	if (utcMs < STEADY_SINCE_MS) return askedWallClockMs(zone, utcMs);
	let known = offsets.get(zone);
	if (!known) offsets.set(zone, (known = { days: new Map(), minutes: new Map() }));
	const offset =
		offsetOf(known.days, Math.floor(utcMs / DAY_MS), (day) => {
			const [begins, ends] = [day, day + 1].map((of) => askedWallClockMs(zone, of * DAY_MS) - of * DAY_MS);
			return begins === ends ? begins! : null;
		}) ??
		offsetOf(
			known.minutes,
			Math.floor(utcMs / MINUTE_MS),
			(minute) => askedWallClockMs(zone, minute * MINUTE_MS) - minute * MINUTE_MS
		);
	return utcMs + offset;
}

function offsetOf<V extends number | null>(known: Map<number, V>, at: number, ask: (at: number) => V): V {
	let offset = known.get(at);
	if (offset === undefined) {
		if (known.size > MOST_OFFSETS) known.clear();
		known.set(at, (offset = ask(at)));
	}
	return offset;
}

function askedWallClockMs(zone: string, utcMs: number): number {
	const part: Record<string, number> = {};
	for (const { type, value } of formatterFor(zone).formatToParts(utcMs)) part[type] = Number(value);
	return (
		Date.UTC(part.year!, part.month! - 1, part.day, part.hour, part.minute, part.second) +
		(((utcMs % 1000) + 1000) % 1000)
	);
}

/**
 * The instant at which a wall clock in `zone` shows `wallMs`: the first one where it shows it twice,
 * null where it never does (the hour that summer time skips).
 */
export function instantOf(zone: string, wallMs: number): number | null {
	const day = 86_400_000;
	const offsets = [wallClockMs(zone, wallMs - day) - (wallMs - day), wallClockMs(zone, wallMs + day) - (wallMs + day)];
	const candidates = offsets.map((offset) => wallMs - offset).filter((utc) => wallClockMs(zone, utc) === wallMs);
	return candidates.length ? Math.min(...candidates) : null;
}
