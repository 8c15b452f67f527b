import { vi } from 'vitest';

/** For tests: one browser's storage, shared by every tab; `full` lets nothing more be written, `shut` lets nothing be read, `keeps` lets nothing be taken away. */
const fresh = {
	stores: new Map<string, Map<string, unknown>>(),
	full: false,
	shut: false,
	keeps: false,
	writes: 0,
	/** Which stores were asked for all their names. */
	listed: [] as string[],
	/** Counts browsers: a page of an earlier one that still saves does so nowhere. */
	browser: 0,
	reset(): void {
		this.stores.clear();
		Object.assign(this, { full: false, shut: false, keeps: false, writes: 0, listed: [] });
	},
	keys: (): string[] => [...(disk.stores.get('workshop')?.keys() ?? [])],
	get(key: string, store = 'workshop'): unknown {
		return this.stores.get(store)?.get(key);
	},
	set(key: string, value: unknown, store = 'workshop'): void {
		if (!this.stores.has(store)) this.stores.set(store, new Map());
		this.stores.get(store)!.set(key, structuredClone(value));
	}
};

/** The same for every tab, though each loads its modules anew. */
const everyTab = globalThis as { fakeDisk?: typeof fresh };
export const disk = (everyTab.fakeDisk ??= fresh);

const later = <T>(value: T, ms = 0): Promise<T> => new Promise((done) => setTimeout(() => done(value), ms));

/** Stands in for localForage. */
export const fakeForage = {
	INDEXEDDB: 'asyncStorage',
	createInstance: ({ storeName }: { storeName: string }, browser = disk.browser) => ({
		async getItem(key: string) {
			if (disk.shut) throw new Error('storage is shut');
			// A large record comes later than a small one that was asked for after it.
			await later(null, key.startsWith('endpoint ') ? 3 : 0);
			return structuredClone(disk.get(key, storeName) ?? null);
		},
		async setItem(key: string, value: unknown) {
			if (browser !== disk.browser) return value;
			if (disk.full) throw new Error('storage is full');
			const copy = structuredClone(value);
			await later(null);
			if (browser !== disk.browser) return value;
			disk.writes++;
			disk.set(key, copy, storeName);
			return value;
		},
		async removeItem(key: string) {
			if (browser !== disk.browser) return;
			if (disk.keeps) throw new Error('storage takes nothing away');
			disk.stores.get(storeName)?.delete(key);
		},
		async keys() {
			disk.listed.push(storeName);
			return [...(disk.stores.get(storeName)?.keys() ?? [])];
		}
	})
};

/** What of a page the store leans on: locks that hold, a channel between tabs that nobody hears. */
export function stubPage(): void {
	const held = new Map<string, Promise<unknown>>();
	vi.stubGlobal('navigator', {
		locks: {
			request(name: string, work: () => Promise<unknown>) {
				const mine = (held.get(name) ?? Promise.resolve()).catch(() => {}).then(work);
				held.set(name, mine);
				return mine;
			},
			// A tab of a test is closed when the next one is opened.
			query: async () => ({ held: [] })
		}
	});
	const texts = new Map<string, string>();
	vi.stubGlobal('localStorage', {
		getItem: (key: string) => texts.get(key) ?? null,
		setItem: (key: string, text: string) => void texts.set(key, text),
		removeItem: (key: string) => void texts.delete(key),
		key: (n: number) => [...texts.keys()][n] ?? null,
		get length() {
			return texts.size;
		}
	});
	vi.stubGlobal('addEventListener', () => {});
	vi.stubGlobal('document', { addEventListener: () => {} });
	vi.stubGlobal(
		'BroadcastChannel',
		class {
			onmessage = null;
			postMessage(): void {}
		}
	);
}
