import localforage from 'localforage';
import type { Change } from '$core/plan/patch';

/** One step of the history: what it was called, and what it changed. */
export interface HistoryEntry {
	readonly label: string;
	readonly changes: readonly Change[];
}
export interface History {
	readonly undo: readonly HistoryEntry[];
	readonly redo: readonly HistoryEntry[];
}
/** What stands in the browser: the workshop as it was saved, by whom, and how often. */
export interface Envelope {
	readonly revision: number;
	readonly tab: string;
	readonly savedUtc: string;
	readonly workshop: unknown;
}
/** Something unreadable, kept as it was found. */
export interface KeptAside {
	readonly foundUtc: string;
	readonly where: string;
	readonly why: string;
	readonly raw: unknown;
}

const store = localforage.createInstance({ name: 'yphos', storeName: 'workshop' });
const mediaStore = localforage.createInstance({ name: 'yphos', storeName: 'media' });

export const readEnvelope = (): Promise<Envelope | null> => store.getItem<Envelope>('workshop');
export const readHistory = async (): Promise<History> =>
	(await store.getItem<History>('history')) ?? { undo: [], redo: [] };
export const readKeptAside = async (): Promise<KeptAside[]> => (await store.getItem<KeptAside[]>('kept-aside')) ?? [];
export const writeKeptAside = (items: readonly KeptAside[]): Promise<unknown> => store.setItem('kept-aside', items);

export const readMediaBytes = (location: string): Promise<Uint8Array | null> =>
	mediaStore.getItem<Uint8Array>(location);
export const writeMediaBytes = (location: string, bytes: Uint8Array): Promise<unknown> =>
	mediaStore.setItem(location, bytes);

/**
 * Saves unless another tab has saved since: then nothing is written and the other's revision comes back.
 * One tab at a time looks and writes.
 */
export function writeEnvelope(
	envelope: Envelope,
	history: History,
	expectedRevision: number
): Promise<{ saved: true } | { saved: false; other: Envelope }> {
	return navigator.locks.request('yphos-save', async () => {
		const there = await readEnvelope();
		if (there && there.revision !== expectedRevision) return { saved: false, other: there } as const;
		await store.setItem('workshop', envelope);
		await store.setItem('history', history);
		return { saved: true } as const;
	});
}
