import { proxy, wrap, type Remote } from 'comlink';
import type { PackWorker } from './packWorker';

/** Said by one that the person gave up. */
const GIVEN_UP = 'given up';

/** One piece of work in a worker of its own: how far it is, and a way to give it up. */
export class Packer {
	/** 0 to 1. */
	part = $state(0);
	busy = $state(false);
	#end: (() => void) | null = null;

	/** What the work gave, or null when it was given up. Throws what went wrong, in words. */
	async run<T>(work: (remote: Remote<PackWorker>, onPart: (part: number) => void) => Promise<T>): Promise<T | null> {
		this.busy = true;
		this.part = 0;
		const worker = new Worker(new URL('./packWorker.ts', import.meta.url), { type: 'module' });
		try {
			return await Promise.race([
				work(
					wrap<PackWorker>(worker),
					proxy((part: number) => void (this.part = part))
				),
				new Promise<never>((_, reject) => {
					this.#end = () => reject(new Error(GIVEN_UP));
					worker.onerror = (event) => reject(new Error(event.message || 'it stopped'));
				})
			]);
		} catch (error) {
			if ((error as Error).message === GIVEN_UP) return null;
			throw error;
		} finally {
			worker.terminate();
			this.#end = null;
			this.busy = false;
		}
	}

	cancel(): void {
		this.#end?.();
	}
}
