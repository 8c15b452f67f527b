import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { WORKSHOP_VERSION } from '$core/plan/workshop';
import { disk, stubPage } from './fakeBrowser';
import type { store as firstStore } from './workshop.svelte';

vi.mock('localforage', async () => ({ default: (await import('./fakeBrowser')).fakeForage }));

/** A fresh tab: the module anew, the storage as it is. */
async function tab() {
	vi.resetModules();
	const { store } = await import('./workshop.svelte');
	tabs.push(store);
	await store.open();
	return store;
}
type Store = typeof firstStore;
const tabs: Store[] = [];
const rename = (store: Store, name: string): string | null =>
	store.change('rename', (workshop) => ({ ...workshop, venue: { ...workshop.venue, name } }));
const nameOf = (store: Store): string => store.workshop!.venue.name;
const storedName = (): unknown =>
	(disk.get('workshop') as { workshop?: { venue?: { name?: unknown } } } | undefined)?.workshop?.venue?.name;
const stored = (workshop: unknown, more: object = {}): void =>
	disk.set('workshop', { revision: 3, tab: 'x', savedUtc: '2026-11-24T10:00:00Z', workshop, ...more });
const asides = () => (disk.get('kept-aside') ?? []) as { where: string; raw: unknown }[];

beforeEach(() => {
	disk.reset();
	disk.browser++;
	stubPage();
});
// What a tab still has to save is not for the next test's disk.
afterEach(async () => {
	Object.assign(disk, { full: false, shut: false });
	// Twice: one that was failing just then would try again in two seconds, on another test's disk.
	const open = tabs.splice(0);
	for (let n = 0; n < 2; n++) await Promise.all(open.map((store) => store.flush()));
});

/** What a page does before it is closed: whatever it meant to try again later goes with its clock. */
async function thenClosed<T>(doing: () => Promise<T>): Promise<void> {
	vi.useFakeTimers();
	try {
		let isOver = false;
		const work = doing().finally(() => (isOver = true));
		while (!isOver) await vi.advanceTimersByTimeAsync(10);
		await work;
	} finally {
		vi.useRealTimers();
		tabs.splice(0);
	}
}

describe('the workshop of a browser', () => {
	it('begins with the demo and saves nothing before something is changed', async () => {
		const store = await tab();
		await store.flush();
		expect(store.workshop).toEqual(demoWorkshop);
		expect(disk.get('workshop')).toBeUndefined();
	});

	it('undoes and does again, also after the page was closed', async () => {
		const first = await tab();
		rename(first, 'Tern Light');
		await first.flush();
		const second = await tab();
		expect(nameOf(second)).toBe('Tern Light');
		second.undo();
		expect(nameOf(second)).toBe('Skerrin Light');
		second.redo();
		expect(nameOf(second)).toBe('Tern Light');
		second.undo();
		rename(second, 'Auk Light');
		expect(second.history.redo).toEqual([]);
	});

	it('asks once which media are here, and not at every key', async () => {
		const media = demoWorkshop.media.map((one) => ({ ...one, kept: 'browser' as const }));
		stored({ ...demoWorkshop, media });
		const store = await tab();
		for (const name of ['T', 'Te', 'Ter', 'Tern']) rename(store, name);
		await store.flush();
		expect(store.absent.size).toBe(media.length);
		expect(disk.listed.filter((name) => name === 'media')).toHaveLength(1);
	});

	it('gives the page time between many records, not between few, nor when nobody looks', async () => {
		const idle = vi.fn((then: () => void) => void setTimeout(then));
		vi.stubGlobal('requestIdleCallback', idle);
		const store = await tab();
		const withMore = (many: number): string | null =>
			store.change('more', (workshop) => ({
				...workshop,
				endpoints: Array.from({ length: many }, (_, n) => {
					const { plan } = demoWorkshop.endpoints[0]!;
					return { ...demoWorkshop.endpoints[0]!, id: `e${many}-${n}`, plan: { ...plan, brief: { ...plan.brief } } };
				})
			}));
		rename(store, 'Tern Light');
		await store.flush();
		expect(idle).not.toHaveBeenCalled();
		expect(withMore(20)).toBeNull();
		await store.flush();
		expect(idle).toHaveBeenCalledTimes(20);
		vi.stubGlobal('document', { addEventListener: () => {}, hidden: true });
		expect(withMore(30)).toBeNull();
		await store.flush();
		expect(idle).toHaveBeenCalledTimes(20);
		expect((await tab()).workshop?.endpoints).toHaveLength(30);
	});

	it('takes typing without a pause as one step, and other places as others', async () => {
		const store = await tab();
		for (const name of ['T', 'Te', 'Ter', 'Tern']) rename(store, name);
		store.change('rename', (workshop) => ({ ...workshop, venue: { ...workshop.venue, currency: 'NOK' } }));
		expect(store.history.undo).toHaveLength(2);
		store.undo();
		store.undo();
		expect(store.workshop).toEqual(demoWorkshop);
	});

	it('notes no step for a change that changes nothing', async () => {
		const store = await tab();
		rename(store, 'Skerrin Light');
		expect(store.history.undo).toHaveLength(0);
	});

	it('offers to take back what it speaks of, and nothing that came after it', async () => {
		const store = await tab();
		rename(store, 'Tern');
		store.offerUndo('Renamed.');
		expect(store.message).toMatchObject({ text: 'Renamed.', undo: true });
		rename(store, 'Gull');
		expect(store.message).toBeNull();
		store.said = 'Saved';
		expect(store.message).toMatchObject({ text: 'Saved', undo: false });
	});

	it('keeps at most 200 steps', async () => {
		const store = await tab();
		for (let n = 0; n < 230; n++)
			store.change(`rename ${n}`, (workshop) => ({ ...workshop, venue: { ...workshop.venue, name: `Light ${n}` } }));
		expect(store.history.undo).toHaveLength(200);
		store.undo();
		expect(nameOf(store)).toBe('Light 228');
	});

	it('refuses by name what its schema refuses, and is as it was', async () => {
		const store = await tab();
		const refused = store.changePlan('test-bench', 'a list', (plan) => ({
			...plan,
			sources: {
				...plan.sources,
				items: [{ id: 'a', location: 'http://a.example/x', title: '', durationSec: 0, extra: [], part: null }]
			}
		}));
		expect(refused).toContain('items.0.durationSec');
		expect(store.workshop).toEqual(demoWorkshop);
		expect(store.problem).toContain('Nothing was changed');
		const [first] = demoWorkshop.endpoints;
		expect(store.change('twice', (w) => ({ ...w, endpoints: [...w.endpoints, first!] }))).toContain('same id');
		expect(store.change('id', (w) => ({ ...w, endpoints: [{ ...first!, id: '../../escaped' }] }))).toContain('id');
	});
});

describe('saving', () => {
	it('goes on while somebody types without a rest, one save at a time, and ends with the last key', async () => {
		const store = await tab();
		// In the clock's own time, so that a busy machine changes nothing.
		vi.useFakeTimers();
		let seen = 0;
		for (let key = 1; key <= 40; key++) {
			rename(store, `Light ${key}`);
			await vi.advanceTimersByTimeAsync(5);
			const saved = Number(/\d+$/.exec(String(storedName() ?? 'x 0'))![0]);
			expect(saved).toBeGreaterThanOrEqual(seen);
			if (key > 20) expect(key - saved).toBeLessThan(12);
			seen = saved;
		}
		const saved = store.flush();
		await vi.advanceTimersByTimeAsync(1000);
		await saved;
		vi.useRealTimers();
		expect(storedName()).toBe('Light 40');
		expect(store.save).toBe('saved');
		// Each key at most once, and each endpoint once.
		expect(disk.writes).toBeLessThanOrEqual(41 + demoWorkshop.endpoints.length);
	});

	it('keeps what was done before a save could end: a page that is gone at once loses nothing', async () => {
		const first = await tab();
		rename(first, 'Tern Light');
		await first.flush();
		disk.full = true;
		await thenClosed(async () => {
			rename(first, 'Auk Light');
			first.change('currency', (w) => ({ ...w, venue: { ...w.venue, currency: 'NOK' } }));
			first.undo();
			await first.flush();
		});
		// Closed again before anything was saved.
		await thenClosed(async () => (await tab()).flush());
		disk.full = false;
		const second = await tab();
		expect([nameOf(second), second.workshop!.venue.currency]).toEqual(['Auk Light', 'EUR']);
		expect(second.history.redo).toHaveLength(1);
		await second.flush();
		expect(storedName()).toBe('Auk Light');
		// What another has saved meanwhile is never changed by it.
		rename(second, 'Gull Light');
		await second.flush();
		stored({ ...demoWorkshop, venue: { ...demoWorkshop.venue, name: 'Other Light' } });
		expect(nameOf(await tab())).toBe('Other Light');
	});

	it('says that it failed, tries again by itself, and then has everything', async () => {
		vi.useFakeTimers();
		try {
			const opening = tab();
			await vi.runAllTimersAsync();
			const store = await opening;
			disk.full = true;
			rename(store, 'Tern Light');
			await vi.advanceTimersByTimeAsync(500);
			expect([store.save, store.saveProblem]).toEqual(['failed', 'storage is full']);
			// Without another change, too, it is still to be saved.
			disk.full = false;
			await vi.advanceTimersByTimeAsync(4000);
			expect([store.save, storedName()]).toEqual(['saved', 'Tern Light']);
			disk.full = true;
			rename(store, 'Puffin Light');
			await vi.advanceTimersByTimeAsync(500);
			rename(store, 'Auk Light');
			expect(store.save).toBe('failed');
			disk.full = false;
			await vi.advanceTimersByTimeAsync(4000);
			expect(store.save).toBe('saved');
			expect(storedName()).toBe('Auk Light');
		} finally {
			vi.useRealTimers();
		}
	});
});

describe('two tabs', () => {
	it('never overwrite each other: the second asks, and either side can be kept', async () => {
		for (const keep of ['mine', 'theirs'] as const) {
			disk.reset();
			const one = await tab();
			const two = await tab();
			rename(one, 'One');
			await one.flush();
			rename(two, 'Two');
			await two.flush();
			expect(two.save).toBe('conflict');
			expect(storedName()).toBe('One');
			await two.settle(keep);
			await two.flush();
			expect(nameOf(two)).toBe(keep === 'mine' ? 'Two' : 'One');
			expect(storedName()).toBe(keep === 'mine' ? 'Two' : 'One');
		}
	});

	it('of which the other is a newer Yphos: this one writes nothing, and keeps what it has for download', async () => {
		const old = await tab();
		const newer = { ...demoWorkshop, version: WORKSHOP_VERSION + 1, shiny: true };
		stored(newer);
		rename(old, 'Tern Light');
		await old.flush();
		expect(old.lock?.reason).toBe('newer');
		expect(nameOf(old)).toBe('Tern Light');
		expect(rename(old, 'Auk Light')).toContain('Nothing can be changed');
		expect(disk.get('workshop')).toMatchObject({ revision: 3, workshop: newer });
	});
});

describe('a storage that cannot be trusted', () => {
	const damaged = (): unknown => {
		const saved = structuredClone(demoWorkshop) as unknown as { endpoints: { plan: { sound: unknown } }[] };
		saved.endpoints[1]!.plan.sound = 'torn';
		return saved;
	};

	it('written by a newer Yphos is neither shown nor written, whatever the person does', async () => {
		stored({ ...demoWorkshop, version: WORKSHOP_VERSION + 1 });
		const store = await tab();
		expect(store.lock?.reason).toBe('newer');
		expect(store.workshop).toBeNull();
		await store.decide('empty');
		rename(store, 'Mine now');
		await store.flush();
		expect(disk.get('workshop')).toMatchObject({ revision: 3, workshop: { version: WORKSHOP_VERSION + 1 } });
	});

	it('that is damaged waits for a decision; then everything comes back, mended, and the damaged part is kept', async () => {
		stored(damaged());
		const before = structuredClone(disk.get('workshop'));
		const store = await tab();
		expect(store.lock).toMatchObject({ reason: 'damaged', opened: { damaged: [{ where: 'endpoints[1]' }] } });
		expect(rename(store, 'Too early')).not.toBeNull();
		await store.flush();
		expect(disk.get('workshop')).toEqual(before);
		await store.decide('mend');
		await store.flush();
		expect(store.workshop!.endpoints.map(({ id }) => id).sort()).toEqual(
			demoWorkshop.endpoints.map(({ id }) => id).sort()
		);
		expect(store.remarks.join()).toContain('Fog-horn room: plan.sound was set to its default');
		expect(asides()).toMatchObject([{ where: 'endpoints[1]', raw: { plan: { sound: 'torn' } } }]);
		const again = await tab();
		expect([again.lock, again.workshop]).toEqual([null, store.workshop]);
	});

	it('whose damage cannot be kept aside is not written over', async () => {
		stored(damaged());
		const store = await tab();
		disk.full = true;
		await store.decide('sound-only');
		expect(store.lock?.reason).toBe('damaged');
		expect(store.problem).toContain('nothing was written over');
		disk.full = false;
		await store.decide('sound-only');
		await store.flush();
		expect(asides()).toHaveLength(1);
		expect((disk.get('workshop') as { workshop: typeof demoWorkshop }).workshop.endpoints).toHaveLength(
			demoWorkshop.endpoints.length - 1
		);
	});

	it.each([
		['no workshop', { revision: 1, tab: 'x', savedUtc: '', workshop: 'scrambled' }],
		['a number', 7],
		['a frame that lost its revision', { workshop: demoWorkshop }]
	])('that holds %s is kept aside whole before anything else is begun', async (_, record) => {
		disk.set('workshop', record);
		const store = await tab();
		expect(store.lock?.reason).toBe('unreadable');
		await store.decide('empty');
		await store.flush();
		expect(store.workshop!.endpoints).toEqual([]);
		expect(asides()).toMatchObject([{ where: 'workshop' }]);
		expect(JSON.stringify(record)).toContain(JSON.stringify(asides()[0]!.raw));
	});

	it('leaves nothing of what was done where nothing is kept', async () => {
		disk.shut = true;
		const store = await tab();
		store.workUnsaved(demoWorkshop);
		expect(rename(store, 'Auk Light')).toBeNull();
		expect(localStorage.length).toBe(0);
	});

	it('asks before a page goes whose change is too long to be noted and not saved yet', async () => {
		const leaving = new Map<string, (event: Event) => void>();
		vi.stubGlobal('addEventListener', (type: string, hear: (event: Event) => void) => leaving.set(type, hear));
		const store = await tab();
		const isAsked = (): boolean => {
			const event = new Event('beforeunload', { cancelable: true });
			leaving.get('beforeunload')!(event);
			return event.defaultPrevented;
		};
		rename(store, 'Auk Light');
		expect(isAsked()).toBe(false);
		const [first] = demoWorkshop.endpoints;
		const item = { ...first!.plan.sources.items[0]!, title: 'T'.repeat(200) };
		const items = Array.from({ length: 3000 }, (_, n) => ({ ...item, id: `i${n}`, location: `f${n}.wav` }));
		store.changePlan(first!.id, 'many', (plan) => ({ ...plan, sources: { ...plan.sources, items } }));
		expect(isAsked()).toBe(true);
		await store.flush();
		expect(isAsked()).toBe(false);
	});

	it('opened while another tab saves again and again, is whole each time', async () => {
		const writing = await tab();
		rename(writing, 'Auk Light');
		await writing.flush();
		for (let n = 0; n < 12; n++) {
			writing.changePlan('bunkhouse-lounge', 'name', (plan) => ({
				...plan,
				brief: { ...plan.brief, name: `Loft ${n}` }
			}));
			const saving = writing.flush();
			const reading = await tab();
			expect(reading.lock).toBeNull();
			expect(reading.workshop!.endpoints).toHaveLength(demoWorkshop.endpoints.length);
			await saving;
		}
	});

	it('saved whole, does not clash with itself where what is needed no more could not be taken away', async () => {
		const store = await tab();
		rename(store, 'Auk Light');
		await store.flush();
		disk.keeps = true;
		store.changePlan('bunkhouse-lounge', 'name', (plan) => ({ ...plan, brief: { ...plan.brief, name: 'Loft' } }));
		await store.flush();
		expect(store.save).toBe('saved');
		disk.keeps = false;
		rename(store, 'Tern Light');
		await store.flush();
		expect(store.conflict).toBeNull();
		expect(storedName()).toBe('Tern Light');
		expect(disk.keys().filter((key) => key.startsWith('endpoint '))).toHaveLength(demoWorkshop.endpoints.length);
	});

	it('takes over what several tabs had done when all of them were closed at once', async () => {
		const [first, second] = [await tab(), await tab()];
		disk.full = true;
		await thenClosed(async () => {
			rename(first, 'Auk Light');
			second.change('currency', (workshop) => ({ ...workshop, venue: { ...workshop.venue, currency: 'NOK' } }));
			expect(localStorage.length).toBe(2);
			// What was under way when they were closed has ended, too.
			await Promise.all([first.flush(), second.flush()]);
		});
		disk.full = false;
		const [third, fourth] = await Promise.all([tab(), tab()]);
		const caught = [third, fourth].find((one) => nameOf(one) === 'Auk Light')!;
		expect(caught.workshop!.venue.currency).toBe('NOK');
		await caught.flush();
		expect(storedName()).toBe('Auk Light');
	});

	it('says nothing of an old note of a tab whose steps were saved since, and takes from it what was not', async () => {
		const first = await tab();
		/** As the browser has it on its disk when it is killed: some seconds old. */
		const notes: string[] = [];
		const note = (): void => void notes.push(localStorage.getItem(localStorage.key(0)!)!);
		rename(first, 'Auk Light');
		note();
		await first.flush();
		disk.full = true;
		first.change('currency', (workshop) => ({ ...workshop, venue: { ...workshop.venue, currency: 'NOK' } }));
		rename(first, 'Tern Light');
		note();
		disk.full = false;
		await first.flush();
		rename(first, 'Puffin Light');
		await first.flush();
		const [{ tab: name }] = notes.map((text) => JSON.parse(text) as { tab: string }) as [{ tab: string }];
		tabs.splice(0);
		for (const text of notes) {
			localStorage.setItem(`yphos-tail-${name}`, text);
			const next = await tab();
			expect([nameOf(next), next.workshop!.venue.currency, next.problem]).toEqual(['Puffin Light', 'NOK', null]);
			expect(asides()).toEqual([]);
		}
		// Killed after the first of two steps was saved: the other is taken from the note, however the saves are counted.
		const envelope = disk.get('workshop') as { workshop: { venue: object } };
		const { workshop } = envelope;
		const then = { ...workshop, venue: { ...workshop.venue, name: 'Auk Light' } };
		disk.set('workshop', { ...envelope, workshop: then, revision: 41, tab: name, noted: { [name]: 2 } });
		localStorage.setItem(`yphos-tail-${name}`, notes[1]!);
		expect(nameOf(await tab())).toBe('Tern Light');
	});

	it('sets aside what a closed tab had done where another has saved since, and says so', async () => {
		const first = await tab();
		disk.full = true;
		await thenClosed(async () => {
			rename(first, 'Auk Light');
			await first.flush();
		});
		disk.full = false;
		stored({ ...demoWorkshop, venue: { ...demoWorkshop.venue, name: 'Tern Light' } });
		const second = await tab();
		expect(nameOf(second)).toBe('Tern Light');
		expect(asides()).toMatchObject([{ where: 'tail' }]);
		expect(JSON.stringify(asides()[0]!.raw)).toContain('Auk Light');
		expect(second.problem).toContain('another tab has saved since');
	});

	it('that gives nothing out is not taken for an empty one', async () => {
		stored({ ...demoWorkshop, venue: { ...demoWorkshop.venue, name: 'Real Light' } });
		disk.shut = true;
		const store = await tab();
		expect([store.lock?.reason, store.workshop]).toEqual(['unreachable', null]);
		store.workUnsaved(demoWorkshop);
		disk.shut = false;
		rename(store, 'Demo Light');
		await store.flush();
		expect([store.save, storedName()]).toEqual(['unsaved', 'Real Light']);
	});

	it('keeps a copy of an older version before it is brought up to date, and is locked where it cannot', async () => {
		const old = { ...demoWorkshop, version: WORKSHOP_VERSION - 1 };
		stored(old);
		disk.set('history', { undo: ['of its own'], redo: [] });
		disk.full = true;
		expect((await tab()).lock?.reason).toBe('no-copy');
		disk.full = false;
		const store = await tab();
		rename(store, 'Tern Light');
		await store.flush();
		expect(disk.get(`before-version-${WORKSHOP_VERSION}`)).toMatchObject({
			record: { revision: 3, workshop: { version: WORKSHOP_VERSION - 1, venue: { name: 'Skerrin Light' } } },
			history: { undo: ['of its own'] }
		});
		expect(store.history.undo).toHaveLength(1);
	});

	it('keeps what stood in the place of its own lists, and goes on', async () => {
		disk.set('kept-aside', { not: 'a list' });
		stored(demoWorkshop, { history: { undo: 'torn' } });
		const store = await tab();
		expect(store.workshop).toEqual(demoWorkshop);
		expect(store.keptAside.map(({ where, raw }) => [where, raw])).toEqual([
			['kept-aside', { not: 'a list' }],
			['history', { undo: 'torn' }]
		]);
		expect(store.problem).toContain('set aside');
	});

	it('writes only the endpoint that changed, and cut off between two records has the old workshop whole', async () => {
		const first = await tab();
		rename(first, 'Auk Light');
		await first.flush();
		const names = (): string[] => [...disk.stores.get('workshop')!.keys()].filter((key) => key.startsWith('endpoint '));
		const before = names();
		expect(before).toHaveLength(demoWorkshop.endpoints.length);
		const frame = structuredClone(disk.get('workshop'));
		first.changePlan('lamp-room', 'rename', (plan) => ({ ...plan, brief: { ...plan.brief, name: 'Loft' } }));
		await first.flush();
		expect(names().filter((key) => !before.includes(key))).toEqual([expect.stringContaining('lamp-room')]);
		expect(names()).toHaveLength(demoWorkshop.endpoints.length);
		// An endpoint's record that is gone is told, and refuses nothing else.
		disk.stores.get('workshop')!.delete(names().find((key) => key.includes('ticket-hatch'))!);
		expect((await tab()).lock?.reason).toBe('damaged');
		// Before the record that names them was written: the new one is there, and nothing leads to it.
		disk.stores.get('workshop')!.clear();
		disk.set('workshop', frame);
		for (const key of before)
			disk.set(
				key,
				demoWorkshop.endpoints.find(({ id }) => key.includes(` ${id} `))
			);
		disk.set('endpoint lamp-room new', { id: 'lamp-room', plan: 'half' });
		const later = await tab();
		expect([later.lock, nameOf(later)]).toEqual([null, 'Auk Light']);
		rename(later, 'Tern Light');
		await later.flush();
		expect(names()).not.toContain('endpoint lamp-room new');
	});

	it('after a new start writes only what changes then; an endpoint that went stays a record as long as a step back needs it', async () => {
		const first = await tab();
		first.change('remove', (w) => ({ ...w, endpoints: w.endpoints.filter(({ id }) => id !== 'ticket-hatch') }));
		await first.flush();
		const names = (): string[] => disk.keys().filter((key) => key.startsWith('endpoint '));
		const before = names();
		expect(before).toHaveLength(demoWorkshop.endpoints.length);
		expect(JSON.stringify(disk.get('workshop'))).not.toContain('"plan"');

		const second = await tab();
		second.changePlan('lamp-room', 'rename', (plan) => ({ ...plan, brief: { ...plan.brief, name: 'Loft' } }));
		await second.flush();
		expect(names().filter((key) => !before.includes(key))).toEqual([expect.stringContaining('lamp-room')]);
		second.undo();
		second.undo();
		expect(second.workshop).toEqual(demoWorkshop);
		await second.flush();
		expect((await tab()).workshop).toEqual(demoWorkshop);
		expect(names().filter((key) => key.includes('ticket-hatch'))).toHaveLength(1);
	});

	it('has steps back that fit another workshop: they are set aside and never applied', async () => {
		const first = await tab();
		first.change('remove', (w) => ({ ...w, endpoints: w.endpoints.slice(1) }));
		first.changePlan('lamp-room', 'rename', (plan) => ({ ...plan, brief: { ...plan.brief, name: 'Loft' } }));
		await first.flush();
		// Somebody took an endpoint out of the stored workshop: what follows it stands in other places now.
		const record = structuredClone(disk.get('workshop')) as {
			workshop: { endpoints: { stored: string }[] };
		};
		record.workshop.endpoints = record.workshop.endpoints.filter(({ stored }) => !stored.includes('lamp-room'));
		disk.set('workshop', record);
		const second = await tab();
		const before = second.workshop;
		second.undo();
		await vi.waitFor(() => expect(second.problem).toContain('do not fit'));
		expect(second.workshop).toBe(before);
		expect(second.history.undo).toEqual([]);
		expect(asides()).toMatchObject([{ where: 'history' }]);
	});

	it('opens again what was kept aside, without taking the place of anything, and forgets it when told', async () => {
		stored(damaged());
		const store = await tab();
		await store.decide('sound-only');
		const [item] = store.keptAside;
		expect(await store.reopen(item!)).toContain('Changed on the way: plan.sound');
		expect(await store.reopen(item!)).toContain('open again');
		expect(store.workshop!.endpoints.map(({ id }) => id).slice(-2)).toEqual(['fog-horn-room', 'fog-horn-room-2']);
		await store.forgetKeptAside(item!.id);
		expect(asides()).toEqual([]);
	});
});

it('imports a file as a step like any other, and refuses a wrong one with a sentence', async () => {
	const store = await tab();
	expect(await store.importText('{"yphos":')).toContain('not readable as JSON');
	expect(await store.importText(JSON.stringify({ ...demoWorkshop, endpoints: [] }))).toBeNull();
	expect(store.workshop!.endpoints).toEqual([]);
	store.undo();
	expect(store.workshop).toEqual(demoWorkshop);
});
