import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import * as library from 'rrule';
import { expandRecurrence, type Recurrence } from '.';

const rule = (change: Partial<Recurrence>): Recurrence => ({
	zone: 'Europe/Berlin',
	dtstartLocal: '20260101T060000',
	rrule: 'FREQ=DAILY',
	exdatesLocal: [],
	windowStartUtcMs: Date.UTC(2024, 0, 1),
	windowEndUtcMs: Date.UTC(2030, 0, 1),
	...change
});
const of = (change: Partial<Recurrence>): string[] => {
	const found = expandRecurrence(rule(change));
	if (!found.ok) throw new Error(found.faults[0]!.code);
	return found.value.map((ms) => new Date(ms).toISOString().slice(0, 16));
};

/** Expected values by python3-dateutil 2.8.2 with zoneinfo. */
describe('a rule that comes again', () => {
	it('keeps its wall clock over a change of the clock, and takes the offset before a gap', () =>
		expect(of({ dtstartLocal: '20260328T023000', rrule: 'FREQ=DAILY;COUNT=3' })).toEqual([
			'2026-03-28T01:30',
			'2026-03-29T01:30',
			'2026-03-30T00:30'
		]));
	it('takes the first of an hour that comes twice', () =>
		expect(of({ dtstartLocal: '20261025T023000', rrule: 'FREQ=DAILY;COUNT=1' })).toEqual(['2026-10-25T00:30']));
	it('passes over years without its day', () =>
		expect(
			of({ zone: 'UTC', dtstartLocal: '20240229T120000', rrule: 'FREQ=YEARLY', windowEndUtcMs: Date.UTC(2033, 0) })
		).toEqual(['2024-02-29T12:00', '2028-02-29T12:00', '2032-02-29T12:00']));
	it('counts what is then taken out', () =>
		expect(of({ zone: 'UTC', rrule: 'FREQ=DAILY;COUNT=3', exdatesLocal: ['20260102T060000'] })).toEqual([
			'2026-01-01T06:00',
			'2026-01-03T06:00'
		]));
	it('ends with UNTIL, which is an instant and inclusive', () => {
		expect(of({ rrule: 'FREQ=DAILY;UNTIL=20260105T050000Z' })).toHaveLength(5);
		expect(of({ rrule: 'FREQ=DAILY;UNTIL=20260105T045959Z' })).toHaveLength(4);
	});
	it('begins with its first moment, even where the rule does not name it', () =>
		expect(of({ zone: 'UTC', rrule: 'FREQ=WEEKLY;BYDAY=SA;COUNT=2' })).toEqual([
			'2026-01-01T06:00',
			'2026-01-03T06:00'
		]));
	it('knows weeks of ISO 8601', () =>
		expect(of({ zone: 'UTC', rrule: 'FREQ=YEARLY;BYWEEKNO=1;BYDAY=TH', windowEndUtcMs: Date.UTC(2029, 0) })).toEqual([
			'2026-01-01T06:00',
			'2027-01-07T06:00',
			'2028-01-06T06:00'
		]));
	it.each([
		[{ dtstartLocal: '20260230T060000' }, 'recurrence-start'],
		[{ dtstartLocal: '2026-01-01' }, 'recurrence-start'],
		[{ rrule: 'every day' }, 'recurrence-rule'],
		[{ rrule: 'FREQ=SECONDLY' }, 'recurrence-rule'],
		[{ rrule: 'FREQ=DAILY;UNTIL=20269901T000000Z' }, 'recurrence-rule'],
		[{ rrule: 'FREQ=HOURLY', windowEndUtcMs: Date.UTC(2126, 0) }, 'recurrence-endless']
	])('%j is refused', (change, code) => {
		const found = expandRecurrence(rule(change));
		expect(found.ok ? '' : found.faults[0]!.code).toBe(code);
	});
});

const { RRule } = 'RRule' in library ? library : (library as { default: typeof library }).default;

/** Another reckoner, which knows neither windows nor bounds: rrule 2.8. */
function byLibrary(text: string, startMs: number, fromMs: number, toMs: number): number[] {
	const rule = new RRule({ ...RRule.parseString(text), dtstart: new Date(startMs) });
	const found = rule.between(new Date(fromMs), new Date(toMs - 1), true).map((date) => date.getTime());
	return [...new Set([...(startMs >= fromMs && startMs < toMs ? [startMs] : []), ...found])].sort((a, b) => a - b);
}

describe('any rule', () => {
	const some = (most: number, least = 1) =>
		fc.uniqueArray(fc.integer({ min: least, max: most }), { minLength: 1, maxLength: 3 });
	const either = (most: number) =>
		fc.uniqueArray(
			fc.integer({ min: -most, max: most }).filter((n) => n !== 0),
			{ minLength: 1, maxLength: 3 }
		);
	const days = fc.uniqueArray(fc.constantFrom('MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'), {
		minLength: 1,
		maxLength: 3
	});
	const nths = fc.uniqueArray(fc.constantFrom('1MO', '-1FR', '2TU', '-2SU', '5WE', '3SA'), {
		minLength: 1,
		maxLength: 2
	});
	const parts = fc.record(
		{
			FREQ: fc.constantFrom('YEARLY', 'MONTHLY', 'WEEKLY', 'DAILY', 'HOURLY'),
			INTERVAL: fc.integer({ min: 1, max: 5 }).map(String),
			BYMONTH: some(12).map(String),
			BYMONTHDAY: either(31).map(String),
			BYDAY: fc.oneof(days, nths).map(String),
			BYHOUR: some(23, 0).map(String),
			BYMINUTE: some(59, 0).map(String),
			WKST: fc.constantFrom('MO', 'SU', 'SA')
		},
		{ requiredKeys: ['FREQ'] }
	);
	it('names the same instants as another reckoner', () => {
		let [found, none] = [0, 0];
		fc.assert(
			fc.property(
				parts,
				fc.integer({ min: 0, max: 2000 }),
				fc.integer({ min: 0, max: 86_399 }),
				(rule, day, second) => {
					if (rule.FREQ === 'HOURLY' && rule.BYHOUR) return;
					if (rule.BYDAY && /\d/.test(rule.BYDAY) && !/YEARLY|MONTHLY/.test(rule.FREQ)) return;
					const startMs = Date.UTC(2019, 0, 1) + day * 86_400_000 + second * 1000;
					const text = Object.entries(rule)
						.map(([name, value]) => `${name}=${value}`)
						.join(';');
					const [fromMs, toMs] = [
						startMs + 40 * 86_400_000,
						startMs + 40 * 86_400_000 + (rule.FREQ === 'HOURLY' ? 30 : 900) * 86_400_000
					];
					const got = expandRecurrence({
						zone: 'UTC',
						dtstartLocal: new Date(startMs).toISOString().replace(/[-:]|\.\d+Z$/g, ''),
						rrule: text,
						exdatesLocal: [],
						windowStartUtcMs: fromMs,
						windowEndUtcMs: toMs
					});
					// Where a rule never comes, that one looks for it until the year 9999.
					if (got.ok && got.value.length === 0) return void none++;
					expect(got.ok ? got.value : got.faults, text).toEqual(byLibrary(text, startMs, fromMs, toMs));
					found += got.ok ? got.value.length : 0;
				}
			),
			{ numRuns: 200, seed: 7 }
		);
		expect(found).toBeGreaterThan(2000);
		expect(none).toBeLessThan(120);
	});
});

/** What stopped the workbench and the endpoint's page for good. */
describe('a rule that never rests', () => {
	const window = { windowStartUtcMs: Date.UTC(2026, 11, 1), windowEndUtcMs: Date.UTC(2026, 11, 31) };
	it.each([
		['FREQ=HOURLY;INTERVAL=24;BYHOUR=10', '20260101T060000'],
		['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', '20200101T060000'],
		['FREQ=DAILY', '19000101T060000'],
		['FREQ=HOURLY', '00010101T000000'],
		['FREQ=MONTHLY;BYDAY=6MO', '19700101T000000'],
		['FREQ=DAILY;BYSETPOS=366', '19700101T000000'],
		['FREQ=YEARLY;INTERVAL=999999999', '20260101T000000'],
		['FREQ=DAILY;COUNT=40000', '19000101T060000']
	])('%s from %s takes few steps within a month', (rrule, dtstartLocal) => {
		const budget = { stepsLeft: 90_000 };
		expect(expandRecurrence(rule({ ...window, rrule, dtstartLocal }), budget).ok).toBe(true);
		if (!rrule.includes('COUNT')) expect(budget.stepsLeft).toBeGreaterThan(87_000);
	});
	it.each([
		'FREQ=HOURLY;COUNT=999999999',
		'FREQ=HOURLY;INTERVAL=24;BYHOUR=10;COUNT=3',
		'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30;COUNT=1;'
	])('%s, which must be counted from 1900 on, ends with its steps', (rrule) => {
		const budget = { stepsLeft: 5000 };
		const found = expandRecurrence(rule({ ...window, rrule, dtstartLocal: '19000101T000000' }), budget);
		expect(found.ok || found.faults[0]!.code === 'recurrence-endless').toBe(true);
		expect(budget.stepsLeft).toBeGreaterThan(-400);
	});
	it('ends on the last day where UNTIL is a day, and at a clock on the wall where it is one', () => {
		expect(of({ rrule: 'FREQ=DAILY;UNTIL=20260105' })).toHaveLength(5);
		expect(of({ rrule: 'FREQ=DAILY;UNTIL=20260105T055959' })).toHaveLength(4);
	});
});
