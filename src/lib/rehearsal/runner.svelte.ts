import { proxy, wrap, type Remote } from 'comlink';
import type { Rehearsal } from '$core/engines/rehearse';
import type { RehearsalRequest, RehearseWorker } from './rehearseWorker';

/** A run that is not needed any more may end by itself for so long; then it is ended. */
const PATIENCE_MS = 250;

/** Rehearses in a worker; what is asked last is what counts. */
export class RehearsalRunner {
	result = $state.raw<Rehearsal | null>(null);
	/** 0 to 1, while it runs. */
	part = $state(0);
	busy = $state(false);
	failed = $state('');
	#worker: Worker | null = null;
	#remote: Remote<RehearseWorker> | null = null;
	#next: RehearsalRequest | null = null;
	#turn = 0;
	#sinceMs = 0;

	ask(request: RehearsalRequest): void {
		this.#next = request;
		if (!this.busy) void this.#run();
		else if (performance.now() - this.#sinceMs > PATIENCE_MS) this.#restart();
		else setTimeout(() => this.#next === request && this.busy && this.#restart(), PATIENCE_MS);
	}

	/** Gives up what runs; the last result stays. */
	cancel(): void {
		this.#next = null;
		this.dispose();
	}

	dispose(): void {
		this.#turn++;
		this.#worker?.terminate();
		this.#worker = null;
		this.#remote = null;
		this.busy = false;
	}

	#restart(): void {
		this.dispose();
		void this.#run();
	}

	async #run(): Promise<void> {
		const request = this.#next;
		if (!request) return;
		this.#next = null;
		const turn = ++this.#turn;
		this.busy = true;
		this.part = 0;
		this.#sinceMs = performance.now();
		try {
			if (!this.#worker) {
				this.#worker = new Worker(new URL('./rehearseWorker.ts', import.meta.url), { type: 'module' });
				this.#remote = wrap<RehearseWorker>(this.#worker);
			}
			const result = await Promise.race([
				this.#remote!.run(
					request,
					proxy((part: number) => {
						if (turn === this.#turn) this.part = part;
					})
				),
				new Promise<never>((_, reject) => {
					this.#worker!.onerror = (event) => reject(new Error(event.message || 'it stopped'));
				})
			]);
			if (turn !== this.#turn) return;
			this.result = result;
			this.failed = '';
		} catch (error) {
			if (turn !== this.#turn) return;
			this.failed = `The rehearsal failed: ${(error as Error).message}. Change something, or load the page again.`;
			this.dispose();
		}
		if (turn === this.#turn) this.busy = false;
		void this.#run();
	}
}
