import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../../demo/media';
import { demoWorkshop } from '../../../../../demo/workshop';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { cardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { inWords } from '../../../engines/say';
import { speaking } from '../../../speaking';
import { write } from '../../../engines/write';
import type { Plan } from '../../../plan/plan';
import { triedWith, type Arrival } from './arrivals';
import { expectedDropouts, heldBy, leastBuffer, type Pauses } from './buffer';

/** A repeatable sequence between 0 and 1. Source: Marsaglia, Xorshift RNGs (2003), 32 bits. */
function numbersFrom(seed: number): () => number {
	let state = seed >>> 0 || 1;
	return () => {
		state ^= state << 13;
		state ^= state >>> 17;
		state ^= state << 5;
		return ((state >>> 0) + 0.5) / 2 ** 32;
	};
}

/** Plays a stream for so many hours, so many times: pauses come at random and last at random, both exponentially. Means of the runs. */
function simulateBuffer(
	{ perHour, meanSec }: Pauses,
	bufferSec: number,
	{ runs = 100, hours = 24, seed = 7 } = {}
): { readonly count: number; readonly silentSec: number } {
	if (perHour <= 0) return { count: 0, silentSec: 0 };
	const next = numbersFrom(seed);
	const exponential = (mean: number): number => -mean * Math.log(next());
	const { startSec, refillSec } = heldBy(bufferSec);
	// Four times as fast as it is played.
	const waitSec = refillSec / 4;
	let count = 0;
	let silentSec = 0;
	for (let run = 0; run < runs; run++) {
		let lagSec = startSec;
		for (let sec = exponential(3600 / perHour); sec < hours * 3600; sec += exponential(3600 / perHour)) {
			const pause = exponential(meanSec);
			if (pause <= lagSec) continue;
			const silent = pause - lagSec + waitSec;
			count++;
			silentSec += silent;
			lagSec += silent;
		}
	}
	return { count: count / runs, silentSec: silentSec / runs };
}

/** The Euler integral that counts the records among so many pauses, by its series. Source: DLMF 6.6.2. */
function ein(a: number): number {
	let term = 1;
	let sum = 0;
	for (let k = 1; k < 120; k++) {
		term *= -a / k;
		sum -= term / k;
	}
	return sum;
}

/** What came of a live stream in so many seconds, in pieces of 20 ms: in a pause nothing, after it four times as fast until it is live again. */
function arrivalsWith({ perHour, meanSec }: Pauses, seconds: number, random: () => number): Arrival[] {
	const STEP_MS = 20;
	const out: Arrival[] = [{ atMs: 0, bytes: 0 }];
	let bytes = 0;
	let until = 0;
	let next = (-3_600_000 / perHour) * Math.log(random());
	for (let ms = STEP_MS; ms <= seconds * 1000; ms += STEP_MS) {
		if (ms >= next) {
			until = ms - 1000 * meanSec * Math.log(random());
			next = ms - (3_600_000 / perHour) * Math.log(random());
		}
		if (ms < until) continue;
		bytes += Math.min(ms * 16 - bytes, STEP_MS * 16 * 4);
		out.push({ atMs: ms, bytes });
	}
	return out;
}

describe('a buffer against pauses', () => {
	const radio = { perHour: 20, meanSec: 0.6 };
	it.each([
		[radio, 0],
		[radio, 1.5],
		[{ perHour: 60, meanSec: 2 }, 3],
		[{ perHour: 2, meanSec: 0.5 }, 0]
	])('simulated for many days agrees with what is reckoned: %o, %d s gathered', (pauses, bufferSec) => {
		const { count } = simulateBuffer(pauses, bufferSec, { runs: 3000 });
		expect(count / expectedDropouts(pauses, bufferSec)).toBeGreaterThan(0.95);
		expect(count / expectedDropouts(pauses, bufferSec)).toBeLessThan(1.05);
	});
	it('reckons the records among pauses where refilling takes no time', () => {
		// A hundred times the mean to refill of: only pauses count.
		const pauses = { perHour: 1, meanSec: 1000 };
		for (const hours of [0.5, 4, 12])
			expect(expectedDropouts(pauses, 0, hours)).toBeCloseTo(ein(hours * Math.exp(-0.0004)), 1);
	});
	it('keeps the lag of each dropout, as the player was seen to do', () => {
		// mpv 0.35.1 before a server that sent no faster than is played, and four times as fast after each pause; its output held 1 s, and filled anew
		// after a dropout too.
		// It ran dry in the first pause, of 2.45 s, bore those of 2.66 and 2.87 s, and ran dry once more in that of 3.15 s.
		const paused =
			'51.45 2.45;56.01 0.65;61.76 1.75;64.83 0.99;75.29 0.34;78.11 0.26;100.83 1.06;102.87 0.43;123.17 0.17;130.88 0.71;133.03 2.66;140.35 1.66;145.21 0.50;151.00 0.92;152.44 0.81;176.18 1.55;184.73 1.34;207.68 2.87;215.06 0.43;222.15 3.15;227.61 0.59'
				.split(';')
				.map((pair) => pair.split(' ').map(Number) as [number, number]);
		const arrivals: Arrival[] = [];
		let bytes = 0;
		for (let ms = 0; ms <= 240_000; ms += 20) {
			if (paused.some(([at, lasts]) => ms >= at * 1000 && ms < (at + lasts) * 1000)) continue;
			bytes += Math.min((ms + 20) * 16 - bytes, 20 * 16 * 4);
			arrivals.push({ atMs: ms, bytes });
		}
		const until = (sec: number): number =>
			triedWith(
				arrivals.filter(({ atMs }) => atMs <= sec * 1000),
				128_000
			).dropouts(1.28, 2.1);
		expect([51, 60, 220, 240].map(until)).toEqual([0, 1, 1, 2]);
	});
	it('agrees with a player that is fed byte by byte', () => {
		let state = 7;
		const random = (): number => ((state = (state * 48_271) % 2_147_483_647) + 0.5) / 2_147_483_647;
		const pauses = { perHour: 120, meanSec: 1 };
		for (const bufferSec of [0, 2]) {
			const { startSec, refillSec } = heldBy(bufferSec);
			const runs = 60;
			let count = 0;
			for (let n = 0; n < runs; n++)
				count += triedWith(arrivalsWith(pauses, 3600, random), 128_000).dropouts(startSec, refillSec);
			expect(count / runs / expectedDropouts(pauses, bufferSec, 1)).toBeGreaterThan(0.75);
			expect(count / runs / expectedDropouts(pauses, bufferSec, 1)).toBeLessThan(1.25);
		}
	});
	it('that is longer never costs more dropouts, and the least one keeps what it promises', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0.1, max: 60, noNaN: true }),
				fc.double({ min: 0.05, max: 5, noNaN: true }),
				(perHour, meanSec) => {
					const pauses = { perHour, meanSec };
					const sec = leastBuffer(pauses)!;
					expect(expectedDropouts(pauses, sec)).toBeLessThanOrEqual(1);
					if (sec > 0.5) expect(expectedDropouts(pauses, sec - 0.5)).toBeGreaterThan(1);
					expect(expectedDropouts(pauses, sec + 1)).toBeLessThan(expectedDropouts(pauses, sec));
					expect(expectedDropouts(pauses, 1, 24)).toBeGreaterThanOrEqual(expectedDropouts(pauses, 1, 8));
				}
			)
		);
		expect(simulateBuffer({ perHour: 0, meanSec: 1 }, 0)).toEqual({ count: 0, silentSec: 0 });
		expect(leastBuffer({ perHour: 3600, meanSec: 60 })).toBeNull();
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
