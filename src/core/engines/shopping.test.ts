import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { readPart } from '../parts/file';
import type { Workshop } from '../plan/workshop';
import { costOfUse, shoppingCsv, shoppingList } from './shopping';

// What the figures below were counted for.
const all = demoWorkshop.endpoints.slice(0, 4).map(({ id }) => id);
const line = (workshop: Workshop, ids: string[], part: string) =>
	shoppingList(chain, workshop, ids).lines.find((known) => known.part.id === part);

describe('the shopping list', () => {
	it('merges kinds over endpoints and takes off what is there', () => {
		expect(line(demoWorkshop, all, 'board-full-4')).toMatchObject({
			needed: 2,
			there: 0,
			toBuy: 2,
			cost: 124,
			forWhom: ['Bunkhouse lounge', 'Test bench']
		});
		expect(line(demoWorkshop, all, 'lead-speaker-5')).toMatchObject({ needed: 3, there: 2, toBuy: 1 });
		expect(line(demoWorkshop, ['test-bench'], 'board-full-4')).toMatchObject({ needed: 1 });
	});
	it('adds up, shipping once and only when something is bought', () => {
		const list = shoppingList(chain, demoWorkshop, all);
		const sum = list.lines.reduce((total, { toBuy, part }) => total + toBuy * (part.price ?? 0), 0);
		expect(list.partsCost).toBeCloseTo(sum, 9);
		expect(list.total).toBeCloseTo(sum + 10.9, 9);
		const owned = Object.fromEntries(list.lines.map(({ part, needed }) => [part.id, needed]));
		expect(shoppingList(chain, { ...demoWorkshop, owned }, all)).toMatchObject({ total: 0, shippingCost: 0, kits: [] });
	});
	it('holds a kit against its contents apart', () => {
		const [offer] = shoppingList(chain, demoWorkshop, all).kits;
		expect(offer).toMatchObject({ kit: { id: 'kit-full-4' }, unneeded: ['lead-micro-display-2'] });
		expect(offer!.saving).toBeCloseTo(offer!.apart - 89, 9);
		// Two boards are wanted, and a kit brings one: the second is bought bare.
		expect(offer!.apart).toBe(62 + 9 + 8 + 8 + 2);
	});
	it('says how many have no price', () => {
		const read = readPart({ ...demoWorkshop.parts[0], id: 'case-vented', name: 'Found case', price: null });
		if (!read.ok) throw new Error('bad part');
		const workshop = { ...demoWorkshop, parts: [...demoWorkshop.parts, read.value] };
		expect(shoppingList(chain, workshop, ['bunkhouse-lounge'])).toMatchObject({ unpriced: 1 });
	});
	it('is a table that a spreadsheet reads, and runs nothing there', () => {
		const named = structuredClone(demoWorkshop);
		named.endpoints[0]!.plan.brief.name = '=1+1, "lounge"';
		const rows = shoppingCsv(shoppingList(chain, named, ['bunkhouse-lounge']), named).split('\r\n');
		expect(rows[0]).toBe('part,needed,there already,to buy,each EUR,together EUR,for');
		expect(rows[1]).toBe(`"Full-size board, 4 GB, two micro HDMI ports",1,0,1,62.00,62.00,"'=1+1, ""lounge"""`);
		expect(rows.at(-2)).toMatch(/^total,,,,,\d+\.\d\d,$/);
	});
	it('tells what a year of use costs with the venue\u2019s tariff', () => {
		const [use] = costOfUse(chain, demoWorkshop, ['test-bench']);
		expect(use!.costPerYear).toBeCloseTo(use!.kwhPerYear * 0.31, 9);
		expect(use!.kwhPerYear).toBeGreaterThan(20);
	});
});
