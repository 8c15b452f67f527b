import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { migrate } from './migrate';
import { misfit } from './misfit';
import { openWorkshop, reopen } from './open';
import { applyChanges, diff } from './patch';
import { planSchema } from './plan';
import { WORKSHOP_VERSION, workshopSchema } from './workshop';
import { briefSettings } from '../links/brief/settings';

const text = (value: unknown): string => JSON.stringify(value);
const open = (value: string) => openWorkshop(value, 'UTC');

it('has the same links in the chain and in the plan', () =>
	expect(chain.map((link) => link.id).sort()).toEqual(Object.keys(planSchema.shape).sort()));

it('keeps the demo workshop by its own schema', () => expect(workshopSchema.parse(demoWorkshop)).toEqual(demoWorkshop));

/** Every place of a value, and a value with something else at one of them. */
const placesOf = (value: unknown, at: readonly string[] = []): (readonly string[])[] =>
	typeof value !== 'object' || value === null
		? [at]
		: [...(at.length ? [at] : []), ...Object.entries(value).flatMap(([key, inner]) => placesOf(inner, [...at, key]))];
const withJunk = (value: unknown, [key, ...rest]: readonly string[], junk: unknown): unknown => {
	if (key === undefined) return junk;
	const container = value as Record<string, unknown>;
	container[key] = withJunk(container[key], rest, junk);
	return container;
};

describe('opening a workshop', () => {
	it('gives back what was exported', () =>
		expect(open(text(demoWorkshop))).toEqual({
			ok: true,
			value: { workshop: demoWorkshop, damaged: [], remarks: [] }
		}));
	it('keeps what is sound and sets the rest aside untouched', () => {
		const saved = structuredClone(demoWorkshop) as unknown as {
			endpoints: { plan: { sound: { cardId: unknown } } }[];
			parts: unknown[];
		};
		saved.endpoints[1]!.plan.sound.cardId = 7;
		saved.parts[0] = 'a board';
		const opened = open(text(saved));
		if (!opened.ok) throw new Error('not opened');
		expect(opened.value.workshop.endpoints.map((e) => e.id)).toEqual([
			'bunkhouse-lounge',
			'test-bench',
			'lamp-room',
			'ticket-hatch',
			'gallery-wall'
		]);
		expect(opened.value.damaged.map((d) => d.where)).toEqual(['parts[0]', 'endpoints[1]']);
		expect(opened.value.damaged[1]).toMatchObject({
			raw: saved.endpoints[1],
			why: expect.stringContaining('plan.sound.cardId')
		});
	});
	it('survives any one value being replaced by anything', () => {
		const places = placesOf(JSON.parse(text(demoWorkshop)));
		expect(places.length).toBeGreaterThan(500);
		fc.assert(
			fc.property(fc.constantFrom(...places), fc.jsonValue(), (path, junk) => {
				const saved = withJunk(JSON.parse(text(demoWorkshop)), path, junk);
				const opened = open(text(saved));
				if (opened.ok) expect(workshopSchema.safeParse(opened.value.workshop).success).toBe(true);
				else
					expect(['not-a-workshop', 'version-unknown', 'version-newer', 'version-step']).toContain(
						opened.faults[0]!.code
					);
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
	it.each([2, 3, 4, 5, 6, 20, 22])('opens the frozen file of version %i whole, and it stays as it was', (version) => {
		const frozen = readFileSync(resolve(import.meta.dirname, 'fixtures', `version-${version}.json`), 'utf8');
		const opened = open(frozen);
		if (!opened.ok) throw new Error(opened.faults[0]!.message);
		expect(opened.value.damaged).toEqual([]);
		expect(opened.value.remarks).toEqual([]);
		const before = JSON.parse(frozen) as { endpoints: { id: string; plan: { sources: unknown } }[] };
		expect(
			opened.value.workshop.endpoints.map(({ id, plan }) => [
				id,
				{
					...without(plan.sources, 'used', 'carry', 'stores', 'bufferSec', 'pauses', 'rules', 'chooseAt'),
					items: plan.sources.items.map((item) => without(item, 'part'))
				}
			])
		).toEqual(before.endpoints.map(({ id, plan }) => [id, without(plan.sources as object, 'used')]));
		for (const { plan } of opened.value.workshop.endpoints)
			expect([plan.sources.used, plan.sound.used, plan.programme.used]).toEqual([true, true, true]);
	});
	it('brings within bounds what version 5 stored although its own schema refused it', () => {
		const saved = JSON.parse(
			readFileSync(resolve(import.meta.dirname, 'fixtures/version-5.json'), 'utf8')
		) as typeof demoWorkshop & { version: number };
		const [first, second] = saved.endpoints as unknown as Record<string, never>[];
		const list = (first as unknown as { plan: { sources: { items: object[]; header: string[] } } }).plan.sources;
		list.items.push(
			{ id: 's1', location: 'http://a.example/x', title: `T${'x'.repeat(400)}`, durationSec: 0, extra: ['a\tb'] },
			{ id: 'z', location: `http://a.example/${'y'.repeat(3000)}`, title: 'a\ud83c', durationSec: Infinity, extra: [] }
		);
		list.header.push('no comment');
		(first as Record<string, unknown>).id = '../../escaped';
		(second as Record<string, unknown>).id = 'test-bench';
		(second as Record<string, unknown>).written = {
			atUtc: '',
			files: { 'boot/yphos/apply.sh': 'a\nplace 0600 root:root abc etc/x.nmconnection\nb' }
		};
		saved.venue.timeZone = 'europe/oslo';
		saved.media.push(saved.media[0]!);
		const opened = open(text(saved));
		if (!opened.ok) throw new Error(opened.faults[0]!.message);
		const { workshop, damaged } = opened.value;
		expect(damaged).toEqual([]);
		expect(workshop.endpoints.map(({ id }) => id)).toEqual(['escaped', 'test-bench', 'test-bench-2', 'lamp-room']);
		expect(workshop.endpoints[0]!.plan.sources.items.slice(-2)).toMatchObject([
			{ id: 's1-2', durationSec: null, extra: ['#a b'] },
			{ title: 'a', durationSec: null }
		]);
		expect(workshop.endpoints[1]!.written!.files['boot/yphos/apply.sh']).toBe('a\n(kept secret)\nb');
		expect(workshop.venue.timeZone).toBe('Europe/Oslo');
	});
	it('goes step by step and says when a step is missing', () => {
		const steps = { 1: (s: object) => ({ ...s, a: 1 }), 2: (s: object) => ({ ...s, b: 2 }) };
		const saved = { yphos: 'workshop', version: 1 };
		expect(migrate(saved, { steps, versions: { workshop: 3 }, links: [] })).toEqual({
			ok: true,
			value: { yphos: 'workshop', version: 3, links: { workshop: 3 }, a: 1, b: 2 }
		});
		expect(migrate(saved, { steps: {}, versions: { workshop: 2 }, links: [] })).toMatchObject({
			ok: false,
			faults: [{ code: 'version-unknown' }]
		});
	});
});

describe('differences', () => {
	const item = fc.record({ id: fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f', 'g'), n: fc.nat(2) });
	const list = fc.uniqueArray(item, { selector: ({ id }) => id });
	const json = fc.jsonValue({ maxDepth: 4 }).map((value) => JSON.parse(text({ value })) as unknown);
	const anything = fc.oneof(json, list, fc.record({ list, other: json }));
	it('are applied forward and taken back exactly, also after they were saved', () => {
		fc.assert(
			fc.property(anything, anything, (a, b) => {
				const changes = JSON.parse(text(diff(a, b))) as ReturnType<typeof diff>;
				expect(applyChanges(a, changes, 'forward')).toEqual({ ok: true, value: b });
				expect(applyChanges(b, changes, 'back')).toEqual({ ok: true, value: a });
			}),
			{ numRuns: 1000 }
		);
	});
	it('are never applied to anything but what they were made from', () => {
		fc.assert(
			fc.property(list, list, list, (a, b, other) => {
				const done = applyChanges(other, diff(a, b), 'forward');
				// What the changes do not speak of may be otherwise; what they speak of may not.
				if (done.ok) expect(applyChanges(done.value, diff(a, b), 'back')).toEqual({ ok: true, value: other });
			}),
			{ numRuns: 1000 }
		);
		const changes = diff(
			[
				{ id: 'a', n: 1 },
				{ id: 'b', n: 1 }
			],
			[
				{ id: 'a', n: 1 },
				{ id: 'b', n: 2 }
			]
		);
		expect(applyChanges([{ id: 'b', n: 1 }], changes, 'forward')).toEqual({ ok: true, value: [{ id: 'b', n: 2 }] });
		for (const unfit of [[{ id: 'a', n: 1 }], [{ id: 'b', n: 7 }], 'b', null])
			expect(applyChanges(unfit, changes, 'forward').ok).toBe(false);
	});
	it('of a list are as small as what moved, and stand a made-up history', () => {
		const many = Array.from({ length: 5000 }, (_, n) => ({ id: `i${n}` }));
		const moved = [...many.slice(1), many[0]!];
		expect(diff(many, moved)).toEqual([{ path: [], by: 'id', moved: [{ key: 'i0', from: null, to: 'i4999' }] }]);
		const circle = { path: [], by: 'id' as const, moved: [{ key: 'x', to: 'x', value: { id: 'x' } }] };
		expect(applyChanges(many, [circle], 'forward').ok).toBe(false);
	});
});

it('refuses line breaks in what a person types, and takes everything printable', () => {
	const name = briefSettings.shape.name;
	for (const good of [`"quoted" 'and' %d $HOME \\ # ; \u{1f3b5} -n`, '\u00e5\u00e6\u00f8'])
		expect(name.parse(good)).toBe(good);
	for (const bad of ['a\nb', 'a\tb', '\ud83c', '', 'a\ufffeb']) expect(name.safeParse(bad).success).toBe(false);
});

/** A saved endpoint that a test may damage as it likes. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Raw = any;

describe('mending', () => {
	const endpoint = demoWorkshop.endpoints[0]!;
	const damagedBy = (change: (raw: Raw) => void): unknown => {
		const raw = structuredClone(endpoint) as unknown as Record<string, unknown>;
		change(raw);
		return raw;
	};
	const rest = { ...demoWorkshop, endpoints: [] };
	it.each([
		['an entry of the list', (raw) => (raw.plan.sources.items[1].title = 7), 'plan.sources.items.1'],
		['one setting', (raw) => (raw.plan.sound.cardId = {}), 'plan.sound.cardId'],
		['a whole link', (raw) => (raw.plan.network = null), 'plan.network'],
		['a key of a record', (raw) => (raw.done['x'.repeat(300)] = { atUtc: '', reading: '' }), 'done.'],
		['everything derived', (raw) => (raw.written = 'x'), 'written']
	] as [string, (raw: Raw) => void, string][])('loses %s and nothing else', (_, change, where) => {
		const done = reopen(rest, { where: 'endpoints[0]', why: '', raw: damagedBy(change) });
		if (!done.ok) throw new Error(done.faults[0]!.message);
		expect(done.value.changed).toHaveLength(1);
		expect(done.value.changed[0]).toContain(where);
		const back = done.value.workshop.endpoints[0]!;
		expect(back.plan.brief).toEqual(endpoint.plan.brief);
		if (!where.startsWith('plan.sources')) expect(back.plan.sources).toEqual(endpoint.plan.sources);
		else expect(back.plan.sources.items).toHaveLength(endpoint.plan.sources.items.length - 1);
	});
	it('cuts a list that is too long, and says so of what cannot be mended', () => {
		const long = damagedBy((raw) => {
			const [item] = raw.plan.sources.items;
			raw.plan.sources.items = Array.from({ length: 10_002 }, (_, n) => ({ ...item, id: `i${n}` }));
		});
		const done = reopen(rest, { where: 'endpoints[0]', why: '', raw: long });
		expect(done.ok && done.value.workshop.endpoints[0]!.plan.sources.items).toHaveLength(10_000);
		expect(reopen(rest, { where: 'parts[0]', why: '', raw: 'a board' })).toMatchObject({
			ok: false,
			faults: [{ code: 'not-mendable' }]
		});
		expect(reopen(rest, { where: 'history', why: '', raw: [] }).ok).toBe(false);
	});
	it('never gives what the schema refuses, whatever is there', () => {
		fc.assert(
			fc.property(fc.constantFrom(...placesOf(JSON.parse(text(endpoint)))), fc.jsonValue(), (path, junk) => {
				const raw = withJunk(JSON.parse(text(endpoint)), path, junk);
				const done = reopen(rest, { where: 'endpoints[0]', why: '', raw });
				if (done.ok) expect(workshopSchema.safeParse(done.value.workshop).success).toBe(true);
			})
		);
	});
});

it('judges a change by the same schema as a whole workshop', () => {
	fc.assert(
		fc.property(fc.constantFrom(...placesOf(JSON.parse(text(demoWorkshop)))), fc.jsonValue(), (path, junk) => {
			const after = withJunk(JSON.parse(text(demoWorkshop)), path, junk) as typeof demoWorkshop;
			const valid = workshopSchema.safeParse(after).success;
			let refused: string | null;
			try {
				refused = misfit(demoWorkshop, after);
			} catch {
				refused = 'not even a workshop';
			}
			expect(refused === null, String(path)).toBe(valid);
		})
	);
});
