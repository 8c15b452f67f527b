import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nextElapses, readCalendar, type CalendarRule } from './calendar';
import { escapeUnitPath, escapeUnitText, fillUnitTemplate, unescapeUnitText } from './escape';
import { execLine, readExec, readTimeSpanMs, readUnit } from './unit';
import { instantOf, wallClockMs } from './zone';

const printable = fc.string({ unit: 'grapheme', maxLength: 30 });

describe('unit names', () => {
	it('come back from their escaped form', () => {
		fc.assert(
			fc.property(
				printable.filter((text) => !/\u0000/.test(text)),
				(text) => void expect(unescapeUnitText(escapeUnitText(text))).toEqual({ ok: true, value: text })
			)
		);
	});
	it.each([
		['/srv/my music', 'srv-my\\x20music'],
		['/', '-'],
		['//srv//./a-b/', 'srv-a\\x2db']
	])('name the path %s as systemd-escape does', (path, unit) =>
		expect(escapeUnitPath(path)).toEqual({ ok: true, value: unit })
	);
	it('refuses a path that climbs, and a template without a bare @', () => {
		expect(escapeUnitPath('/srv/../etc')).toMatchObject({ ok: false, faults: [{ code: 'path-climbs' }] });
		expect(fillUnitTemplate('play.service', 'x')).toMatchObject({ ok: false, faults: [{ code: 'no-template' }] });
	});
});

describe('command lines', () => {
	it('give every word back exactly', () => {
		const word = printable.filter((text) => !/[\u0000-\u001f\u007f]/.test(text));
		fc.assert(
			fc.property(
				fc.array(word, { minLength: 1, maxLength: 4 }),
				(words) => void expect(readExec(execLine(['/bin/x', ...words]))?.words).toEqual(['/bin/x', ...words])
			)
		);
	});
	it('are refused where systemd refuses them', () => {
		expect(readExec('/bin/x "a\\q"')).toBeNull();
		expect(readExec('-/bin/x "open')).toBeNull();
		expect(readExec('-+/bin/x a')).toEqual({ flags: '-+', words: ['/bin/x', 'a'] });
	});
});

it('reads units with comments and joined lines', () => {
	expect(readUnit('[Unit]\n# no\nAfter=a \\\n b\n[Service]\nExecStart=/bin/x\nstray')).toEqual([
		{ section: 'Unit', key: 'After', value: 'a   b' },
		{ section: 'Service', key: 'ExecStart', value: '/bin/x' }
	]);
});

it.each([
	['2', 2000],
	['1min 30s', 90_000],
	['500ms', 500],
	['infinity', Infinity],
	['soon', null],
	['', null]
])('reads the time span %s', (text, ms) => expect(readTimeSpanMs(text)).toBe(ms));

describe('calendar times', () => {
	const elapse = (expression: string, zone: string, after: string, count: number): string[] => {
		const rule = readCalendar(expression);
		if (!rule.ok) throw new Error(rule.faults[0]!.message);
		return nextElapses(rule.value, zone, Date.parse(after), count).map((ms) => new Date(ms).toISOString());
	};
	// Expected values: systemd-analyze calendar --iterations, systemd 252, tzdata 2025b.
	it('pass over a clock time that summer time skips', () =>
		expect(elapse('*-*-* 02:00:00', 'Europe/Berlin', '2025-03-28T12:00:00Z', 2)).toEqual([
			'2025-03-29T01:00:00.000Z',
			'2025-03-31T00:00:00.000Z'
		]));
	it('count the last day of a month from its end', () =>
		expect(elapse('*-*~1 23:00:00', 'UTC', '2026-01-15T00:00:00Z', 2)).toEqual([
			'2026-01-31T23:00:00.000Z',
			'2026-02-28T23:00:00.000Z'
		]));
	it('agree with systemd itself, where it is installed', () => {
		const expressions = [
			'Mon..Fri *-*-* 07:30:00',
			'Sat,Sun *-*-* 08,20:15',
			'*-*-01..07 12:00',
			'*:0/20',
			'Fri *-*-* 22:00:00',
			'monthly'
		];
		for (const expression of expressions) {
			let said: string;
			try {
				said = execFileSync(
					'systemd-analyze',
					['calendar', '--iterations=3', '--base-time=2026-11-24 10:00:00 UTC', expression],
					{ env: { ...process.env, TZ: 'UTC', LC_ALL: 'C' } }
				).toString();
			} catch {
				return;
			}
			const times = [...said.matchAll(/(?:Next elapse|Iter(?:ation|\.) #\d+): \w+ (\S+) (\S+) UTC/g)].map(
				(m) => `${m[1]}T${m[2]}.000Z`
			);
			expect(times.length).toBe(3);
			expect(elapse(expression, 'UTC', '2026-11-24T10:00:00Z', 3)).toEqual(times);
		}
	});
	it.each(['25:00', 'Blursday 10:00', '*-13-01 00:00', '*-*-* 10:00 10:00', ''])('refuses "%s"', (text) =>
		expect(readCalendar(text)).toMatchObject({ ok: false, faults: [{ code: 'calendar-unreadable' }] })
	);
});

it('finds the first of two instants at which a clock shows one time, and none for a skipped one', () => {
	const wall = (text: string): number => Date.parse(`${text}Z`);
	expect(instantOf('Europe/Berlin', wall('2025-10-26T02:30:00'))).toBe(Date.parse('2025-10-26T00:30:00Z'));
	expect(instantOf('Europe/Berlin', wall('2025-03-30T02:30:00'))).toBeNull();
	fc.assert(
		fc.property(
			fc.integer({ min: 0, max: 4e12 }),
			(utc) => void expect(instantOf('Atlantic/Faroe', wallClockMs('Atlantic/Faroe', utc))).not.toBeNull()
		)
	);
});

it('tells the wall clock as the runtime does, at each minute of days on which zones are changed', () => {
	for (const [zone, day] of [
		['Europe/Berlin', '2026-10-25'],
		['Australia/Lord_Howe', '2026-04-04'],
		['America/St_Johns', '2026-03-08'],
		// At one minute past midnight.
		['Antarctica/Casey', '2020-10-03'],
		['Atlantic/Faroe', '2026-12-24']
	] as const) {
		const asked = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'medium' });
		const from = Date.parse(`${day}T00:00:00Z`);
		for (let utcMs = from - 3_600_000; utcMs < from + 90_000_000; utcMs += 59_000)
			expect(wallClockMs(zone, utcMs)).toBe(Date.parse(`${asked.format(utcMs).replace(' ', 'T')}Z`));
	}
});

it('finds the same times as one who tries every second of every day', () => {
	/** The plain way: each time of each day, and whether it comes after. */
	const slowly = (rule: CalendarRule, zone: string, afterUtcMs: number, count: number): number[] => {
		const found: number[] = [];
		let dayMs = Math.floor(wallClockMs(zone, afterUtcMs) / 86_400_000) * 86_400_000 - 86_400_000;
		for (let n = 0; n < 800 && found.length < count; n++, dayMs += 86_400_000) {
			const date = new Date(dayMs);
			const length = new Date(Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + 1, 0)).getUTCDate();
			if (!rule.years(date.getUTCFullYear()) || !rule.months(date.getUTCMonth() + 1)) continue;
			if (!rule.days(date.getUTCDate(), length - date.getUTCDate() + 1)) continue;
			if (rule.weekdays.length && !rule.weekdays.includes((date.getUTCDay() + 6) % 7)) continue;
			for (const h of rule.hours)
				for (const m of rule.minutes)
					for (const s of rule.seconds) {
						const utc = instantOf(zone, dayMs + ((h * 60 + m) * 60 + s) * 1000);
						if (utc !== null && utc > afterUtcMs && found.length < count) found.push(utc);
					}
		}
		return found;
	};
	const two = (n: number): string => String(n).padStart(2, '0');
	const expression = fc.oneof(
		fc.tuple(fc.nat(23), fc.nat(59)).map(([h, m]) => `*-*-* ${two(h)}:${two(m)}:00`),
		fc.tuple(fc.constantFrom('Mon', 'Sat,Sun', 'Mon..Fri'), fc.nat(23)).map(([d, h]) => `${d} *-*-* ${two(h)}:30:00`),
		fc.constantFrom(
			'*-*-* *:0/20:00',
			'*-*-* 02:0/10:00',
			'*-10-* 02:15:00',
			'*-*~01 23:59:59',
			'*-03-29..31 *:30:00',
			'hourly'
		)
	);
	const zone = fc.constantFrom(
		'UTC',
		'Europe/Oslo',
		'America/New_York',
		'Australia/Lord_Howe',
		'Asia/Kolkata',
		'Atlantic/Faroe'
	);
	const near = fc.constantFrom(
		'2026-03-29T00:00:00Z',
		'2026-10-25T00:00:00Z',
		'2026-11-01T05:00:00Z',
		'2026-04-04T14:00:00Z',
		'2026-07-01T00:00:00Z'
	);
	fc.assert(
		fc.property(expression, zone, near, fc.integer({ min: -7_200_000, max: 7_200_000 }), (text, where, at, shift) => {
			const rule = readCalendar(text);
			if (!rule.ok) throw new Error(text);
			const after = Date.parse(at) + shift;
			expect(nextElapses(rule.value, where, after, 4)).toEqual(slowly(rule.value, where, after, 4));
		}),
		{ numRuns: 120 }
	);
});
