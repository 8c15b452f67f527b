import { proxy, wrap, type Remote } from 'comlink';
import type { Found, LookWorker, Wanted } from './lookWorker';

/** Beyond this more workers wait for the same disk. */
const MOST_WORKERS = 4;
/** While one waits for the disk or the page, the other works. */
const FEWEST_WORKERS = 2;
/** A damaged file can keep the library turning for ever: one that shows no sign of getting on for so long is given up. */
const SILENT_MS = 30_000;

interface Hand {
	readonly worker: Worker;
	readonly remote: Remote<LookWorker>;
}
function hire(): Hand {
	const worker = new Worker(new URL('./lookWorker.ts', import.meta.url), { type: 'module' });
	return { worker, remote: wrap<LookWorker>(worker) };
}

/** Looks into one file; an Error: it cannot be read, or does not get on. null: given up. */
function lookInto(hand: Hand, file: File, wanted: Wanted, givenUp: Promise<null>): Promise<Found | Error | null> {
	return new Promise((resolve) => {
		const giveUp = (): void =>
			resolve(new Error('Looking into it does not end: it is damaged. Copy it anew, or make it anew with ffmpeg.'));
		let watch = setTimeout(giveUp, SILENT_MS);
		const onLife = (): void => {
			clearTimeout(watch);
			watch = setTimeout(giveUp, SILENT_MS);
		};
		const end = (found: Found | Error | null): void => {
			clearTimeout(watch);
			resolve(found);
		};
		hand.remote.look(file, wanted, proxy(onLife)).then(end, end);
		void givenUp.then(end);
	});
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
		let hand = hire();
		try {
			while (next < files.length && !signal?.aborted) {
				const file = files[next++]!;
				const found = await lookInto(hand, file, wanted, givenUp);
				if (found === null) return;
				if (found instanceof Error) {
					// It may be turning still.
					hand.worker.terminate();
					hand = hire();
				}
				await onFound(file, found);
			}
		} finally {
			hand.worker.terminate();
		}
	};
	const hands = Math.min(MOST_WORKERS, Math.max(FEWEST_WORKERS, navigator.hardwareConcurrency - 1), files.length);
	await Promise.all(Array.from({ length: hands }, work));
}
