import { wrap, type Remote } from 'comlink';
import type { Found, LookWorker, Wanted } from './lookWorker';

/** Beyond this more workers wait for the same disk. */
const MOST_WORKERS = 4;

interface Hand {
	readonly worker: Worker;
	readonly remote: Remote<LookWorker>;
}
function hire(): Hand {
	const worker = new Worker(new URL('./lookWorker.ts', import.meta.url), { type: 'module' });
	return { worker, remote: wrap<LookWorker>(worker) };
}

/**
 * Looks into files, several at a time; `onFound` hears of each as soon as it is done, in any order, and is waited for.
 * Gives up at once when it is told to; a file that cannot be read is an Error in its place.
 */
export async function lookThrough(
	files: readonly File[],
	wanted: Wanted,
	onFound: (file: File, found: Found | Error) => Promise<void>,
	signal?: AbortSignal
): Promise<void> {
	let next = 0;
	const givenUp = new Promise<null>((resolve) => {
		if (signal?.aborted) resolve(null);
		signal?.addEventListener('abort', () => resolve(null));
	});
	const work = async (): Promise<void> => {
		const hand = hire();
		try {
			while (next < files.length && !signal?.aborted) {
				const file = files[next++]!;
				const found = await Promise.race([
					hand.remote.look(file, wanted).catch((error: unknown) => error as Error),
					givenUp
				]);
				if (found === null) return;
				await onFound(file, found);
			}
		} finally {
			hand.worker.terminate();
		}
	};
	const hands = Math.min(MOST_WORKERS, Math.max(1, navigator.hardwareConcurrency - 1), files.length);
	await Promise.all(Array.from({ length: hands }, work));
}
