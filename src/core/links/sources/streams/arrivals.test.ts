import { describe, expect, it } from 'vitest';
import { triedWith, type Arrival } from './arrivals';

/** 100 kbit/s in pieces each 100 ms, but for the time in between. */
function comes(seconds: number, silent: readonly (readonly [number, number])[] = [], share = 1): Arrival[] {
	const out: Arrival[] = [];
	let bytes = 0;
	let owed = 0;
	for (let ms = 0; ms <= seconds * 1000; ms += 100) {
		owed += 1250 * share;
		if (silent.some(([from, to]) => ms >= from && ms < to)) continue;
		bytes += owed;
		owed = 0;
		out.push({ atMs: ms, bytes });
	}
	return out;
}

describe('a stream that is tried', () => {
	it('has no pauses when it comes evenly', () => {
		const tried = triedWith(comes(60), 100_000);
		expect(tried.rateBps).toBeCloseTo(100_000, -2);
		expect(tried.pauses).toEqual([]);
		expect(tried.dropouts(1)).toBe(0);
	});
	it('has one where nothing came, and a dropout where less than that was held', () => {
		const tried = triedWith(comes(60, [[20_000, 21_500]]), 100_000);
		expect(tried.pauses).toEqual([{ atMs: 19_900, lastedMs: 1600 }]);
		expect([0.5, 1, 1.5, 2].map((sec) => tried.dropouts(sec))).toEqual([1, 1, 1, 0]);
	});
	it('breaks off again and again when it is slower than it is played', () => {
		const tried = triedWith(comes(60, [], 0.5), 100_000);
		expect(tried.rateBps).toBeCloseTo(50_000, -3);
		expect(tried.dropouts(1)).toBeGreaterThan(10);
		expect(tried.dropouts(5)).toBeLessThan(tried.dropouts(1));
	});
	it('in segments may stand still between two of them', () => {
		const segments = Array.from({ length: 20 }, (_, n) => ({ atMs: n * 2000, bytes: (n + 1) * 24_000 }));
		expect(triedWith(segments, 100_000, 4000).pauses).toEqual([]);
		expect(triedWith([], 100_000)).toMatchObject({ rateBps: 0, pauses: [] });
	});
});
