import { wrap, type Remote } from 'comlink';
import { fault, type Result } from '$core/basics/result';
import type { Readers } from './readers';

/** Longer than any file within the bounds takes on a slow computer. */
const LONGEST_MS = 60_000;
/** No file of ours is larger; the readers' own bounds are narrower. */
const LARGEST_BYTES = 200_000_000;

type Value<K extends keyof Readers> = ReturnType<Readers[K]>;

/**
 * Reads a file in a worker of its own, which is ended when it takes too long. Faults: those of the reader; `file-large`,
 * `file-unread`, `read-slow`.
 */
export async function readInWorker<K extends keyof Readers>(
	which: K,
	file: Blob,
	...rest: Parameters<Readers[K]> extends [unknown, ...infer R] ? R : never
): Promise<Value<K> | Result<never>> {
	if (file.size > LARGEST_BYTES)
		return fault(
			'file-large',
			`It has ${(file.size / 1e6).toFixed(0)} MB, far more than a file of this kind. Choose another.`
		);
	let bytes: Uint8Array;
	try {
		bytes = new Uint8Array(await file.arrayBuffer());
	} catch (error) {
		return fault('file-unread', `It could not be read: ${(error as Error).message}. Choose it again.`);
	}
	const worker = new Worker(new URL('./readWorker.ts', import.meta.url), { type: 'module' });
	const remote = wrap<Readers>(worker);
	let timer: ReturnType<typeof setTimeout> | undefined;
	try {
		return await Promise.race([
			call(remote, which, bytes, rest),
			new Promise<Result<never>>((resolve) => {
				timer = setTimeout(
					() =>
						resolve(fault('read-slow', 'Reading it took more than a minute and was given up. Is it the right file?')),
					LONGEST_MS
				);
			}),
			new Promise<Result<never>>((resolve) => {
				worker.onerror = (event) => resolve(fault('file-unread', `It could not be read: ${event.message}`));
			})
		]);
	} catch (error) {
		return fault('file-unread', `It could not be read: ${(error as Error).message}.`);
	} finally {
		clearTimeout(timer);
		worker.terminate();
	}
}

const call = <K extends keyof Readers>(
	remote: Remote<Readers>,
	which: K,
	bytes: Uint8Array,
	rest: readonly unknown[]
): Promise<Value<K>> => (remote[which] as unknown as (...args: unknown[]) => Promise<Value<K>>)(bytes, ...rest);
