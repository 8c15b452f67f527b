/** At least every so often while changes keep coming; oftener where saving is quick. */
const LONGEST_WAIT_MS = 1000;
/** The page gets as long to itself as a save took. */
const PAUSE_PER_SAVE = 1;
const FIRST_RETRY_MS = 2000;
const LONGEST_RETRY_MS = 30_000;

export type Saved = 'saved' | 'stopped';

/**
 * When to save: at once after a rest, then again and again while changes come, one save at a time; after a failure again, ever
 * more seldom. What to save, and where, is `write`'s business: it throws when it could not.
 */
export class Saver {
	state = $state<'saved' | 'saving' | 'failed'>('saved');
	/** What was said of the last failure. */
	why = $state('');
	#write: () => Promise<Saved>;
	#dirty = false;
	#running: Promise<void> | null = null;
	#timer: ReturnType<typeof setTimeout> | undefined;
	#lastEndMs = -Infinity;
	#lastTookMs = 0;
	#retryMs = FIRST_RETRY_MS;

	constructor(write: () => Promise<Saved>) {
		this.#write = write;
	}

	get isDirty(): boolean {
		return this.#dirty || this.#running !== null;
	}

	/** Something changed. */
	request(): void {
		this.#dirty = true;
		if (this.state !== 'failed') this.state = 'saving';
		if (this.#running || this.#timer !== undefined) return;
		const pause = Math.min(LONGEST_WAIT_MS, PAUSE_PER_SAVE * this.#lastTookMs);
		const wait = this.#lastEndMs + pause - performance.now();
		if (wait > 0) this.#timer = setTimeout(() => void this.flush(), wait);
		else void this.flush();
	}

	/** Saves what is not saved yet, now. Resolves when nothing is left to save, or it failed. */
	async flush(): Promise<void> {
		if (this.#running) {
			await this.#running;
			return this.isDirty && this.state !== 'failed' ? this.flush() : undefined;
		}
		this.#clear();
		if (!this.#dirty) return;
		this.#running = this.#once();
		await this.#running;
	}

	/** What is waiting will not be saved any more: somebody else's is taken. */
	drop(): void {
		this.#clear();
		this.#dirty = false;
		this.state = 'saved';
	}

	#clear(): void {
		clearTimeout(this.#timer);
		this.#timer = undefined;
	}

	async #once(): Promise<void> {
		this.#dirty = false;
		const startMs = performance.now();
		let done: Saved | 'failed';
		try {
			done = await this.#write();
			this.#retryMs = FIRST_RETRY_MS;
		} catch (error) {
			done = 'failed';
			this.why = (error as Error).message;
		}
		this.#running = null;
		this.#lastEndMs = performance.now();
		this.#lastTookMs = this.#lastEndMs - startMs;
		if (done === 'failed') {
			this.#dirty = true;
			this.state = 'failed';
			this.#timer = setTimeout(() => void this.flush(), this.#retryMs);
			this.#retryMs = Math.min(LONGEST_RETRY_MS, this.#retryMs * 2);
		} else if (done === 'stopped') this.#dirty = true;
		else {
			this.state = this.#dirty ? 'saving' : 'saved';
			if (this.#dirty) this.request();
		}
	}
}
