import * as library from 'rrule';
import type { Options } from 'rrule';
import { fault, ok, type Result } from '../basics/result';
import { wallClockMs } from './systemd/zone';

// Bundled it has names of its own; as Node loads it they stand in its default.
const { RRule } = 'RRule' in library ? library : (library as { default: typeof library }).default;

/** A rule that comes again, by the wall clock of a zone. */
export interface Recurrence {
	readonly zone: string;
	/** "20260320T023000". */
	readonly dtstartLocal: string;
	readonly rrule: string;
	/** Instances at these wall clocks are taken out, after COUNT has counted them. */
	readonly exdatesLocal: readonly string[];
	readonly windowStartUtcMs: number;
	readonly windowEndUtcMs: number;
}

/** Further than this no rule is followed. */
const MOST_INSTANCES = 50_000;
const WALL = /^(\d{4})(\d{2})(\d{2})T(\d{2})(\d{2})(\d{2})$/;
const DAY_MS = 86_400_000;

const wallOf = (text: string): number | null => {
	const [, ...parts] = WALL.exec(text) ?? [];
	if (parts.length === 0) return null;
	const [year, month, day, hour, minute, second] = parts.map(Number) as [
		number,
		number,
		number,
		number,
		number,
		number
	];
	const wall = Date.UTC(year, month - 1, day, hour, minute, second);
	return new Date(wall).toISOString().replace(/[-:]|\.\d+Z$/g, '') === text ? wall : null;
};

/** The instant at which a clock shows that; the first of two; where it never does, by the offset before the gap. Source: RFC 5545, 3.3.5. */
function instantBefore(zone: string, wallMs: number): number {
	const before = wallClockMs(zone, wallMs - DAY_MS) - (wallMs - DAY_MS);
	const after = wallClockMs(zone, wallMs + DAY_MS) - (wallMs + DAY_MS);
	const found = [before, after].map((offset) => wallMs - offset).filter((utcMs) => wallClockMs(zone, utcMs) === wallMs);
	return found.length ? Math.min(...found) : wallMs - before;
}

/**
 * Instances of a rule within a window, in order. Its first moment is always one. Faults: `recurrence-start`, `recurrence-rule`,
 * `recurrence-endless` (too many instances). Source: RFC 5545, 3.3.10.
 */
export function expandRecurrence(rule: Recurrence): Result<number[]> {
	const start = wallOf(rule.dtstartLocal);
	if (start === null)
		return fault('recurrence-start', 'The first moment is written as 20260320T023000, by the clock on the wall.');
	const taken = new Set(rule.exdatesLocal.map(wallOf));
	// UNTIL is an instant, and the rule runs by the wall clock: it is held against the instants themselves.
	const until = /(?:^|;)UNTIL=(\d{8}T\d{6}Z)(?=;|$)/i.exec(rule.rrule)?.[1];
	const untilMs = until === undefined ? Infinity : wallOf(until.slice(0, -1));
	if (untilMs === null) return fault('recurrence-rule', 'UNTIL is written as 20260401T000000Z.');
	let parsed: Partial<Options>;
	try {
		parsed = RRule.parseString(rule.rrule.replace(/(?:^|;)UNTIL=[^;]*/i, ''));
	} catch {
		return fault('recurrence-rule', `${rule.rrule.slice(0, 80)} is no recurrence rule: it begins with FREQ=.`);
	}
	if (parsed.freq === undefined || parsed.freq > RRule.HOURLY)
		return fault('recurrence-rule', 'FREQ is YEARLY, MONTHLY, WEEKLY, DAILY or HOURLY.');
	const out: number[] = [];
	let counted = 0;
	let last = -Infinity;
	/** False: nothing after it is wanted. */
	const take = (wallMs: number): boolean => {
		if (wallMs <= last) return true;
		last = wallMs;
		const utcMs = instantBefore(rule.zone, wallMs);
		if (++counted > (parsed.count ?? Infinity) || utcMs > untilMs || utcMs >= rule.windowEndUtcMs) return false;
		if (utcMs >= rule.windowStartUtcMs && !taken.has(wallMs)) out.push(utcMs);
		return counted < MOST_INSTANCES;
	};
	if (!take(start)) return ok(out);
	// The library reckons with dates of UTC, which stand here for the clock on the wall.
	new RRule({ ...parsed, count: null, dtstart: new Date(start) }).all((date) => take(date.getTime()));
	if (counted < MOST_INSTANCES) return ok(out);
	return fault('recurrence-endless', 'The rule has too many instances before the window ends. Begin it later.');
}
