import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { assess } from '../../engines/assess';
import { contextFor } from '../../engines/context';
import { catalogue } from '../../parts/catalogue';
import type { Plan } from '../../plan/plan';
import { computeOccupancy, takingsOf, unreliable, type HeaderUser } from './occupancy';

const lamp = demoWorkshop.endpoints.find(({ id }) => id === 'lamp-room')!;
const context = contextFor(chain, demoWorkshop, lamp.id);
const userOf = (id: string, lines: number[] = []): HeaderUser => {
	const part = catalogue.find((known) => known.id === id)!;
	return { id, name: part.name, use: part.header!, lines };
};
const onHeader = catalogue.filter((part) => part.header).map((part) => part.id);
const kinds = (ids: string[], lifts = 9): string[] =>
	computeOccupancy(
		ids.map((id) => userOf(id)),
		lifts
	).conflicts.map(({ kind }) => kind);

describe('who takes which pins', () => {
	it('says each line once for each part, and free lines are those that nobody takes', () => {
		fc.assert(
			fc.property(fc.array(fc.constantFrom(...onHeader), { maxLength: 5 }), (ids) => {
				const { takings, freeLines } = computeOccupancy(
					ids.map((id) => userOf(id)),
					0
				);
				const taken = new Set(takings.map(({ line }) => line));
				expect(freeLines.some((line) => taken.has(line))).toBe(false);
				expect(new Set([...taken, ...freeLines, 0, 1]).size).toBe(28);
			})
		);
		for (const id of onHeader) {
			const lines = takingsOf(userOf(id)).map(({ line }) => line);
			expect(new Set(lines).size, id).toBe(lines.length);
		}
	});
	it('does not care in which order they sit', () => {
		fc.assert(
			fc.property(fc.array(fc.constantFrom(...onHeader), { maxLength: 4 }), (ids) => {
				expect(kinds([...ids].reverse()).sort()).toEqual(kinds(ids).sort());
			})
		);
	});
	it.each([
		['one alone', ['conv-header-192'], []],
		['two clocks of sound, of identity, at two addresses', ['conv-header-192', 'conv-optical'], ['line', 'id-memory']],
		['a bus with different addresses', ['clock-i2c', 'strip-display'], []],
		['a bus with the same address', ['clock-i2c', 'clock-i2c'], ['address']],
		['PWM where the sound clock is', ['conv-header-small', 'fan-5-pwm'], ['line']],
		['a display beside what single wires need', ['ladder-666', 'remote-eye'], ['line']]
	])('%s', (_, ids, expected) => expect(kinds(ids).sort()).toEqual([...expected].sort()));
	it('names one who cannot turn for want of PWM, and everybody who cannot be relied on', () => {
		const { conflicts } = computeOccupancy([userOf('fan-5-pwm', [22]), userOf('clock-i2c')], 0);
		expect(conflicts).toMatchObject([{ kind: 'no-pwm', line: 22 }]);
		expect([...unreliable(conflicts)]).toEqual(['fan-5-pwm']);
	});
	it('wants a stacking header for each lid below the top', () => {
		expect(kinds(['conv-header-192', 'clock-i2c'], 0)).toEqual(['no-room']);
		expect(kinds(['conv-header-192', 'clock-i2c'], 1)).toEqual([]);
		expect(kinds(['clock-i2c', 'fan-5-always'], 0)).toEqual([]);
	});
});

it('the lamp room with two add-ons for the same pins comes right by its own fixes', () => {
	let plan: Plan = lamp.plan;
	const stops = () => assess(judges, plan, context).findings.filter((f) => f.link === 'header' && f.level === 'stop');
	expect(stops().length).toBeGreaterThan(1);
	for (let n = 0; n < 6 && stops().length; n++) plan = stops()[0]!.fixes[0]!.apply(plan);
	expect(stops()).toEqual([]);
	expect(plan.parts.converter).toBe('conv-usb-96');
});
