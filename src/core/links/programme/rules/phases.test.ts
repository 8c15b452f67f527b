import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../../demo/workshop';
import { dayFacts } from '../../../basics/calendar';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { assess } from '../../../engines/assess';
import { contextFor } from '../../../engines/context';
import { derive } from '../../../engines/derive';
import { wallClockMs } from '../../../formats/systemd/zone';
import { programmeBook } from '../../../onAir/book';
import { isOfDay } from '../../../onAir/item';
import { itemsOf } from '../../../onAir/items';
import { onAirAt } from '../../../onAir/onAir';
import type { Plan } from '../../../plan/plan';
import { dayPartsOf } from './dayParts';
import { listFigures } from '../lists/listLength';
import { phasesOf, piecesOf } from './phases';
import { newList, newRule, type ProgrammeList } from '../../../onAir/when';

const ID = 'bunkhouse-lounge';
const { plan: lounge } = demoWorkshop.endpoints.find(({ id }) => id === ID)!;
const around = contextFor(chain, demoWorkshop, ID);
const list: ProgrammeList = {
	...newList('advent', 'Advent'),
	items: ['s1', 's2', 's3', 's1'],
	valid: [
		{ item: 's1', from: '2026-12-01', until: '2026-12-24' },
		{ item: 's3', from: '', until: '2026-12-06' },
		{ item: 's9', from: '2027-01-01', until: '' }
	]
};
const planWith = (one: ProgrammeList): Plan => ({
	...lounge,
	programme: {
		...lounge.programme,
		quiet: [],
		lists: [one],
		rules: [
			{
				...newRule('day', one.id, 'By day'),
				from: { at: 'clock', time: '20:00', offsetMin: 0 },
				until: { at: 'clock', time: '06:00', offsetMin: 0 }
			}
		],
		otherwise: 'rest'
	}
});

describe('entries of some days', () => {
	it('make whiles in which the same ones are on', () => {
		expect(phasesOf(list)).toEqual([
			{ from: '', items: ['s2', 's3'] },
			{ from: '2026-12-01', items: ['s1', 's2', 's3', 's1'] },
			{ from: '2026-12-07', items: ['s1', 's2', 's1'] },
			{ from: '2026-12-25', items: ['s2'] }
		]);
		expect(phasesOf({ items: ['a', 'b'], valid: [] })).toEqual([{ from: '', items: ['a', 'b'] }]);
		expect(phasesOf({ items: ['a'], valid: [{ item: 'a', from: '2026-12-01', until: '' }] })).toEqual([
			{ from: '2026-12-01', items: ['a'] }
		]);
	});
	it('are cut at midnight of the venue for open players, and each part has its own entries', () => {
		const plan = planWith(list);
		const { context } = derive(chain, plan, around);
		const book = programmeBook(plan.programme, { ...context.venue, timeZone: 'Pacific/Auckland' });
		const items = (show: string) => itemsOf(show, plan.programme, context);
		const [from, until] = [Date.parse('2026-11-28T00:00:00Z'), Date.parse('2026-12-28T00:00:00Z')];
		const pieces = piecesOf(book, items, from, until);
		for (let at = from; at < until; at += 600_000) {
			const { show } = onAirAt(book, at);
			const { ymd } = dayFacts(Math.floor(wallClockMs(book.zone, at) / 86_400_000));
			const piece = pieces.findLast((one) => one.fromUtcMs <= at)!;
			expect([piece.show, piece.items.map(({ id }) => id)], new Date(at).toISOString()).toEqual([
				show,
				items(show)
					.filter((item) => isOfDay(item, ymd))
					.map(({ id }) => id)
			]);
		}
		const files = dayPartsOf({ name: 'x', book, items, placeOf: ({ location }) => location }, from, until);
		const lists = files
			.filter(({ path }) => path.endsWith('.m3u8'))
			.map(({ text }) => text.match(/^#EXTINF/gm)!.length);
		expect(lists.sort()).toEqual([1, 2, 3, 4]);
	});
	it('have a length by the day', () => {
		const text = (one: ProgrammeList): string => {
			const plan = planWith(one);
			return listFigures(plan.programme, derive(chain, plan, around).context)[0]!.text;
		};
		expect(text(list)).toMatch(/ to .* by the day$/);
		expect(text({ ...list, valid: [] })).not.toContain('by the day');
	});
	it('meet wishes on each of their days, or it is said from which on they do not; one order helps on all', () => {
		const found = (one: Plan) =>
			assess(judges, one, around).findings.filter(({ id }) => id.startsWith('programme.wish-'));
		const plan = planWith({
			...list,
			items: ['s1', 's2', 's3'],
			valid: [{ item: 's3', from: '2026-12-07', until: '' }],
			wishes: [{ item: 's2', perHour: null, percent: 40, apartFrom: [] }]
		});
		const [finding, ...others] = found(plan);
		expect(others).toEqual([]);
		expect(finding!.title).toMatch(/^From 2026-12-07: .* has 1.% of the time; 40/);
		const cured = finding!.fixes[0]!.apply(plan);
		expect(cured.programme.lists[0]!.items.length).toBeGreaterThan(3);
		expect(found(cured)).toEqual([]);
	});
	it('whose wishes no one order meets on all days are told so, and no order is offered', () => {
		const plan = planWith({
			...list,
			items: ['s1', 's2', 's3', 's2'],
			valid: [{ item: 's3', from: '', until: '2026-12-06' }],
			wishes: [{ item: 's2', perHour: null, percent: null, apartFrom: ['s2'] }]
		});
		const finding = assess(judges, plan, around).findings.find(({ id }) => id.startsWith('programme.wish-'))!;
		expect(finding.title).toContain('From 2026-12-07');
		for (const { label, apply } of finding.fixes.filter((one) => one.label.startsWith('Arrange')))
			expect(
				assess(judges, apply(plan), around).findings.map(({ id }) => id),
				label
			).not.toContain(finding.id);
	});
});
