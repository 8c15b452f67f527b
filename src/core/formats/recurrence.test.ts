import { describe, expect, it } from 'vitest';
import { expandRecurrence, type Recurrence } from './recurrence';

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
