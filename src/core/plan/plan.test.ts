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
		expect(opened.value.workshop.endpoints.map((e) => e.id)).toEqual(['bunkhouse-lounge', 'test-bench', 'lamp-room']);
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
	const without = (value: object, ...keys: string[]): object =>
		Object.fromEntries(Object.entries(value).filter(([key]) => !keys.includes(key)));
	/** The lounge as version 2 kept it: all parts in the workshop, the lead as two numbers. */
	const old = (version: 1 | 2) => {
		const [{ plan, ...lounge }] = structuredClone(demoWorkshop.endpoints) as [(typeof demoWorkshop.endpoints)[number]];
		const { board, supply, card, converter, amplifier, speakers } = plan.parts;
		return {
			yphos: 'workshop',
			version,
			venue: { name: 'Skerrin Light', timeZone: 'Atlantic/Faroe', currency: 'EUR' },
			parts: [
				{ kind: 'supply', id: 'supply-5-3', name: 'Shipped', sure: 'standard', price: 9, volts: 5.1, amperes: 3 },
				{
					kind: 'converter',
					id: 'mine',
					name: 'My own converter',
					sure: 'measured',
					price: null,
					joint: 'usb',
					playback: { ratesHz: [48000], formats: ['S16_LE'], channels: [2] },
					fullScaleVrms: 1,
					volts: 5,
					milliamperes: 200,
					readySec: 1,
					volume: null
				}
			],
			media: [],
			endpoints: [
				{
					...lounge,
					...(version === 1 ? { done: undefined } : {}),
					plan: {
						...without(plan, 'header', 'heat'),
						brief: without(plan.brief, 'kind', 'video'),
						parts: { board, supply, card, converter, amplifier, speakers },
						power: { leadLengthM: 1.5, leadAreaMm2: 0.2 }
					}
				}
			]
		};
	};
	it.each([1, 2] as const)('brings a file of version %i up to date', (version) => {
		const opened = open(text(old(version)));
		if (!opened.ok) throw new Error('not opened');
		const { workshop, damaged } = opened.value;
		expect(damaged).toEqual([]);
		expect(workshop.parts.map(({ id }) => id)).toEqual(['mine', 'lead-of-bunkhouse-lounge']);
		expect(workshop.parts[0]).toMatchObject({ draw: { via: 'usb', peakW: 1 } });
		expect(workshop.parts[1]).toMatchObject({ kind: 'lead', lengthM: 1.5, areaMm2: 0.2 });
		expect(workshop.endpoints[0]!.plan.parts).toMatchObject({
			board: 'board-full-4',
			lead: 'lead-of-bunkhouse-lounge',
			also: []
		});
		expect(workshop.endpoints[0]!.done).toEqual({});
	});
	it('leaves updates by hand where nobody had chosen, and changes nothing else of version 4', () => {
		const endpoints = demoWorkshop.endpoints.map(({ plan, ...rest }) => ({
			...rest,
			plan: { ...plan, network: without(plan.network, 'updates') }
		}));
		const opened = open(text({ ...demoWorkshop, version: 4, endpoints }));
		if (!opened.ok) throw new Error('not opened');
		const now = opened.value.workshop;
		expect(now.endpoints.map(({ plan }) => plan.network.updates.nightly)).toEqual(now.endpoints.map(() => false));
		expect(now.endpoints.map(({ plan }) => without(plan.network, 'updates'))).toEqual(
			endpoints.map(({ plan }) => plan.network)
		);
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
