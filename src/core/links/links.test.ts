import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { judges } from '../judges';
import { assess } from '../engines/assess';
import { contextFor } from '../engines/context';
import { nextElapses, readCalendar } from '../formats/systemd/calendar';
import { placeKind, placesIn } from '../files/mediaPlace';
import type { Plan } from '../plan/plan';
import { computeCardRoom, computeRetention, computeSize } from './card/room';
import { isQuiet, quietCalendars, quietLine, quietNow } from './programme/quiet';
import { MAY_SOUND } from './programme/scripts';
import { WEEKDAYS } from '../basics/weekdays';

const lounge = demoWorkshop.endpoints[0]!;
const BARE_INLET = {
	watts: 40,
	powerFactor: 0.6,
	marginPercent: 50,
	inrushA: 20,
	earthed: false,
	strainRelief: true,
	touchSafe: true
};
const ids = (plan: Plan): string[] =>
	assess(judges, structuredClone(plan), contextFor(chain, demoWorkshop, lounge.id)).findings.map((f) => f.id);

describe('findings', () => {
	it.each([
		['brief.stays-silent', (p: Plan) => (p.programme.startAtBoot = false)],
		['brief.too-slow', (p: Plan) => (p.brief.soundWithinSec = 6)],
		['parts.no-supply', (p: Plan) => (p.parts.supply = null)],
		['parts.no-board', (p: Plan) => (p.parts.board = 'sold')],
		['power.too-weak', (p: Plan) => (p.parts.supply = 'supply-5-1')],
		['power.wrong-rail', (p: Plan) => (p.parts.supply = 'supply-12-2')],
		['power.usb-total', (p: Plan) => p.parts.also.push({ part: 'drive-disk-2000', count: 2 })],
		['power.inlet-unsafe', (p: Plan) => (p.power.inlet = BARE_INLET)],
		[
			'power.hold-too-short',
			(p: Plan) => p.parts.also.push({ part: 'hold-cap', count: 1 }) && (p.power.shutdownSec = 120)
		],
		['header.line.fan-5-pwm.fan-5-pwm', (p: Plan) => p.parts.also.push({ part: 'fan-5-pwm', count: 2 })],
		['header.none', (p: Plan) => Object.assign(p.parts, { board: 'board-desk-8', converter: 'conv-header-192' })],
		[
			'heat.throttles',
			(p: Plan) =>
				Object.assign(p.parts, { case: 'case-weather', cooler: null }) &&
				Object.assign(p.heat, { place: 'sun', roomC: 40 })
		],
		[
			'heat.cannot-keep-up',
			(p: Plan) => (p.brief.video = { codec: 'av1', widthPx: 3840, heightPx: 2160, framesPerSec: 60, bitDepth: 10 })
		],
		['heat.readings-unusable', (p: Plan) => (p.heat.useReadings = true)],
		['parts.board-falls-short', (p: Plan) => (p.parts.board = 'board-small-512')],
		['parts.no-network-lead', (p: Plan) => (p.parts.also = p.parts.also.filter(({ part }) => part !== 'lead-net-2'))],
		['power.lead-sags', (p: Plan) => Object.assign(p.parts, { supply: 'supply-5-2', lead: 'lead-a-c-thin-2' })],
		['network.streams-without', (p: Plan) => (p.network.way = 'none')],
		['network.no-ssid', (p: Plan) => (p.network.way = 'radio')],
		['network.same-name', (p: Plan) => (p.network.hostName = 'foghorn')],
		['sources.empty', (p: Plan) => (p.sources.items = [])],
		['sources.endless', (p: Plan) => (p.sources.items = [...p.sources.items].reverse())],
		['sources.unknown', (p: Plan) => (p.sources.items[0]!.location = 'new.mp3')],
		['sources.elsewhere', (p: Plan) => (p.sources.items[0]!.location = '/mnt/disk/a.flac')],
		['programme.empty-quiet-0', (p: Plan) => (p.programme.quiet[0]!.until = '22:00')]
	])('%s is found when it is so, and only then', (id, spoil) => {
		const plan = structuredClone(lounge.plan);
		expect(ids(plan)).not.toContain(id);
		spoil(plan);
		expect(ids(plan)).toContain(id);
	});
});

describe('quiet hours', () => {
	const hours = fc
		.record({ weekdays: fc.subarray([...WEEKDAYS]), from: clock(), until: clock() })
		.filter((h) => h.from !== h.until);
	function clock() {
		return fc
			.tuple(fc.integer({ min: 0, max: 23 }), fc.constantFrom('00', '30'))
			.map(([h, m]) => `${String(h).padStart(2, '0')}:${m}`);
	}
	it('the script on the endpoint and the simulated one agree at every hour', () => {
		const dir = mkdtempSync(join(tmpdir(), 'yphos-quiet-'));
		writeFileSync(join(dir, 'may-sound.sh'), MAY_SOUND.join('\n'));
		const cases = fc.sample(
			fc.tuple(fc.array(hours, { minLength: 1, maxLength: 3 }), fc.integer({ min: 1, max: 7 }), clock()),
			{ numRuns: 60, seed: 3 }
		);
		for (const [list, weekday, time] of cases) {
			const data = list.map(quietLine).join('\n') + '\n';
			writeFileSync(join(dir, 'quiet.txt'), data);
			let code = 0;
			try {
				execFileSync('sh', [join(dir, 'may-sound.sh')], {
					env: {
						PATH: process.env.PATH,
						YPHOS_QUIET_HOURS: join(dir, 'quiet.txt'),
						YPHOS_WEEKDAY: String(weekday),
						YPHOS_TIME: time.replace(':', '')
					}
				});
			} catch (error) {
				code = (error as { status: number }).status;
			}
			expect(code === 1, `${data} ${weekday} ${time}`).toBe(isQuiet(data, weekday, Number(time.replace(':', ''))));
		}
	});
	it('says whether it is quiet now, and until when, in the venue\u2019s own time', () => {
		const quiet = [{ weekdays: [], from: '22:00', until: '07:00' }];
		const utc = (text: string): number => Date.parse(`2026-07-01T${text}:00Z`);
		// The Faroes keep summer time in July: an hour ahead of UTC.
		expect(quietNow(quiet, 'Atlantic/Faroe', utc('20:30'))).toEqual({ isQuiet: false, changesUtcMs: utc('21:00') });
		expect(quietNow(quiet, 'Atlantic/Faroe', utc('05:59'))).toEqual({ isQuiet: true, changesUtcMs: utc('06:00') });
		expect(quietNow([], 'Atlantic/Faroe', utc('20:30'))).toEqual({ isQuiet: false, changesUtcMs: null });
	});
	it('the timers fire where quiet begins and ends', () => {
		fc.assert(
			fc.property(hours, (one) => {
				const data = quietLine(one);
				const quietAt = (ms: number): boolean => {
					const d = new Date(ms);
					return isQuiet(data, ((d.getUTCDay() + 6) % 7) + 1, d.getUTCHours() * 100 + d.getUTCMinutes());
				};
				for (const [which, expected] of [
					['begins', true],
					['ends', false]
				] as const) {
					const rule = readCalendar(quietCalendars(one)[which]);
					if (!rule.ok) throw new Error(quietCalendars(one)[which]);
					for (const at of nextElapses(rule.value, 'UTC', Date.UTC(2026, 10, 24), 7)) {
						expect(quietAt(at)).toBe(expected);
						expect(quietAt(at - 60_000)).toBe(!expected);
					}
				}
			}),
			{ numRuns: 30 }
		);
	});
});

describe('names of files on the card', () => {
	const named = (...locations: string[]): string[] => {
		const place = placesIn(locations.map((location) => ({ location })));
		return locations.map((location) => place(location).inPlaylist.split('/').at(-1)!);
	};
	it('are ones that every file system takes, and no two meet, though FAT knows no capitals', () => {
		const letters = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 80 });
		const cased = fc.string({ unit: fc.constantFrom('a', 'A', 'b', '.', ' '), minLength: 1, maxLength: 6 });
		fc.assert(
			fc.property(fc.array(fc.oneof(letters, cased), { minLength: 2, maxLength: 6 }), (names) => {
				const files = [...new Set(names)].filter((name) => placeKind(name) === 'card');
				const made = named(...files);
				expect(new Set(made.map((name) => name.toUpperCase())).size).toBe(files.length);
				for (const name of made) {
					expect(name).toMatch(/^[^"*/:<>?\\|]+$/u);
					expect(new TextEncoder().encode(name).length).toBeLessThanOrEqual(200);
					expect(name).not.toMatch(/^(?:con|prn|aux|nul|com\d|lpt\d)(?:\.|$)|[ .]$/i);
				}
			})
		);
		expect(named('Night ferry.wav')).toEqual(['Night ferry.wav']);
		expect(named('Who? "Me".flac')[0]).toMatch(/^Who_ _Me_-[0-9a-f]{8}\.flac$/);
		expect(named('CON.wav')[0]).toMatch(/^CON-[0-9a-f]{8}\.wav$/);
		const [upper, lower] = named('Gull.wav', 'gull.WAV');
		expect(upper).toMatch(/^Gull-[0-9a-f]{8}\.wav$/);
		expect(upper!.toLowerCase()).not.toBe(lower!.toLowerCase());
		expect(named(`${'\u00e5'.repeat(300)}.wav`)[0]!.length).toBeLessThan(120);
	});
	it('are used for files only', () => {
		const place = placesIn([{ location: 'a.flac' }]);
		expect(place('http://a.example/b')).toEqual({ kind: 'stream', inPlaylist: 'http://a.example/b' });
		expect(place('/srv/a.flac').kind).toBe('disk');
		expect(place('a.flac')).toEqual({ kind: 'card', inPlaylist: '/opt/yphos/media/a.flac' });
	});
});

// Independent arithmetic: integer bytes.
describe('figures', () => {
	it('of storage', () => {
		expect(computeSize(12_500_000, 3600)).toMatchObject({ bytes: 5_625_000_000, gigabytes: 5.625 });
		expect(computeCardRoom({ capacityGb: 64, reservedPercent: 10, systemGb: 0 }).usableBytes).toBe(57_600_000_000);
		expect(computeRetention({ policy: 'untilFull', usableBytes: 100, newBytesByDay: [60, 30, 50, 200] })).toEqual({
			usedBytesByDay: [60, 90, 80, 200],
			peakBytes: 200,
			firstOverflowDay: 4,
			daysDeletedInOrder: [1, 2, 3]
		});
	});
});
