import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../demo/media';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { rehearsed } from '../../rehearsals';
import { writers } from '../../writers';
import { assess } from '../../engines/assess';
import { benchFor } from '../../engines/benchFor';
import { contextFor } from '../../engines/context';
import { cardTree } from '../../engines/machine';
import { rehearse } from '../../engines/rehearse';
import { inWords } from '../../engines/say';
import { speaking } from '../../speaking';
import { write } from '../../engines/write';
import type { Plan } from '../../plan/plan';
import { expectedDropouts, leastBuffer, simulateBuffer } from './buffer';

describe('a buffer against pauses', () => {
	it.each([
		[10, 1, 1],
		[20, 0.6, 1.5],
		[30, 2, 3],
		[5, 0.5, 0]
	])(
		'simulated for years agrees with the formula where pauses are rare: %i an hour of %f s, %f s held',
		(perHour, meanSec, bufferSec) => {
			const { perHour: simulated } = simulateBuffer({ perHour, meanSec }, bufferSec, 20_000);
			const expected = expectedDropouts({ perHour, meanSec }, bufferSec);
			expect(simulated / expected).toBeGreaterThan(0.93);
			expect(simulated / expected).toBeLessThan(1.07);
		}
	);
	it('is worse than the formula where one pause follows the other, for then it is never full', () =>
		expect(simulateBuffer({ perHour: 9000, meanSec: 0.3 }, 2, 200).perHour).toBeGreaterThan(
			1.5 * expectedDropouts({ perHour: 9000, meanSec: 0.3 }, 2)
		));
	it('that is longer never costs more dropouts, and the least one keeps what it promises', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0.1, max: 60, noNaN: true }),
				fc.double({ min: 0.05, max: 5, noNaN: true }),
				(perHour, meanSec) => {
					const sec = leastBuffer({ perHour, meanSec });
					expect(expectedDropouts({ perHour, meanSec }, sec) * 24).toBeLessThanOrEqual(1 + 1e-9);
					if (sec > 0.5) expect(expectedDropouts({ perHour, meanSec }, sec - 0.5) * 24).toBeGreaterThan(1 - 1e-9);
					expect(expectedDropouts({ perHour, meanSec }, sec + 1)).toBeLessThan(
						expectedDropouts({ perHour, meanSec }, sec)
					);
				}
			)
		);
		expect(simulateBuffer({ perHour: 0, meanSec: 1 }, 0)).toEqual({ perHour: 0, silentSecPerHour: 0 });
	});
});

const ID = 'bunkhouse-lounge';
const lounge = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const context = contextFor(chain, demoWorkshop, ID);
const planWith = (change: Partial<Plan['sources']>, more: Partial<Plan> = {}): Plan => ({
	...lounge,
	...more,
	programme: { ...lounge.programme, quiet: [], whenGone: 'list' },
	sources: {
		...lounge.sources,
		items: lounge.sources.items.filter(({ title }) => title === 'Harbour Radio'),
		waitForNetwork: true,
		...change
	}
});
const confOf = (plan: Plan): string => {
	const file = write(writers, plan, context).find(({ path }) => path.endsWith('mpv.conf'));
	return file && 'lines' in file ? file.lines.map(({ text }) => text).join('\n') : '';
};
const run = (plan: Plan, lastsMs: number) => {
	const mediaBytes = demoMediaOf(plan.sources.items);
	const result = rehearse({
		links: rehearsed,
		card: cardTree(write(writers, plan, context, { mediaBytes })),
		bench: benchFor(writers, plan, context),
		startUtcMs: Date.UTC(2026, 10, 26, 9),
		forMs: 180_000,
		faults: [{ name: 'stream-pauses', atMs: 120_000, lastsMs }]
	});
	const ear = result.tracks.find(({ id }) => id === 'ear')!;
	return {
		dry: inWords(speaking, result.events).filter(({ text }) => text.startsWith('Runs dry')).length,
		firstMs: ear.marks[0]!.atMs,
		last: ear.spans.at(-1)!.state,
		silentMs: ear.spans
			.filter(({ fromMs, state }) => fromMs >= 120_000 && state !== 'sound')
			.reduce((sum, { fromMs, toMs }) => sum + toMs - fromMs, 0)
	};
};

describe('what is gathered before a stream begins', () => {
	it('is asked of the player, and only where there is a stream and a wish', () => {
		expect(confOf(planWith({ bufferSec: 4 }))).toContain('cache-pause-initial=yes\ncache-pause-wait=4');
		expect(confOf(planWith({ bufferSec: 0 }))).not.toContain('cache-pause');
		expect(confOf(planWith({ bufferSec: 4, items: lounge.sources.items.slice(0, 1) }))).not.toContain('cache-pause');
	});
	it('delays the first sound by as much, bridges a pause that is shorter, and runs dry in one that is longer', () => {
		const without = run(planWith({ bufferSec: 0 }), 3000);
		const held = run(planWith({ bufferSec: 4 }), 3000);
		expect(held.firstMs - without.firstMs).toBe(4000);
		expect([without.dry, held.dry]).toEqual([1, 0]);
		const long = run(planWith({ bufferSec: 4 }), 20_000);
		expect(long.dry).toBe(1);
		expect(long.last).toBe(held.last);
		// 16 s of the pause, then four to gather again.
		expect(long.silentMs).toBeGreaterThan(19_000);
		expect(long.silentMs).toBeLessThan(21_500);
	});
	it('is advised where streams break off, by Wi-Fi for one, and the fix ends it', () => {
		const bad = planWith({}, { network: { ...lounge.network, way: 'radio', ssid: 'x' } });
		const found = assess(judges, bad, context).findings.find(({ id }) => id === 'sources.buffer-thin');
		expect(found?.fixes).toHaveLength(1);
		const mended = found!.fixes[0]!.apply(structuredClone(bad));
		const ids = (plan: Plan): string[] => assess(judges, plan, context).findings.map(({ id }) => id);
		expect(ids(mended)).not.toContain('sources.buffer-thin');
		expect(ids(planWith({}))).not.toContain('sources.buffer-thin');
		expect(ids(planWith({ pauses: { perHour: 60, meanSec: 2 } }))).toContain('sources.buffer-thin');
	});
});
