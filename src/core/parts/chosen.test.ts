import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { contextFor } from '../engines/context';
import { planSchema, type Plan } from '../plan/plan';
import { catalogue } from './catalogue';
import { addPart, chosenIds, chosenParts, clockOf, replacePart } from './chosen';

const { plan } = demoWorkshop.endpoints[0]!;
const context = contextFor(demoWorkshop, demoWorkshop.endpoints[0]!.id);
const ids = fc.constantFrom(...catalogue.map(({ id }) => id));
const counted = (p: Plan) => new Map(chosenIds(p).map(({ id, count }) => [id, count]));

describe('the parts of a plan', () => {
	it('come in more of one kind without a second row, and never more than the plan may hold', () =>
		fc.assert(
			fc.property(fc.array(fc.tuple(ids, fc.integer({ min: 1, max: 30 })), { maxLength: 12 }), (added) => {
				const after = added.reduce((p, [id, count]) => addPart(p, id, Math.min(20, count)), plan);
				const rows = after.parts.also.map(({ part }) => part);
				expect(new Set(rows).size).toBe(rows.length);
				expect(planSchema.safeParse(after).success).toBe(true);
				for (const [id] of added) expect(rows).toContain(id);
			})
		));
	it('are replaced wherever they stand, and back again', () =>
		fc.assert(
			fc.property(ids, (to) => {
				fc.pre(!counted(plan).has(to));
				for (const from of counted(plan).keys()) {
					const there = replacePart(plan, from, to);
					expect(counted(there).has(from)).toBe(false);
					expect(counted(there).get(to)).toBe(counted(plan).get(from));
					expect(replacePart(there, to, from)).toEqual(plan);
				}
			}),
			{ numRuns: 30 }
		));
	it('are taken out by nothing in their place', () => {
		for (const id of counted(plan).keys()) {
			const without = replacePart(plan, id, null);
			expect([...counted(without).keys()]).toEqual([...counted(plan).keys()].filter((known) => known !== id));
			expect(planSchema.safeParse(without).success).toBe(true);
		}
	});
	it('are passed over when no drawer has them', () => {
		const lost = addPart(plan, 'thrown-away');
		expect(chosenIds(lost)).toHaveLength(chosenIds(plan).length + 1);
		expect(chosenParts(lost, context)).toHaveLength(chosenParts(plan, context).length);
	});
	it('have a clock when one is on the header', () => {
		expect(clockOf(plan, context)).toBeNull();
		expect(clockOf(addPart(plan, 'clock-i2c'), context)?.keepsTime).toBe(true);
	});
});
