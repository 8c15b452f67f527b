import localforage from 'localforage';
import { ok, type Result } from '$core/basics/result';
import { openVault, sealVault, type DeriveKey, type VaultContents, type VaultEntry } from './vault';

/** A store of its own: neither the export, nor the history, nor another tab's workshop ever sees it. */
const store = localforage.createInstance({ name: 'yphos', storeName: 'vault' });
const KEY = 'vault';

const derive: DeriveKey = (phrase, salt) =>
	new Promise((resolve, reject) => {
		const worker = new Worker(new URL('./deriveWorker.ts', import.meta.url), { type: 'module' });
		worker.onmessage = ({ data }: MessageEvent<Uint8Array>) => {
			worker.terminate();
			resolve(data);
		};
		worker.onerror = (event) => {
			worker.terminate();
			reject(new Error(event.message));
		};
		worker.postMessage({ phrase, salt });
	});

export const hasVault = async (): Promise<boolean> => (await store.getItem(KEY)) !== null;
export const emptyVault = (): Promise<void> => store.removeItem(KEY);

export async function unlock(phrase: string): Promise<Result<VaultContents>> {
	const raw = await store.getItem(KEY);
	return raw === null ? ok({}) : openVault(raw, phrase, derive);
}

/** Adds or changes one endpoint's entry; the pass phrase must be that of the vault, when there is one. */
export async function keepInVault(endpointId: string, entry: VaultEntry, phrase: string): Promise<Result<null>> {
	const now = await unlock(phrase);
	if (!now.ok) return now;
	const sealed = await sealVault(
		{ ...now.value, [endpointId]: { ...now.value[endpointId], ...entry } },
		phrase,
		derive
	);
	if (!sealed.ok) return sealed;
	await store.setItem(KEY, sealed.value);
	return ok(null);
}
