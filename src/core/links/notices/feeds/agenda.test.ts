import { describe, expect, it } from 'vitest';
import { isTimeZone } from '../../../formats/systemd/zone';
import { comingUp, readAgenda, remarksOn } from './agenda';

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
		expect(remarksOn(events).leftOut).toEqual([]);
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
		expect(remarksOn(events).leftOut).toEqual(['Event 1', 'Event 2', 'Event 3']);
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

it('shows no event that was cancelled, nor one time of it that was', () => {
	const events = read(
		calendar(
			event(1, 'DTSTART:20261129T100000Z', 'STATUS:CANCELLED'),
			event(2, 'DTSTART:20261129T120000Z', 'RRULE:FREQ=DAILY;COUNT=3'),
			event(2, 'RECURRENCE-ID:20261130T120000Z', 'DTSTART:20261130T120000Z', 'STATUS:CANCELLED'),
			event(3, 'DTSTART:20261129T140000Z', 'STATUS:TENTATIVE')
		)
	);
	expect(comingUp(events, NOW, 9, 9).map(({ title, fromUtcMs }) => [title, new Date(fromUtcMs).getUTCDate()])).toEqual([
		['Event 2', 29],
		['Event 3', 29],
		['Event 2', 1]
	]);
});

describe('a time zone by the file\u2019s own name', () => {
	const HOUR_MS = 3_600_000;
	const offset = (ms: number): string =>
		`${ms < 0 ? '-' : '+'}${new Date(Math.abs(ms)).toISOString().slice(11, 16).replace(':', '')}`;
	const local = (ms: number): string => new Date(ms).toISOString().slice(0, 19).replace(/[-:]/g, '');
	/** What the runtime says of a zone, by another question than ours: its offset in words. */
	const asked = new Map<string, Intl.DateTimeFormat>();
	const aheadMs = (zone: string, utcMs: number): number => {
		const format = asked.get(zone) ?? new Intl.DateTimeFormat('en-GB', { timeZone: zone, timeZoneName: 'longOffset' });
		asked.set(zone, format);
		const words = format.format(utcMs);
		const [, sign = '+', hours = '0', minutes = '0'] = /GMT(?:([+-])(\d\d):(\d\d))?/.exec(words) ?? [];
		return (sign === '-' ? -1 : 1) * (Number(hours) * HOUR_MS + Number(minutes) * 60_000);
	};
	const part = (kind: string, wallMs: number, from: number, to: number, ...more: string[]): string[] => [
		`BEGIN:${kind}`,
		`DTSTART:${local(wallMs)}`,
		...more,
		`TZOFFSETFROM:${offset(from)}`,
		`TZOFFSETTO:${offset(to)}`,
		`END:${kind}`
	];
	const zoned = (...parts: string[][]): string =>
		['BEGIN:VTIMEZONE', 'TZID:Our own', ...parts.flat(), 'END:VTIMEZONE'].join('\r\n');
	const STEP_MS = 5 * 24 * HOUR_MS;
	/** Each change of its clocks in some years, found by looking; no two are nearer. */
	const asFile = (zone: string): string => {
		const begin = Date.UTC(2026, 0);
		const parts = [part('STANDARD', Date.UTC(1970, 0), aheadMs(zone, begin), aheadMs(zone, begin))];
		for (let day = begin; day < Date.UTC(2029, 0); day += STEP_MS) {
			if (aheadMs(zone, day) === aheadMs(zone, day + STEP_MS)) continue;
			let at = day;
			while (aheadMs(zone, at) === aheadMs(zone, at + HOUR_MS / 2)) at += HOUR_MS / 2;
			const from = aheadMs(zone, at);
			parts.push(part('STANDARD', at + HOUR_MS / 2 + from, from, aheadMs(zone, at + HOUR_MS / 2)));
		}
		return zoned(...parts);
	};

	it('is found for every zone that there is, by how its clocks go', () => {
		for (const zone of Intl.supportedValuesOf('timeZone').filter(isTimeZone)) {
			const times = Array.from({ length: 12 }, (_, n) => Date.UTC(2026, n, 12, 9, 30));
			const events = read(
				calendar(asFile(zone), ...times.map((wall, n) => event(n, `DTSTART;TZID=Our own:${local(wall)}`)))
			);
			expect(remarksOn(events).strangeZones, zone).toEqual([]);
			expect(
				comingUp(events, Date.UTC(2026, 0), 365, 12).map(({ fromUtcMs }) => fromUtcMs),
				zone
			).toEqual(times.map((wall) => wall - aheadMs(zone, wall - aheadMs(zone, wall))));
		}
	});
	it('is found by its yearly rules, as office programs write them', () => {
		const text = calendar(
			zoned(
				part('STANDARD', Date.UTC(1601, 0, 1, 2), -4 * HOUR_MS, -5 * HOUR_MS, 'RRULE:FREQ=YEARLY;BYDAY=1SU;BYMONTH=11'),
				part('DAYLIGHT', Date.UTC(1601, 0, 1, 2), -5 * HOUR_MS, -4 * HOUR_MS, 'RRULE:FREQ=YEARLY;BYDAY=2SU;BYMONTH=3')
			),
			event(1, 'DTSTART;TZID=Our own:20261005T090000', 'RRULE:FREQ=MONTHLY;COUNT=3')
		);
		expect(comingUp(read(text), Date.UTC(2026, 9, 1), 90, 9).map(({ fromUtcMs }) => fromUtcMs)).toEqual([
			Date.UTC(2026, 9, 5, 13),
			Date.UTC(2026, 10, 5, 14),
			Date.UTC(2026, 11, 5, 14)
		]);
	});
	it.each([
		['the end of its name', '/who.example/1/Asia/Tokyo', ''],
		['where the file says that it lies', 'Their own', 'X-LIC-LOCATION:Asia/Tokyo']
	])('is found by %s', (_, name, more) => {
		const zone = ['BEGIN:VTIMEZONE', `TZID:${name}`, ...(more ? [more] : []), 'END:VTIMEZONE'].join('\r\n');
		const events = read(calendar(zone, event(1, `DTSTART;TZID=${name}:20261129T090000`)));
		expect(comingUp(events, NOW, 9, 9)[0]?.fromUtcMs).toBe(Date.UTC(2026, 10, 29, 0));
	});
	it('that nobody knows is named, and the venue\u2019s clock taken', () => {
		const events = read(calendar(event(1, 'DTSTART;TZID=Nowhere Standard Time:20261129T090000')));
		expect(remarksOn(events).strangeZones).toEqual(['Nowhere Standard Time']);
		expect(comingUp(events, NOW, 9, 9)[0]?.fromUtcMs).toBe(Date.UTC(2026, 10, 29, 8));
	});
	it('may be another at the end of an event', () => {
		const events = read(
			calendar(event(1, 'DTSTART;TZID=Europe/Oslo:20261129T090000', 'DTEND;TZID=Europe/London:20261129T090000'))
		);
		expect(comingUp(events, NOW, 9, 9)[0]).toMatchObject({
			fromUtcMs: Date.UTC(2026, 10, 29, 8),
			untilUtcMs: Date.UTC(2026, 10, 29, 9)
		});
	});
});
