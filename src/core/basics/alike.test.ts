import fc from 'fast-check';
import { expect, it } from 'vitest';
import { diff } from '../plan/patch';
import { alike } from './alike';

it('finds alike what has no difference, whatever the order of keys', () => {
	const value = fc.jsonValue({ maxDepth: 3 });
	fc.assert(
		fc.property(
			fc.oneof(
				fc.tuple(value, value),
				value.map((one) => [one, structuredClone(one)])
			),
			([a, b]) => {
				expect(alike(a, b)).toBe(diff(a, b).length === 0);
			}
		)
	);
	expect(alike({ a: 1, b: [2, { c: 3 }] }, { b: [2, { c: 3 }], a: 1, d: undefined })).toBe(true);
	for (const [a, b] of [
		[{ a: 1 }, { a: 1, b: null }],
		[
			[1, 2],
			[2, 1]
		],
		[[], {}],
		[{}, null],
		[{ toString: 1 }, {}],
		[[1], [1, undefined]]
	])
		expect(alike(a, b)).toBe(false);
});
