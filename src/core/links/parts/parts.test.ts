import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { derive } from '../../engines/derive';
import { assess } from '../../engines/assess';
import { contextFor } from '../../engines/context';
import type { Plan } from '../../plan/plan';
import { rankBoards } from './chooser';
import { computeJoints } from './joints';

const lounge = demoWorkshop.endpoints[0]!;
const context = contextFor(chain, demoWorkshop, lounge.id);
const withParts = (parts: Partial<Plan['parts']>, also: string[] = [], brief: Partial<Plan['brief']> = {}): Plan => ({
	...lounge.plan,
	brief: { ...lounge.plan.brief, ...brief },
	parts: { ...lounge.plan.parts, also: also.map((part) => ({ part, count: 1 })), ...parts }
});
const joint = (plan: Plan, to: string, cargo?: string) =>
	computeJoints(plan.parts, context).find((known) => known.to.id === to && (!cargo || known.cargo === cargo))!;
const names = (leads: readonly { id: string }[] | null) => leads?.map(({ id }) => id) ?? null;

describe('what meets what', () => {
	it('finds the leads at hand, and plugs that meet without one', () => {
		expect(computeJoints(lounge.plan.parts, context).every(({ by }) => by !== null)).toBe(true);
		expect(names(joint(lounge.plan, 'conv-usb-96').by)).toEqual(['lead-usb-b']);
		expect(names(joint(lounge.plan, 'board-full-4').by)).toEqual([]);
	});
	it.each([
		['a lead', { supply: 'supply-5-3-open' }, 'board-full-4', ['lead-c-c-1']],
		[
			'an adapter and a lead',
			{ board: 'board-small-512', screen: 'screen-1080' },
			'screen-1080',
			['lead-mini-display-2']
		],
		[
			'two in a row',
			{ screen: 'screen-43-analogue', board: 'board-media-2' },
			'screen-43-analogue',
			['lead-vga-2', 'adapter-display-vga']
		]
	])('says what is missing: %s', (_, parts, to, missing) => {
		const found = joint(withParts(parts), to);
		expect(found.by).toBeNull();
		expect(names(found.missing)!.sort()).toEqual([...missing].sort());
	});
	it('a fix adds what is missing, until nothing is', () => {
		let plan = withParts({ supply: 'supply-5-2', board: 'board-full-1', screen: 'screen-1080' });
		for (let n = 0; n < 8; n++) {
			const gap = assess(judges, plan, context).findings.find((f) => f.id.startsWith('parts.joint'));
			if (!gap) break;
			plan = gap.fixes[0]!.apply(plan);
		}
		expect(computeJoints(plan.parts, context).every(({ by }) => by !== null)).toBe(true);
		expect(plan.parts.lead).toMatch(/^lead-a-micro/);
	});
	it('uses each lead once, each socket once, and says when none is left', () => {
		const board = { board: 'board-half-512', converter: 'conv-usb-16' };
		const full = joint(withParts(board, ['stick-64']), 'stick-64');
		expect(full).toMatchObject({ by: null, missing: null, full: true });
		const finding = assess(judges, withParts(board, ['stick-64']), context).findings.find((f) =>
			f.title.startsWith('No socket is left')
		)!;
		expect(joint(finding.fixes[0]!.apply(withParts(board, ['stick-64'])), 'stick-64').by).toEqual([]);
		const two = withParts({ screen: 'screen-1080' }, ['lead-micro-display-2']);
		expect(names(joint(two, 'screen-1080').by)).toEqual(['lead-micro-display-2']);
	});
	it('knows that analogue video carries no sound, and no touch comes without its own lead', () => {
		const analogue = withParts(
			{
				screen: 'screen-43-analogue',
				board: 'board-media-2',
				converter: 'conv-display',
				amplifier: null,
				speakers: null
			},
			['adapter-display-vga', 'lead-vga-2']
		);
		expect(joint(analogue, 'screen-43-analogue').lost).toEqual(['sound']);
		const titles = assess(judges, analogue, context).findings.map(({ title }) => title);
		expect(titles).toContain('This way to the screen carries no sound');
		const touch = withParts({ screen: 'screen-touch-10' }, ['lead-micro-display-2']);
		expect(names(joint(touch, 'screen-touch-10', 'touch').missing)).toEqual(['lead-usb-b']);
	});
	it('says plainly when there is no way, and offers another end', () => {
		const plan = withParts({ converter: 'conv-usb-optical', amplifier: 'amp-mono' });
		const finding = assess(judges, plan, context).findings.find((f) => f.title.includes('cannot be joined'))!;
		expect(finding.level).toBe('stop');
		const mended = finding.fixes[0]!.apply(plan);
		expect(joint(mended, mended.parts.amplifier!).missing).not.toBeNull();
	});
});

const ranks = (plan: Plan) => rankBoards(plan.parts, derive(chain, plan, context).context);

describe('which board does it', () => {
	const film = { codec: 'h265', widthPx: 3840, heightPx: 2160, framesPerSec: 50, bitDepth: 10 } as const;
	it('puts those that fit first, the cheapest first, and says by how much the others do not', () => {
		const ranked = ranks(withParts({}, [], { kind: 'film', video: film }));
		const fits = ranked.map((known) => known.fits);
		expect(fits).toEqual([...fits].sort((a, b) => Number(b) - Number(a)));
		const prices = ranked.filter((known) => known.fits).map(({ board }) => board.price!);
		expect(prices).toEqual([...prices].sort((a, b) => a - b));
		const small = ranked.find(({ board }) => board.id === 'board-small-512')!;
		expect(small.reasons.filter(({ good }) => !good).map(({ words }) => words)).toEqual([
			'188\u2009MB of memory short of 700',
			expect.stringMatching(/no circuit for H\.265; its processors are \d+\.\d times too slow/),
			'no Ethernet socket'
		]);
	});
	it('asks for what the parts need: sockets, header, jack', () => {
		const reason = (plan: Plan, id: string, what: string) =>
			ranks(plan)
				.find(({ board }) => board.id === id)!
				.reasons.find((known) => known.what === what);
		expect(reason(withParts({ converter: 'conv-header-192' }), 'board-desk-8', 'header')?.good).toBe(false);
		expect(reason(withParts({ converter: 'conv-jack' }), 'board-fast-4', 'sound')?.good).toBe(false);
		expect(reason(withParts({}, ['stick-64']), 'board-half-512', 'USB')?.words).toBe('1 USB socket short');
	});
});
