import type { DigestKind } from '$core/image/digest';
import type { ImageReport, ImageTask } from './messages';

export type ImageDone = Extract<ImageReport, { type: 'done' }>;

/** Reads an image in a worker of its own. `cancel` ends that at once; the promise then stays open for ever. */
export function readImage(
	file: File,
	kinds: readonly DigestKind[],
	onprogress: (bytes: number) => void
): { done: Promise<ImageDone>; cancel(): void } {
	const worker = new Worker(new URL('./imageWorker.ts', import.meta.url), { type: 'module' });
	const done = new Promise<ImageDone>((resolve, reject) => {
		worker.onmessage = ({ data }: MessageEvent<ImageReport>) => {
			if (data.type === 'progress') return onprogress(data.bytes);
			worker.terminate();
			if (data.type === 'done') resolve(data);
			else reject(new Error(data.why));
		};
		worker.onerror = (event) => {
			worker.terminate();
			reject(new Error(event.message || 'The file could not be read.'));
		};
		worker.postMessage({ file, kinds } satisfies ImageTask);
	});
	return { done, cancel: () => worker.terminate() };
}
