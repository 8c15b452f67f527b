import fc from 'fast-check';
import { expect, it } from 'vitest';
import { ALWAYS, type RuleLine } from './line';
import { itemAt } from './item';
import { onAirAt, type Rulebook } from './onAir';

const line = (rule: string, show: string, from: number, until: number, everyMin = 0, forMin = 0): RuleLine => ({
	rule,
	title: rule,
	show,
	days: null,
	nth: 0,
	weekParity: null,
	seasons: [],
	validFrom: ALWAYS.from,
	validUntil: ALWAYS.until,
	only: null,
	never: [],
	from: { by: 'clock', min: from },
	until: { by: 'clock', min: until },
	everyMin,
	forMin,
	quieterDb: 0
});
const DAY_MS = 86_400_000;
const SEC = 1000;

it('gives what a player would come to that is started with its rule and paused by others', () => {
	const items = fc.array(fc.integer({ min: 5, max: 400 }), { minLength: 1, maxLength: 4 });
	const window = fc.tuple(fc.integer({ min: 0, max: 1438 }), fc.integer({ min: 1, max: 1439 }));
	fc.assert(
		fc.property(
			items,
			items,
			items,
			window,
			window,
			fc.constantFrom('UTC', 'Europe/Oslo', 'America/New_York'),
			(a, b, c, [f1, u1], [f2, u2], zone) => {
				const book: Rulebook = {
					lines: [
						line('hourly', 'c', 300, 1200, 60, 2),
						line('one', 'a', Math.min(f1, 1438), Math.max(f1 + 1, u1)),
						line('two', 'b', Math.min(f2, 1438), Math.max(f2 + 1, u2))
					],
					otherwise: 'b',
					zone,
					sun: []
				};
				const lists: Readonly<Record<string, { lastsMs: number }[]>> = {
					a: a.map((sec) => ({ lastsMs: sec * SEC })),
					b: b.map((sec) => ({ lastsMs: sec * SEC })),
					c: c.map((sec) => ({ lastsMs: sec * SEC }))
				};
				// A midnight of the zone, on a day whose clock is not changed.
				const midnight =
					Date.parse('2026-11-27T00:00:00Z') + { UTC: 0, 'Europe/Oslo': -1, 'America/New_York': 5 }[zone] * 3_600_000;
				/** By list and rule so much has been played since its window began. */
				const played = new Map<string, number>();
				let before: ReturnType<typeof onAirAt> | null = null;
				for (let sec = 0; sec < DAY_MS / SEC; sec += 1) {
					const utcMs = midnight + sec * SEC;
					if (sec % 60 === 0) {
						before = onAirAt(book, utcMs);
						// Each turn of what comes again begins anew, and so does each window.
						if (before.sinceMin === 0) played.set(before.line!.rule, 0);
					}
					const key = before!.line?.rule ?? '';
					const ms = played.get(key) ?? 0;
					played.set(key, ms + SEC);
					if (sec % 331 !== 0) continue;
					const list = lists[before!.show]!;
					let into = ms % list.reduce((sum, { lastsMs }) => sum + lastsMs, 0);
					let index = 0;
					while (into >= list[index]!.lastsMs) into -= list[index++]!.lastsMs;
					const found = itemAt(book, (show) => lists[show] ?? [], utcMs);
					expect([found.show, found.index, found.intoMs]).toEqual([before!.show, index, into]);
					expect(found.untilUtcMs).toBeGreaterThan(utcMs);
				}
			}
		),
		{ numRuns: 12 }
	);
});

it('shuffled, gives each its turn in every round, and none again before a third of the others', () => {
	fc.assert(
		fc.property(fc.array(fc.integer({ min: 5, max: 90 }), { minLength: 1, maxLength: 12 }), (seconds) => {
			const book: Rulebook = { lines: [], otherwise: 'a', zone: 'Europe/Oslo', sun: [], shuffled: true };
			const list = seconds.map((sec, id) => ({ id, lastsMs: sec * SEC }));
			const round = list.reduce((sum, { lastsMs }) => sum + lastsMs, 0);
			const midnight = Date.parse('2026-11-26T23:00:00Z');
			const turns: number[] = [];
			for (let at = midnight; at < midnight + 12 * round;) {
				const { item, intoMs, untilUtcMs } = itemAt(book, () => list, at);
				expect(intoMs).toBe(0);
				expect(untilUtcMs - at).toBe(item!.lastsMs);
				turns.push(item!.id);
				at = untilUtcMs;
			}
			for (let n = 0; n < turns.length; n += list.length)
				expect([...turns.slice(n, n + list.length)].sort((a, b) => a - b)).toEqual(list.map(({ id }) => id));
			const apart = list.length === 2 ? 1 : Math.floor(list.length / 3);
			for (let n = 0; n < turns.length; n++)
				expect(turns.slice(n + 1, n + 1 + apart), `${n} of ${turns.join()}`).not.toContain(turns[n]);
			if (list.length > 4) expect(new Set(turns.join().match(/.{20}/g)).size).toBeGreaterThan(1);
		}),
		{ numRuns: 40 }
	);
});

it('shows nothing where a list has nothing, and says until when', () => {
	const book: Rulebook = { lines: [line('one', 'a', 600, 660)], otherwise: 'rest', zone: 'UTC', sun: [] };
	const at = itemAt(book, () => [], Date.parse('2026-11-27T09:00:00Z'));
	expect(at).toMatchObject({ item: null, index: -1, untilUtcMs: Date.parse('2026-11-27T10:00:00Z') });
});
