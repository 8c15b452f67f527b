/** A clock that stands still between events. Milliseconds since mains on; events at one instant run in the order they were set. */
export class VirtualClock {
	nowMs = 0;
	#queue: { atMs: number; order: number; run: () => void }[] = [];
	#order = 0;
	#left: number;

	/** @param most a runaway simulation ends after so many events */
	constructor(most = 3_000_000) {
		this.#left = most;
	}

	at(atMs: number, run: () => void): void {
		const entry = { atMs: Math.max(atMs, this.nowMs), order: this.#order++, run };
		let low = 0;
		let high = this.#queue.length;
		while (low < high) {
			const mid = (low + high) >> 1;
			if (this.#queue[mid]!.atMs <= entry.atMs) low = mid + 1;
			else high = mid;
		}
		this.#queue.splice(low, 0, entry);
	}

	/** Runs everything up to and including `untilMs`; false when there was too much of it, and the clock stands where it ended. */
	runUntil(untilMs: number): boolean {
		while (this.#queue.length && this.#queue[0]!.atMs <= untilMs) {
			if (this.#left-- <= 0) return false;
			const next = this.#queue.shift()!;
			this.nowMs = next.atMs;
			next.run();
		}
		this.nowMs = untilMs;
		return true;
	}
}
