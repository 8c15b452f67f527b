import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { derive } from '../../engines/derive';
import { contextFor } from '../../engines/context';
import type { Plan } from '../../plan/plan';
import { fitThermal } from './fit';
import { computeHeat } from './model';
import { droppedAt, dutyWatts, fanSpeed, resistance, runHeat, type Duty, type ThermalModel } from './thermal';
import { heat as heatLink } from '.';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const model = (part: Partial<ThermalModel> = {}): ThermalModel => ({
	airC: 22,
	chipKPerW: 10,
	caseKPerW: 2,
	jPerK: 50,
	throttleC: 80,
	fan: null,
	...part
});
const duty = (part: Partial<Duty> = {}): Duty => ({ idleW: 2, peakW: 6, share: 0.2, ...part });

describe('a warm body', () => {
	it('settles where what it gives off is what it takes in', () => {
		fc.assert(
			fc.property(number(0, 40), number(2, 20), number(0, 5), number(5, 300), (airC, chip, box, jPerK) => {
				const warm = model({ airC, chipKPerW: chip, caseKPerW: box, jPerK, throttleC: 500 });
				const run = runHeat(warm, duty());
				expect(run.steadyC).toBeCloseTo(airC + dutyWatts(duty()) * (chip + box), 0);
				expect(run.throttlesAfterSec).toBeNull();
			})
		);
	});
	it('reaches 63 % of its rise after one time constant', () => {
		const tau = 12 * 50;
		const at = runHeat(model({ throttleC: 500 }), duty(), tau).moments.at(-1)!;
		expect((at.chipC - 22) / (dutyWatts(duty()) * 12)).toBeCloseTo(1 - Math.exp(-1), 6);
	});
	it('slows itself at its limit, never gets hotter, and drops only what the lower speed cannot do', () => {
		const run = runHeat(model({ caseKPerW: 10 }), duty({ share: 0.9 }));
		expect(run.throttlesAfterSec).toBeGreaterThan(0);
		expect(Math.max(...run.moments.map(({ chipC }) => chipC))).toBeLessThanOrEqual(80.001);
		const slowest = Math.min(...run.moments.slice(-48).map(({ speed }) => speed));
		expect(run.dropped).toBeCloseTo(1 - slowest / 0.9, 6);
		expect(droppedAt(duty({ share: 0.3 }), 0.5)).toBe(0);
		expect(droppedAt(duty({ share: 2 }), 1)).toBe(0.5);
	});
	it('a fan never makes it warmer, and a switched one holds on between its points', () => {
		const fan = { airFactor: 3, control: 'switched' as const, onC: 60, offC: 50 };
		expect([fanSpeed(fan, 55, 0), fanSpeed(fan, 60, 0), fanSpeed(fan, 55, 1), fanSpeed(fan, 50, 1)]).toEqual([
			0, 1, 1, 0
		]);
		expect(fanSpeed({ ...fan, control: 'pwm' }, 55, 0)).toBe(0.5);
		for (const control of ['always', 'switched', 'pwm'] as const)
			expect(runHeat(model({ fan: { ...fan, control } }), duty({ share: 0.8 })).steadyC).toBeLessThanOrEqual(
				runHeat(model(), duty({ share: 0.8 })).steadyC
			);
		expect(resistance(model({ fan }), 1)).toBeCloseTo(10 / 3 + 2, 9);
	});
});

it('what sits on the header warms the air in the case, not the chip', () => {
	const lounge = demoWorkshop.endpoints[0]!;
	const steady = (also: string[], box: string | null): number => {
		const plan: Plan = {
			...lounge.plan,
			parts: { ...lounge.plan.parts, case: box, also: also.map((part) => ({ part, count: 1 })) }
		};
		const here = derive(chain, plan, contextFor(chain, demoWorkshop, lounge.id));
		return computeHeat(plan.heat, here.context, here.claims)!.run.steadyC;
	};
	const [beside, resistanceOfCase] = [0.35, 3.5];
	expect(steady(['relay-one'], null)).toBeCloseTo(steady([], null), 6);
	expect(steady(['relay-one'], 'case-plastic') - steady([], 'case-plastic')).toBeCloseTo(beside * resistanceOfCase, 6);
});

describe('constants from one\u2019s own readings', () => {
	it('come back from readings that the model itself made', () => {
		fc.assert(
			fc.property(number(3, 25), number(15, 200), number(1, 8), number(0.2, 0.6), (kPerW, jPerK, watts, early) => {
				const tauMin = (kPerW * jPerK) / 60;
				const at = (afterMin: number) => ({
					afterMin,
					chipC: 22 + watts * kPerW * (1 - Math.exp(-afterMin / tauMin))
				});
				const fitted = fitThermal([at(tauMin * early), at(tauMin * 3)], 22, watts);
				if (!fitted.ok) throw new Error(fitted.faults[0]!.message);
				expect(fitted.value.kPerW / kPerW).toBeCloseTo(1, 3);
				expect(fitted.value.jPerK / jPerK).toBeCloseTo(1, 2);
				expect(fitted.value.offK).toBeLessThan(0.01);
			})
		);
	});
	it.each([
		['fit-few', [{ afterMin: 5, chipC: 40 }]],
		[
			'fit-same-time',
			[
				{ afterMin: 5, chipC: 40 },
				{ afterMin: 5, chipC: 41 }
			]
		],
		[
			'fit-cold',
			[
				{ afterMin: 5, chipC: 20 },
				{ afterMin: 60, chipC: 50 }
			]
		],
		[
			'fit-falling',
			[
				{ afterMin: 5, chipC: 50 },
				{ afterMin: 60, chipC: 40 }
			]
		]
	])('are refused: %s', (code, readings) =>
		expect(fitThermal(readings, 22, 3)).toMatchObject({ ok: false, faults: [{ code }] })
	);
	it('take the place of typical ones, and the figures say so', () => {
		const lounge = demoWorkshop.endpoints[0]!;
		const context = contextFor(chain, demoWorkshop, lounge.id);
		const readings = [
			{ afterMin: 4, chipC: 38 },
			{ afterMin: 60, chipC: 55 }
		];
		const plan: Plan = { ...lounge.plan, heat: { ...lounge.plan.heat, readings, useReadings: true } };
		const { context: here, claims } = derive(chain, plan, context);
		expect(computeHeat(plan.heat, here, claims)!.run.steadyC).toBeCloseTo(55, 0);
		const steady = heatLink.figures!(plan.heat, here, claims)[0]!;
		expect(steady).toMatchObject({ id: 'steady', sure: 'measured' });
	});
});
