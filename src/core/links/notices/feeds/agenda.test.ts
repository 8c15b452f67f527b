import { describe, expect, it } from 'vitest';
import { comingUp, leftOut, readAgenda } from './agenda';

const calendar = (...events: string[]): string =>
	['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//y//EN', ...events, 'END:VCALENDAR', ''].join('\r\n');
const event = (n: number, ...lines: string[]): string =>
	['BEGIN:VEVENT', `UID:${n}@x.example`, 'DTSTAMP:20260101T000000Z', `SUMMARY:Event ${n}`, ...lines, 'END:VEVENT'].join(
		'\r\n'
	);
const NOW = Date.UTC(2026, 10, 28, 12);
function read(text: string) {
	const found = readAgenda(text, 'Europe/Oslo');
	if (!found.ok) throw new Error(found.faults[0]!.code);
	return found.value;
}

describe('a calendar that would stop a page for good', () => {
	it.each([
		['an hour of the day that never comes', 'FREQ=HOURLY;INTERVAL=24;BYHOUR=10', 'DTSTART:20260101T060000'],
		['a day that never comes', 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', 'DTSTART:20200101T060000'],
		['each day since 1900', 'FREQ=DAILY', 'DTSTART:19000101T060000'],
		['each hour since the year one', 'FREQ=HOURLY', 'DTSTART:00010101T000000'],
		['a fifth Monday of February', 'FREQ=YEARLY;BYMONTH=2;BYDAY=6MO', 'DTSTART:20200101T060000']
	])('%s: is looked through all the same', (_, rule, start) => {
		const events = read(
			calendar(event(1, start, 'DURATION:PT1H', `RRULE:${rule}`), event(2, 'DTSTART:20261129T100000'))
		);
		expect(leftOut(events)).toEqual([]);
		expect(comingUp(events, NOW, 60, 500).map(({ title }) => title)).toContain('Event 2');
	});
	it('has what takes too many steps set aside by its title, and shows the rest', () => {
		const events = read(
			calendar(
				event(1, 'DTSTART:19000101T000000', 'RRULE:FREQ=HOURLY;COUNT=999999999'),
				event(2, 'DTSTART:19000101T000000', 'RRULE:FREQ=HOURLY;INTERVAL=24;BYHOUR=10;COUNT=5'),
				event(3, 'DTSTART:20200101T000000', 'DTEND:99991231T000000', 'RRULE:FREQ=DAILY'),
				event(4, 'DTSTART:20261129T100000', 'RRULE:FREQ=WEEKLY;COUNT=3')
			)
		);
		expect(leftOut(events)).toEqual(['Event 1', 'Event 2', 'Event 3']);
		expect(comingUp(events, NOW, 60, 9)).toHaveLength(3);
	});
	it('follows no rule of seconds in a time zone of its own', () => {
		const zone = [
			'BEGIN:VTIMEZONE',
			'TZID:Odd',
			'BEGIN:STANDARD',
			'DTSTART:19000101T000000',
			'RRULE:FREQ=SECONDLY',
			'TZOFFSETFROM:+0000',
			'TZOFFSETTO:+0100',
			'END:STANDARD',
			'END:VTIMEZONE'
		].join('\r\n');
		const events = read(calendar(zone, event(1, 'DTSTART;TZID=Odd:20261129T100000', 'DTEND;TZID=Odd:20261129T120000')));
		expect(comingUp(events, NOW, 60, 9)).toMatchObject([
			{ fromUtcMs: Date.UTC(2026, 10, 29, 9), untilUtcMs: Date.UTC(2026, 10, 29, 11) }
		]);
	});
	it('of two thousand hourly events gives up on no look before its steps are used, and then ends', () => {
		const many = Array.from({ length: 2000 }, (_, n) => event(n, 'DTSTART:20200101T000000', 'RRULE:FREQ=HOURLY'));
		expect(comingUp(read(calendar(...many).slice(0, 290_000)), NOW, 60, 5)).toHaveLength(5);
	});
});
