import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../../demo/workshop';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { assess } from '../../../engines/assess';
import { contextFor } from '../../../engines/context';
import type { Plan } from '../../../plan/plan';
import { arrange, leastPerHour, percentOf, unmetIn, type ListWish } from './wishes';

const HOUR_S = 3600;
const lengths: Readonly<Record<string, number>> = { a: 10_000, b: 20_000, c: 30_000, d: 60_000 };
const lengthOf = (id: string): number => lengths[id]!;
const wish = (item: string, own: Partial<ListWish> = {}): ListWish => ({
	item,
	perHour: null,
	percent: null,
	apartFrom: [],
	...own
});

/** How often one begins in each hour, by going through the seconds of a long time. */
function countedPerHour(items: readonly string[], item: string): number {
	const totalS = items.reduce((sum, id) => sum + lengthOf(id) / 1000, 0);
	const begins = new Set<number>();
	let at = 0;
	while (at < totalS + 2 * HOUR_S)
		for (const id of items) {
			if (id === item) begins.add(at);
			at += lengthOf(id) / 1000;
		}
	let least = Infinity;
	for (let from = 0; from < totalS; from++) {
		let count = 0;
		for (let s = from; s < from + HOUR_S; s++) if (begins.has(s)) count++;
		least = Math.min(least, count);
	}
	return least;
}

describe('what a round does', () => {
	it.each([
		['ab', 'a'],
		['aabcd', 'a'],
		['abbbbbbbbbbbbbbbbbbb', 'a'],
		[`a${'d'.repeat(70)}`, 'a'],
		[`aa${'d'.repeat(61)}c`, 'a']
	])('is the same as counted second by second: %s', (round, item) => {
		expect(leastPerHour([...round], item, lengthOf)).toBe(countedPerHour([...round], item));
	});

	it('has its part of the time', () => {
		expect(percentOf(['a', 'b', 'a'], 'a', lengthOf)).toBe(50);
	});

	it('is judged by every wish, round its end too', () => {
		const unmet = unmetIn(
			['a', 'b', 'c', 'a'],
			[wish('a', { apartFrom: ['a'] }), wish('b', { percent: 50 }), wish('c', { perHour: 200 }), wish('d')],
			lengthOf
		);
		expect(unmet.map(({ wish: { item }, what, is }) => [item, what, is])).toEqual([
			['a', 'apart', 'a'],
			['b', 'percent', (100 * 20) / 70],
			['c', 'perHour', 51],
			['d', 'gone', 0]
		]);
		expect(unmetIn(['a'], [wish('a', { apartFrom: ['a'] })], lengthOf)).toEqual([]);
	});
});

describe('arranging a round', () => {
	it('brings a notice as often as it is asked for, spread evenly', () => {
		const made = arrange(['a', 'b', 'c', 'd'], [wish('a', { perHour: 60, apartFrom: ['a'] })], lengthOf);
		expect('items' in made && unmetIn(made.items, [wish('a', { perHour: 60 })], lengthOf)).toEqual([]);
		expect('items' in made && made.items.length).toBeLessThan(12);
	});

	it('says why it cannot be', () => {
		expect(arrange(['a', 'b'], [wish('a', { percent: 60 }), wish('b', { percent: 60 })], lengthOf)).toEqual({
			why: 'time',
			percent: 120
		});
		expect(arrange(['a', 'b'], [wish('a', { percent: 100 })], lengthOf)).toEqual({ why: 'time', percent: 100 });
		expect(arrange(['a', 'b'], [wish('a', { apartFrom: ['a', 'b'] })], lengthOf)).toEqual({ why: 'apart', item: 'a' });
		expect(arrange(['a'], [wish('b')], lengthOf)).toEqual({ why: 'gone', item: 'b' });
	});

	const wishes = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 1, maxLength: 3 }).chain((items) =>
		fc.tuple(
			...items.map((item) =>
				fc.record({
					item: fc.constant(item),
					perHour: fc.option(fc.integer({ min: 1, max: 60 })),
					percent: fc.option(fc.integer({ min: 1, max: 60 })),
					apartFrom: fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd'), { maxLength: 2 })
				})
			)
		)
	);

	it('whatever it gives meets every wish, has every entry, and nothing else', () => {
		let met = 0;
		fc.assert(
			fc.property(wishes, (all) => {
				const ids = ['a', 'b', 'c', 'd'];
				const made = arrange(ids, all, lengthOf);
				if (!('items' in made)) return;
				met++;
				expect(unmetIn(made.items, all, lengthOf)).toEqual([]);
				expect([...new Set(made.items)].sort()).toEqual(ids);
			}),
			{ numRuns: 300, seed: 20261127 }
		);
		expect(met).toBeGreaterThan(100);
	});

	it('what it says cannot be kept apart has no order at all: all short rounds are tried', () => {
		const ids = ['a', 'b', 'c'];
		/** Every round of up to seven places with each entry at least once. */
		const rounds: string[][] = [];
		const grow = (round: string[]): void => {
			if (ids.every((id) => round.includes(id))) rounds.push(round);
			if (round.length < 7) for (const id of ids) grow([...round, id]);
		};
		grow([]);
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.constantFrom(...ids), fc.constantFrom(...ids)), { minLength: 1, maxLength: 4 }),
				(pairs) => {
					const all = ids.map((item) => wish(item, { apartFrom: pairs.filter(([a]) => a === item).map(([, b]) => b) }));
					const can = rounds.some((round) => unmetIn(round, all, lengthOf).length === 0);
					expect('items' in arrange(ids, all, lengthOf)).toBe(can);
				}
			),
			{ numRuns: 60, seed: 20261127 }
		);
	});
});

describe('wishes of a playlist, found and mended', () => {
	const ID = 'ticket-hatch';
	const { plan } = demoWorkshop.endpoints.find(({ id }) => id === ID)!;
	const context = contextFor(chain, demoWorkshop, ID);
	const withWishes = (wishes: readonly ListWish[]): Plan => ({
		...plan,
		programme: {
			...plan.programme,
			lists: plan.programme.lists.map((list) =>
				list.id === 'ferry'
					? { ...list, wishes: wishes.map((one) => ({ ...one, apartFrom: [...one.apartFrom] })) }
					: list
			)
		}
	});
	const found = (of: Plan) => assess(judges, of, context).findings.filter(({ id }) => id.startsWith('programme.wish-'));

	it.each<[string, ListWish[], RegExp]>([
		['percent', [wish('page-tides', { percent: 90 })], /has \d+\u2009% of the time; 90\u2009% are asked for/],
		['perHour', [wish('s3', { perHour: 200 })], /comes \d+ times an hour; 200 are asked for/],
		['gone', [wish('s1', { perHour: 2 })], /is to come in .* and is not in it/]
	])('%s: each fix ends it, and arranging keeps every entry', (what, wishes, title) => {
		const asked = withWishes(wishes);
		const [finding] = found(asked);
		expect([finding!.id.endsWith(`-${what}`), finding!.title]).toEqual([true, expect.stringMatching(title)]);
		expect(finding!.fixes).toHaveLength(what === 'gone' ? 1 : 2);
		for (const fix of finding!.fixes) {
			const mended = fix.apply(asked);
			expect(found(mended)).toEqual([]);
			expect(new Set(mended.programme.lists[0]!.items)).toEqual(new Set(plan.programme.lists[0]!.items));
		}
	});

	it('says why no order can do it', () => {
		const [finding] = found(withWishes([wish('page-tides', { percent: 70 }), wish('s3', { percent: 60 })]));
		expect(finding!.why).toContain('130\u2009% of the time');
		expect(finding!.fixes.map(({ label }) => label)).toEqual(['Do without that wish']);
	});
});
