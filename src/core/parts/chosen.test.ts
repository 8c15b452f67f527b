import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { contextFor } from '../engines/context';
import { planSchema, type Plan } from '../plan/plan';
import { catalogue } from './catalogue';
import { chain } from '../chain';
import { derive } from '../engines/derive';
import { partsChanges } from '../links/parts/change';
import { chosenIds, chosenOf, clockOf } from './chosen';

const { addPart, replacePart } = partsChanges;

const { plan } = demoWorkshop.endpoints[0]!;
const context = contextFor(chain, demoWorkshop, demoWorkshop.endpoints[0]!.id);
const seen = (p: Plan) => derive(chain, p, context).context;
const ids = fc.constantFrom(...catalogue.map(({ id }) => id));
const counted = (p: Plan) => new Map(chosenIds(p.parts).map(({ id, count }) => [id, count]));

describe('the parts of a plan', () => {
	it('come in more of one kind without a second row, and never more than the plan may hold', () =>
		fc.assert(
			fc.property(fc.array(fc.tuple(ids, fc.integer({ min: 1, max: 30 })), { maxLength: 12 }), (added) => {
				const after = added.reduce((p, [id, count]) => addPart(id, Math.min(20, count))(p), plan);
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
					const there = replacePart(from, to)(plan);
					expect(counted(there).has(from)).toBe(false);
					expect(counted(there).get(to)).toBe(counted(plan).get(from));
					expect(replacePart(to, from)(there)).toEqual(plan);
				}
			}),
			{ numRuns: 30 }
		));
	it('are taken out by nothing in their place', () => {
		for (const id of counted(plan).keys()) {
			const without = replacePart(id, null)(plan);
			expect([...counted(without).keys()]).toEqual([...counted(plan).keys()].filter((known) => known !== id));
			expect(planSchema.safeParse(without).success).toBe(true);
		}
	});
	it('are passed over when no drawer has them', () => {
		const lost = addPart('thrown-away')(plan);
		expect(chosenIds(lost.parts)).toHaveLength(chosenIds(plan.parts).length + 1);
		expect(chosenOf(lost.parts, context)).toHaveLength(chosenOf(plan.parts, context).length);
	});
	it('have a clock when one is on the header', () => {
		expect(clockOf(seen(plan))).toBeNull();
		expect(clockOf(seen(addPart('clock-i2c')(plan)))?.keepsTime).toBe(true);
	});
});
