import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { assess } from '../../engines/assess';
import { derive } from '../../engines/derive';
import { contextFor } from '../../engines/context';
import type { Plan } from '../../plan/plan';
import { computeEnergy, computeHoldUpSec } from './energy';
import { computeFuse, fuseCharacteristic, FUSE_RATINGS_A } from './inlet';
import { awgAreaMm2, dropAtCurrent, dropAtPower, loopOhm } from './lead';
import { quietHoursPerDay } from '../programme/quiet';
import { computePath, goodFromV } from './powerPath';
import { computeUsbLoad, placeUsb } from './usb';

const lounge = demoWorkshop.endpoints[0]!;
const context = contextFor(chain, demoWorkshop, lounge.id);
const pathOf = (plan: Plan) => {
	const here = derive(chain, plan, context);
	return computePath(plan.power, here.context, here.claims)!;
};
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('the lead', () => {
	it('has the resistance of copper there and back, and of its contacts', () =>
		expect(loopOhm(2, 0.33, 0.04)).toBeCloseTo((0.0172414 * 4) / 0.33 + 0.04, 9));
	it.each([
		[10, 5.2612],
		[24, 0.2047],
		[28, 0.081]
	])('of gauge %i has %d mm²', (gauge, area) => expect(awgAreaMm2(gauge)).toBeCloseTo(area, 3));
	it('a load of constant power: the board takes what the current drops, and the books balance', () => {
		fc.assert(
			fc.property(number(0.1, 20), number(0.01, 0.3), (watts, ohm) => {
				const drop = dropAtPower(5.1, ohm, watts);
				if (!drop) return expect(5.1 ** 2).toBeLessThan(4 * ohm * watts);
				expect(drop.boardV * drop.currentA).toBeCloseTo(watts, 6);
				expect(5.1 - drop.currentA * ohm).toBeCloseTo(drop.boardV, 6);
				expect(drop.cableLossW).toBeCloseTo(drop.currentA ** 2 * ohm, 6);
			})
		);
	});
	it('refuses what would leave nothing', () => {
		expect(dropAtPower(5, 1, 10)).toBeNull();
		expect(dropAtCurrent(5, 2, 2.5)).toBeNull();
		expect(dropAtCurrent(5, 0.1, 1)).toMatchObject({ boardV: 4.9, dropV: expect.closeTo(0.1) });
	});
});

describe('the path', () => {
	it('falls as the load rises, and a supply with its own lead needs no other', () => {
		const { at, watts, lead } = pathOf(lounge.plan);
		expect(lead?.name).toBe('its own cable');
		expect(watts.idle).toBeLessThan(watts.typical);
		expect(watts.typical).toBeLessThan(watts.peak);
		expect(at.idle!.boardV).toBeGreaterThan(at.peak!.boardV);
	});
	it('counts every part that the board feeds, and none that has a plug of its own', () => {
		const also = (part: string, count = 1): Plan => ({
			...lounge.plan,
			parts: { ...lounge.plan.parts, also: [...lounge.plan.parts.also, { part, count }] }
		});
		const before = pathOf(lounge.plan).watts.peak;
		expect(pathOf(also('fan-5-always')).watts.peak).toBeCloseTo(before + 0.6, 6);
		expect(pathOf(also('stick-64', 2)).watts.peak).toBeCloseTo(before + 2, 6);
		expect(pathOf(also('drive-disk-8000')).watts.peak).toBeCloseTo(before, 6);
		// A hub with its own supply takes over what is plugged into it, the converter too.
		expect(pathOf(also('hub-powered-4')).watts.peak).toBeLessThan(before);
	});
});

describe('USB', () => {
	const claim = (what: string, peakW: number) => ({
		on: 'power' as const,
		from: 'parts' as const,
		what,
		part: what,
		count: 1,
		via: 'usb' as const,
		idleW: 0,
		typicalW: peakW,
		peakW,
		surgeW: peakW
	});
	it('gives the hungriest to the hub with its own supply, and lets the rest share', () => {
		const places = placeUsb([claim('stick', 1), claim('disk', 5), claim('tuner', 2)], 2, [{ ports: 1, powered: true }]);
		expect(places.map(({ what, at }) => [what, at])).toEqual([
			['disk', 'powered hub'],
			['tuner', 'board'],
			['stick', 'board']
		]);
		expect(computeUsbLoad(places)).toEqual({ totalA: 0.6000000000000001, busiestA: 0.4, devices: 3 });
	});
	it('a plain hub gathers the current of all that hangs on it', () => {
		const places = placeUsb([claim('a', 2), claim('b', 2), claim('c', 2)], 1, [{ ports: 4, powered: false }]);
		expect(computeUsbLoad(places).busiestA).toBeCloseTo(1.2, 6);
	});
});

describe('the inlet', () => {
	it('takes the next rating that is not below what is needed, or none', () => {
		fc.assert(
			fc.property(number(1, 2500), number(0.4, 1), number(0, 100), (watts, powerFactor, marginPercent) => {
				const { fuseA, neededA } = computeFuse({
					watts,
					mainsV: 230,
					powerFactor,
					marginPercent,
					ratingsA: FUSE_RATINGS_A
				});
				const smaller = FUSE_RATINGS_A.filter((rating) => rating < (fuseA ?? Infinity));
				if (fuseA !== null) expect(fuseA).toBeGreaterThanOrEqual(neededA);
				expect(Math.max(0, ...smaller)).toBeLessThan(neededA);
			})
		);
	});
	it('opens late where the inrush would open a quick fuse', () =>
		expect([fuseCharacteristic(0.5, 20), fuseCharacteristic(0.5, 2)]).toEqual(['T', 'F']));
	it('is never without its caution and the way round it', () => {
		const plan: Plan = {
			...lounge.plan,
			power: {
				...lounge.plan.power,
				inlet: {
					watts: 40,
					powerFactor: 0.6,
					marginPercent: 50,
					inrushA: 20,
					earthed: true,
					strainRelief: true,
					touchSafe: true
				}
			}
		};
		const found = assess(judges, plan, context).findings.filter(({ id }) => id.startsWith('power.inlet'));
		expect(found.map(({ id, level }) => [id, level])).toEqual([['power.inlet-care', 'caution']]);
		expect(found[0]!.fixes[0]!.apply(plan).power.inlet).toBeNull();
	});
});

it('counts the inrush of a part while it plays, and that of the board only when power comes', () => {
	const also = (part: string): Plan => ({
		...lounge.plan,
		parts: { ...lounge.plan.parts, also: [...lounge.plan.parts.also, { part, count: 1 }] }
	});
	const { watts } = pathOf(lounge.plan);
	// The converter's own, 1.2 W against 0.6 W; the board's 10 W do not come while it runs.
	expect(watts.surge).toBeCloseTo(watts.typical + 0.6, 6);
	expect(watts.start).toBeCloseTo(10 + 0.4, 6);
	expect(pathOf(also('drive-ssd-500')).watts.surge).toBeGreaterThan(watts.surge);
});

it('a board that warns before it restarts is told apart from one that is down', () => {
	const board = { brownOutV: 4.3, warnsV: 4.63 };
	expect([goodFromV(board), goodFromV({ ...board, warnsV: null })]).toEqual([4.63, 4.3]);
});

it('a quiet night is on, and not off', () => {
	const use = { onW: 10, quietW: 4, standbyW: 1, onHoursPerDay: 24, quietHoursPerDay: 10, pricePerKwh: 1 };
	expect(computeEnergy(use).kwhPerYear).toBeCloseTo(((14 * 10 + 10 * 4) * 365) / 1000, 9);
	expect(quietHoursPerDay([])).toBe(0);
	const every = { weekdays: [], from: '22:00', until: '07:00' };
	expect(quietHoursPerDay([every])).toBe(9);
	expect(quietHoursPerDay([every, { weekdays: ['Sun'], from: '21:00', until: '23:00' }])).toBeCloseTo(9 + 1 / 7, 9);
	expect(quietHoursPerDay([{ weekdays: ['Sun'], from: '20:00', until: '06:00' }])).toBeCloseTo(10 / 7, 9);
});

it('a year of energy is hours by watts, and a hold-up gives nothing that it cannot', () => {
	expect(computeEnergy({ onW: 10, standbyW: 1, onHoursPerDay: 14, pricePerKwh: 0.5 })).toEqual({
		kwhPerYear: 54.75,
		costPerYear: 27.375
	});
	expect(computeHoldUpSec({ wattHours: 10, efficiency: 0.5, maxW: 15 }, 5)).toBe(3600);
	expect(computeHoldUpSec({ wattHours: 10, efficiency: 0.5, maxW: 15 }, 16)).toBeNull();
});
