import { proxy, wrap, type Remote } from 'comlink';
import type { Secrets } from '$core/secrets';
import type { useEndpoint } from '$lib/endpoint/view.svelte';
import type { PackWorker } from './packWorker';

type EndpointView = ReturnType<typeof useEndpoint>;

/** Said by one that the person gave up. */
const GIVEN_UP = 'given up';

/** One piece of work in a worker of its own: how far it is, and a way to give it up. */
export class Packer {
	/** 0 to 1. */
	part = $state(0);
	busy = $state(false);
	/** Pages are being drawn, before the rest. */
	draws = $state(false);
	#end: (() => void) | null = null;

	/** Pictures of pages, drawn before what a worker does: that has no page to draw on. */
	async drawn(view: EndpointView, signal: AbortSignal): Promise<Pick<Secrets, 'pagePictures'>> {
		const { notices } = view.plan;
		if (!notices.used || notices.shownBy !== 'pictures') return {};
		this.draws = true;
		try {
			await view.loadMedia();
			const { drawPages } = await import('./drawPages');
			return {
				pagePictures: await drawPages(notices, view.context, view.mediaBytes, (part) => (this.part = part), signal)
			};
		} finally {
			this.draws = false;
			this.part = 0;
		}
	}

	/** What the work gave, or null when it was given up. Throws what went wrong, in words. */
	async run<T>(
		work: (remote: Remote<PackWorker>, onPart: (part: number) => void, signal: AbortSignal) => Promise<T>
	): Promise<T | null> {
		this.busy = true;
		this.part = 0;
		const given = new AbortController();
		const worker = new Worker(new URL('./packWorker.ts', import.meta.url), { type: 'module' });
		try {
			return await Promise.race([
				work(
					wrap<PackWorker>(worker),
					proxy((part: number) => void (this.part = part)),
					given.signal
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
			given.abort();
			this.#end = null;
			this.busy = false;
		}
	}

	cancel(): void {
		this.#end?.();
	}
}
