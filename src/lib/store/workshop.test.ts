import { beforeEach, describe, expect, it, vi } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import type { Envelope, History, KeptAside } from './storage';

/** One browser's storage, shared by every tab of a test; `fail` makes it full. */
const disk = vi.hoisted(() => ({
	envelope: null as Envelope | null,
	history: { undo: [], redo: [] } as History,
	aside: [] as readonly KeptAside[],
	fail: false
}));
vi.mock('./storage', () => ({
	readEnvelope: async () => disk.envelope,
	readHistory: async () => disk.history,
	readKeptAside: async () => disk.aside,
	writeKeptAside: async (items: readonly KeptAside[]) => void (disk.aside = items),
	writeEnvelope: async (envelope: Envelope, history: History, expected: number) => {
		if (disk.fail) throw new Error('storage is full');
		if (disk.envelope && disk.envelope.revision !== expected) return { saved: false, other: disk.envelope };
		disk.envelope = JSON.parse(JSON.stringify(envelope)) as Envelope;
		disk.history = history;
		return { saved: true };
	}
}));

/** A fresh tab: the module anew, the storage as it is. */
async function tab() {
	vi.resetModules();
	const { store } = await import('./workshop.svelte');
	await store.open();
	return store;
}
type Store = Awaited<ReturnType<typeof tab>>;
const rename = (store: Store, name: string): void =>
	store.change('rename', (workshop) => ({ ...workshop, venue: { ...workshop.venue, name } }));
const nameOf = (store: Store): string => store.workshop!.venue.name;

beforeEach(() => {
	Object.assign(disk, { envelope: null, history: { undo: [], redo: [] }, aside: [], fail: false });
	vi.stubGlobal('addEventListener', () => {});
	vi.stubGlobal(
		'BroadcastChannel',
		class {
			onmessage = null;
			postMessage(): void {}
		}
	);
});

describe('the workshop of a browser', () => {
	it('begins with the demo and saves nothing before something is changed', async () => {
		const store = await tab();
		await store.flush();
		expect(store.workshop).toEqual(demoWorkshop);
		expect(disk.envelope).toBeNull();
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

	it('keeps at most 200 steps', async () => {
		const store = await tab();
		for (let n = 0; n < 230; n++)
			store.change(`rename ${n}`, (workshop) => ({ ...workshop, venue: { ...workshop.venue, name: `Light ${n}` } }));
		expect(store.history.undo.length).toBeLessThanOrEqual(201);
		store.undo();
		expect(nameOf(store)).toBe('Light 228');
	});
});

describe('two tabs', () => {
	it('never overwrite each other: the second asks, and either side can be kept', async () => {
		for (const keep of ['mine', 'theirs'] as const) {
			disk.envelope = null;
			const one = await tab();
			const two = await tab();
			rename(one, 'One');
			await one.flush();
			rename(two, 'Two');
			await two.flush();
			expect(two.save).toBe('conflict');
			expect((disk.envelope as Envelope | null)?.workshop).toMatchObject({ venue: { name: 'One' } });
			await two.settle(keep);
			await two.flush();
			expect(nameOf(two)).toBe(keep === 'mine' ? 'Two' : 'One');
			expect((disk.envelope as Envelope | null)?.workshop).toMatchObject({
				venue: { name: keep === 'mine' ? 'Two' : 'One' }
			});
		}
	});
});

describe('a storage that cannot be trusted', () => {
	it('says when it is full, and saves what was waiting once there is room', async () => {
		const store = await tab();
		disk.fail = true;
		rename(store, 'Tern Light');
		await store.flush();
		expect(store.save).toBe('failed');
		expect(store.problem).toContain('storage is full');
		disk.fail = false;
		await store.flush();
		expect(disk.envelope?.workshop).toMatchObject({ venue: { name: 'Tern Light' } });
	});

	it('opens what is sound of a damaged workshop and keeps the rest aside, once', async () => {
		const saved = structuredClone(demoWorkshop) as unknown as { endpoints: unknown[] };
		saved.endpoints[0] = { torn: true };
		disk.envelope = { revision: 3, tab: 'x', savedUtc: '2026-11-24T10:00:00Z', workshop: saved };
		for (let n = 0; n < 2; n++) {
			const store = await tab();
			expect(store.workshop!.endpoints.map((endpoint) => endpoint.id)).toEqual([
				'fog-horn-room',
				'test-bench',
				'lamp-room'
			]);
			expect(store.keptAside).toMatchObject([{ where: 'endpoints[0]', raw: { torn: true } }]);
		}
	});

	it('keeps a store aside whole when it is no workshop at all', async () => {
		disk.envelope = { revision: 1, tab: 'x', savedUtc: '', workshop: 'scrambled' };
		const store = await tab();
		expect(store.workshop!.endpoints).toEqual([]);
		expect(disk.aside).toMatchObject([{ where: 'workshop', raw: 'scrambled' }]);
	});

	it('imports a file as a step like any other, and refuses a wrong one with a sentence', async () => {
		const store = await tab();
		expect(await store.importText('{"yphos":')).toContain('not readable as JSON');
		expect(await store.importText(JSON.stringify({ ...demoWorkshop, endpoints: [] }))).toBeNull();
		expect(store.workshop!.endpoints).toEqual([]);
		store.undo();
		expect(store.workshop).toEqual(demoWorkshop);
	});
});
