import { wrap, type Remote } from 'comlink';
import type { DigestWorker } from './digestWorker';

let running: { readonly worker: Worker; readonly remote: Remote<DigestWorker> } | null = null;

/** SHA-256 of a file in hexadecimal, worked out beside the page; null when it was given up. Throws when the file cannot be read. */
export async function sha256Of(file: Blob, signal?: AbortSignal): Promise<string | null> {
	if (signal?.aborted) return null;
	if (!running) {
		const worker = new Worker(new URL('./digestWorker.ts', import.meta.url), { type: 'module' });
		running = { worker, remote: wrap<DigestWorker>(worker) };
	}
	const { worker, remote } = running;
	const givenUp = new Promise<null>((resolve) =>
		signal?.addEventListener('abort', () => {
			worker.terminate();
			running = null;
			resolve(null);
		})
	);
	return Promise.race([remote.sha256(file), givenUp]);
}
