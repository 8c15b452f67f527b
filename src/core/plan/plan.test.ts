import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { migrate } from './migrate';
import { openWorkshop } from './open';
import { applyChanges, diff } from './patch';
import { planSchema } from './plan';
import { WORKSHOP_VERSION, workshopSchema } from './workshop';

const text = (value: unknown): string => JSON.stringify(value);
const open = (value: string) => openWorkshop(value, 'UTC');

it('has the same links in the chain and in the plan', () =>
	expect(chain.map((link) => link.id).sort()).toEqual(Object.keys(planSchema.shape).sort()));

it('keeps the demo workshop by its own schema', () => expect(workshopSchema.parse(demoWorkshop)).toEqual(demoWorkshop));

describe('opening a workshop', () => {
	it('gives back what was exported', () =>
		expect(open(text(demoWorkshop))).toEqual({ ok: true, value: { workshop: demoWorkshop, damaged: [] } }));
	it('keeps what is sound and sets the rest aside untouched', () => {
		const saved = structuredClone(demoWorkshop) as unknown as {
			endpoints: { plan: { sound: { cardId: unknown } } }[];
			parts: unknown[];
		};
		saved.endpoints[1]!.plan.sound.cardId = 7;
		saved.parts[0] = 'a board';
		const opened = open(text(saved));
		if (!opened.ok) throw new Error('not opened');
		expect(opened.value.workshop.endpoints.map((e) => e.id)).toEqual(['bunkhouse-lounge', 'test-bench']);
		expect(opened.value.damaged.map((d) => d.where)).toEqual(['parts[0]', 'endpoints[1]']);
		expect(opened.value.damaged[1]).toMatchObject({
			raw: saved.endpoints[1],
			why: expect.stringContaining('plan.sound.cardId')
		});
	});
	it('survives any one value being replaced by anything', () => {
		const places = diff({}, JSON.parse(text(demoWorkshop)));
		expect(places.length).toBeGreaterThan(3);
		fc.assert(
			fc.property(fc.constantFrom(...places.map((p) => p.path)), fc.jsonValue(), (path, junk) => {
				const saved = applyChanges(JSON.parse(text(demoWorkshop)), [{ path, after: junk }], 'forward');
				const opened = open(text(saved));
				if (opened.ok) expect(workshopSchema.safeParse(opened.value.workshop).success).toBe(true);
				else expect(['not-a-workshop', 'version-unknown', 'version-newer']).toContain(opened.faults[0]!.code);
			})
		);
	});
	it.each([
		['{"yphos":', 'not-json'],
		['{}', 'not-a-workshop'],
		['{"yphos":"workshop"}', 'version-unknown'],
		[text({ ...demoWorkshop, version: WORKSHOP_VERSION + 1 }), 'version-newer']
	])('refuses %#', (saved, code) => expect(open(saved)).toMatchObject({ ok: false, faults: [{ code }] }));
});

describe('migration', () => {
	it('brings a file of version 1, which kept no readings, up to date', () => {
		const old = {
			...demoWorkshop,
			version: 1,
			endpoints: demoWorkshop.endpoints.map(({ done: _, ...endpoint }) => endpoint)
		};
		expect(open(text(old))).toEqual({ ok: true, value: { workshop: demoWorkshop, damaged: [] } });
	});
	it('goes step by step and says when a step is missing', () => {
		const steps = { 1: (s: object) => ({ ...s, a: 1 }), 2: (s: object) => ({ ...s, b: 2 }) };
		expect(migrate({ yphos: 'workshop', version: 1 }, steps, 3)).toEqual({
			ok: true,
			value: { yphos: 'workshop', version: 3, a: 1, b: 2 }
		});
		expect(migrate({ yphos: 'workshop', version: 1 }, {}, 2)).toMatchObject({
			ok: false,
			faults: [{ code: 'version-unknown' }]
		});
	});
});

it('applies a difference forward and takes it back exactly', () => {
	const json = fc.jsonValue({ maxDepth: 4 }).map((value) => JSON.parse(text({ value })) as unknown);
	fc.assert(
		fc.property(json, json, (a, b) => {
			const changes = diff(a, b);
			expect(applyChanges(a, changes, 'forward')).toEqual(b);
			expect(applyChanges(b, [...changes].reverse(), 'back')).toEqual(a);
		})
	);
});

it('refuses line breaks in what a person types, and takes everything printable', () => {
	const name = planSchema.shape.brief.shape.name;
	for (const good of [`"quoted" 'and' %d $HOME \\ # ; \u{1f3b5} -n`, '\u00e5\u00e6\u00f8'])
		expect(name.parse(good)).toBe(good);
	for (const bad of ['a\nb', 'a\tb', '\ud83c', '']) expect(name.safeParse(bad).success).toBe(false);
});
