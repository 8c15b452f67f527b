import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, describe, expect, it } from 'vitest';
import { dateOf } from '../../../basics/calendar';
import { WEEKDAYS } from '../../../basics/weekdays';
import { wallClockMs } from '../../../formats/systemd/zone';
import type { Venue } from '../../../plan/venue';
import { CALM_THEME } from '../../../standards/pageTheme';
import { bookOf } from '../../../onAir/book';
import { onAirAt, resolve, type Rulebook } from '../../../onAir/onAir';
import { listPath } from '../../../files/cardFile';
import { ON_AIR } from './onAirScript';
import { writeRuleLine } from './ruleText';
import { sunOn, sunTable, writeSunTable } from '../../../onAir/sun';
import { newRule, programmeRule, type Moment, type ProgrammeRule } from '../../../onAir/when';

const ZONE = 'Europe/Oslo';
const venue: Venue = {
	name: 'Hall',
	timeZone: ZONE,
	currency: 'EUR',
	pricePerKwh: 0.3,
	mainsV: 230,
	lan: null,
	opening: [
		{ weekdays: [], season: { from: '04-01', until: '09-30' }, from: '10:00', until: '18:00' },
		{ weekdays: ['Sat', 'Sun'], season: { from: '10-01', until: '03-31' }, from: '11:00', until: '15:30' }
	],
	closedOnHolidays: true,
	holidays: [{ date: '2026-12-25', title: 'Christmas Day' }],
	place: { latitudeDeg: 59.9, longitudeDeg: 10.7 },
	noticeTheme: CALM_THEME
};
const clock = (time: string): Moment => ({ at: 'clock', time, offsetMin: 0 });
const rule = (id: string, change: Partial<ProgrammeRule>): ProgrammeRule => ({ ...newRule(id, id, id), ...change });
const book = (rules: ProgrammeRule[], at: Partial<Venue> = {}): Rulebook =>
	bookOf({ rules, otherwise: 'rest', shuffle: false }, { ...venue, ...at });
const showAt = (rules: ProgrammeRule[], iso: string, at: Partial<Venue> = {}): string =>
	onAirAt(book(rules, at), Date.parse(iso)).show;

describe('a rule holds', () => {
	it.each<[string, Partial<ProgrammeRule>, string, boolean]>([
		['from its first minute', {}, '2026-11-27T08:00:00Z', true],
		['not a second before it', {}, '2026-11-27T07:59:59Z', false],
		['until its last', {}, '2026-11-27T15:59:59Z', true],
		['and no longer', {}, '2026-11-27T16:00:00Z', false],
		['past midnight', { from: clock('22:00'), until: clock('02:00') }, '2026-11-28T00:30:00Z', true],
		[
			'past midnight by the evening’s weekday',
			{ weekdays: ['Fri'], from: clock('22:00'), until: clock('02:00') },
			'2026-11-28T00:30:00Z',
			true
		],
		[
			'and not by the morning’s',
			{ weekdays: ['Sat'], from: clock('22:00'), until: clock('02:00') },
			'2026-11-28T00:30:00Z',
			false
		],
		['on its weekday', { weekdays: ['Fri'] }, '2026-11-27T12:00:00Z', true],
		['on the fourth Friday', { weekdays: ['Fri'], nth: 4 }, '2026-11-27T12:00:00Z', true],
		['which is the last', { weekdays: ['Fri'], nth: -1 }, '2026-11-27T12:00:00Z', true],
		['and not the third', { weekdays: ['Fri'], nth: 3 }, '2026-11-27T12:00:00Z', false],
		['every other week', { everyOther: '2026-11-09' }, '2026-11-27T12:00:00Z', true],
		['and not in the one between', { everyOther: '2026-11-16' }, '2026-11-27T12:00:00Z', false],
		['in a season over the year’s end', { season: { from: '10-01', until: '03-31' } }, '2026-11-27T12:00:00Z', true],
		['on a leap day', { dates: ['2028-02-29'] }, '2028-02-29T12:00:00Z', true],
		['not before it is valid', { validFrom: '2026-11-28' }, '2026-11-27T12:00:00Z', false],
		['on its last day', { validUntil: '2026-11-27' }, '2026-11-27T12:00:00Z', true],
		['on holidays alone', { holidays: 'only' }, '2026-12-25T12:00:00Z', true],
		['and never on them', { holidays: 'never' }, '2026-12-25T12:00:00Z', false],
		[
			'a quarter before opening',
			{ from: { at: 'opens', time: '00:00', offsetMin: -15 }, until: { at: 'closes', time: '00:00', offsetMin: 0 } },
			'2026-11-28T09:45:00Z',
			true
		],
		[
			'never when the venue stays closed',
			{ from: { at: 'opens', time: '00:00', offsetMin: 0 }, until: { at: 'closes', time: '00:00', offsetMin: 0 } },
			'2026-12-25T12:00:00Z',
			false
		],
		['from nine to nine the whole day round', { until: clock('09:00') }, '2026-11-28T07:59:59Z', true],
		['at each full hour', { each: { everyMin: 60, forMin: 2 } }, '2026-11-27T12:01:59Z', true],
		['for two minutes', { each: { everyMin: 60, forMin: 2 } }, '2026-11-27T12:02:00Z', false]
	])('%s', (_, change, iso, holds) => expect(showAt([rule('a', change)], iso)).toBe(holds ? 'a' : 'rest'));
	it('the upper one wins, and the lower one says so while it does not hold', () => {
		const rules = [rule('short', { from: clock('12:00'), until: clock('13:00') }), rule('long', {})];
		expect(showAt(rules, '2026-11-27T11:30:00Z')).toBe('short');
		expect(showAt(rules, '2026-11-27T12:30:00Z')).toBe('long');
	});
	it('by the wall clock where an hour is skipped or comes twice', () => {
		const night = [rule('a', { from: clock('02:00'), until: clock('02:30') })];
		const on = (day: string) =>
			resolve(book(night), Date.parse(`${day}T22:00:00Z`), Date.parse(`${day}T22:00:00Z`) + 6 * 3_600_000)
				.filter(({ show }) => show === 'a')
				.map(({ fromUtcMs, untilUtcMs }) => [
					new Date(fromUtcMs).toISOString().slice(11, 16),
					(untilUtcMs - fromUtcMs) / 60_000
				]);
		expect(on('2026-03-28')).toEqual([]);
		expect(on('2026-10-24')).toEqual([
			['00:00', 30],
			['01:00', 30]
		]);
	});
});

describe('sunrise and sunset', () => {
	/** Another way of reckoning. Source: the sunrise equation; declination and equation of time by their usual short series. */
	function bySeries(yearDay: number, latitudeDeg: number, longitudeDeg: number): { rise: number; set: number } {
		const turn = (2 * Math.PI * (yearDay - 0.5)) / 365;
		const equationMin =
			229.18 *
			(0.000075 +
				0.001868 * Math.cos(turn) -
				0.032077 * Math.sin(turn) -
				0.014615 * Math.cos(2 * turn) -
				0.040849 * Math.sin(2 * turn));
		const declination =
			0.006918 -
			0.399912 * Math.cos(turn) +
			0.070257 * Math.sin(turn) -
			0.006758 * Math.cos(2 * turn) +
			0.000907 * Math.sin(2 * turn) -
			0.002697 * Math.cos(3 * turn) +
			0.00148 * Math.sin(3 * turn);
		const latitude = (latitudeDeg * Math.PI) / 180;
		const hourAngle =
			(180 / Math.PI) *
			Math.acos(
				Math.cos((90.833 * Math.PI) / 180) / (Math.cos(latitude) * Math.cos(declination)) -
					Math.tan(latitude) * Math.tan(declination)
			);
		const noon = 720 - 4 * longitudeDeg - equationMin;
		return { rise: noon - 4 * hourAngle, set: noon + 4 * hourAngle };
	}
	it.each([
		[62.1, -7.4],
		[0, 0],
		[-41.3, 174.8],
		[40.7, -74]
	])(
		'at %s, %s agree with another way of reckoning to a few minutes, every day of a year',
		(latitudeDeg, longitudeDeg) => {
			const table = sunTable({ latitudeDeg, longitudeDeg });
			for (let yearDay = 1; yearDay <= 365; yearDay += 3) {
				const date = dateOf(Date.UTC(2026, 0, yearDay) / 86_400_000);
				const row = sunOn(table, Number(date.slice(5, 7)) * 100 + Number(date.slice(8)))!;
				const { rise, set } = bySeries(yearDay, latitudeDeg, longitudeDeg);
				expect(Math.abs(row.riseMin - rise), `rise on ${date}`).toBeLessThan(7);
				expect(Math.abs(row.setMin - set), `set on ${date}`).toBeLessThan(7);
			}
		}
	);
	it('day and night without end', () => {
		const table = sunTable({ latitudeDeg: 78, longitudeDeg: 15 });
		expect(sunOn(table, 621)).toMatchObject({ riseMin: -60, setMin: 1380 });
		expect(sunOn(table, 1221)).toMatchObject({ riseMin: 660, setMin: 660 });
	});
});

const time = fc.integer({ min: 0, max: 1439 }).map((at) => new Date(at * 60_000).toISOString().slice(11, 16));
const moment: fc.Arbitrary<Moment> = fc.record({
	at: fc.constantFrom('clock', 'clock', 'opens', 'closes', 'sunrise', 'sunset'),
	time,
	offsetMin: fc.integer({ min: -90, max: 90 })
});
const date = fc.integer({ min: 20_400, max: 21_600 }).map(dateOf);
const season = fc.record({ from: date.map((d) => d.slice(5)), until: date.map((d) => d.slice(5)) });
const anyRule: fc.Arbitrary<ProgrammeRule> = fc.record({
	id: fc.constant('x'),
	title: fc.constantFrom('plain', 'a * b', 'title=twice title=x', '\\n $(id) `id` "', ' led by a space'),
	show: fc.constantFrom('all', 'rest', 'one', 'two'),
	weekdays: fc.subarray([...WEEKDAYS]),
	nth: fc.constantFrom(0, 0, 0, 1, 3, 5, -1),
	everyOther: fc.oneof(fc.constant(''), date),
	season: fc.option(season),
	validFrom: fc.oneof(fc.constant(''), date),
	validUntil: fc.oneof(fc.constant(''), date),
	dates: fc.oneof(
		{ weight: 3, arbitrary: fc.constant<string[]>([]) },
		{ weight: 1, arbitrary: fc.array(date, { maxLength: 4 }) }
	),
	holidays: fc.constantFrom('too', 'too', 'never', 'only'),
	from: moment,
	until: moment,
	each: fc.option(fc.record({ everyMin: fc.integer({ min: 2, max: 90 }), forMin: fc.integer({ min: 1, max: 60 }) })),
	quieterDb: fc.constantFrom(0, 0, 6, 20)
});
const anyRules = fc
	.array(anyRule, { minLength: 1, maxLength: 6 })
	.map((rules) => rules.map((one, n) => ({ ...one, id: `r${n}` })));
const zone = fc.constantFrom(ZONE, 'America/St_Johns', 'Pacific/Auckland', 'Asia/Kathmandu', 'America/Santiago');

describe('a year', () => {
	it('says for every minute what one instant says, over both changes of the clock', () => {
		fc.assert(
			fc.property(anyRules, zone, fc.integer({ min: 0, max: 300 }), (rules, timeZone, shift) => {
				expect(rules.every((one) => programmeRule.safeParse(one).success)).toBe(true);
				const known = book(rules, { timeZone });
				const from = Date.UTC(2026, 2, 27) + shift * 86_400_000;
				const stretches = resolve(known, from, from + 4 * 86_400_000);
				expect(stretches[0]!.fromUtcMs).toBe(from);
				expect(stretches.at(-1)!.untilUtcMs).toBe(from + 4 * 86_400_000);
				let n = 0;
				for (let at = from; at < from + 4 * 86_400_000; at += 60_000) {
					while (stretches[n]!.untilUtcMs <= at) n++;
					const { show, line } = onAirAt(known, at);
					expect([stretches[n]!.show, stretches[n]!.line?.rule], new Date(at).toISOString()).toEqual([
						show,
						line?.rule
					]);
				}
			}),
			{ numRuns: 8 }
		);
	});
});

describe('on-air.sh in a real shell', () => {
	const folder = mkdtempSync(join(tmpdir(), 'yphos-air-'));
	afterAll(() => rmSync(folder, { recursive: true }));
	const at = (name: string): string => join(folder, name);
	writeFileSync(at('on-air.sh'), ON_AIR.join('\n'));
	const offsetText = (timeZone: string, utcMs: number): string => {
		const minutes = Math.round((wallClockMs(timeZone, utcMs) - utcMs) / 60_000);
		const abs = Math.abs(minutes);
		return `${minutes < 0 ? '-' : '+'}${String(Math.floor(abs / 60)).padStart(2, '0')}${String(abs % 60).padStart(2, '0')}`;
	};
	it('finds what we find, at any instant of any year, by any rules, in any zone', () => {
		fc.assert(
			fc.property(
				anyRules,
				zone,
				fc.array(fc.integer({ min: 1_767_000_000, max: 1_860_000_000 }), { minLength: 20, maxLength: 20 }),
				(rules, timeZone, instants) => {
					const known = book(rules, { timeZone });
					writeFileSync(
						at('rules.txt'),
						`# comment\n${[...known.lines.map(writeRuleLine), 'otherwise rest'].join('\n')}\n`
					);
					writeFileSync(
						at('sun.txt'),
						writeSunTable(known.sun)
							.map((text) => `${text}\n`)
							.join('')
					);
					const run = spawnSync(
						'sh',
						[
							'-c',
							'for now in "$@"; do YPHOS_NOW=$now sh "$YPHOS_STATE/on-air.sh" || echo failed; cat "$YPHOS_STATE/now.m3u8" "$YPHOS_STATE/why"; done',
							'sh',
							...instants.map((sec) => `${sec} ${offsetText(timeZone, sec * 1000)}`)
						],
						{
							env: { ...process.env, YPHOS_RULES: at('rules.txt'), YPHOS_SUN: at('sun.txt'), YPHOS_STATE: folder },
							encoding: 'utf8'
						}
					);
					expect(run.stderr).toBe('');
					const told = instants.map((sec) => {
						const { show, line } = onAirAt(known, sec * 1000);
						return `${show === 'rest' ? '' : listPath(show)}\n${line?.title ?? ''}\n`;
					});
					expect(run.stdout).toBe(told.join(''));
				}
			),
			{ numRuns: 20 }
		);
	}, 60_000);
});
