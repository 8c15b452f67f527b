/** A clock that stands still between events. Milliseconds since mains on; events at one instant run in the order they were set. */
export class VirtualClock {
	nowMs = 0;
	#queue: { atMs: number; order: number; run: () => void }[] = [];
	#order = 0;

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

	/** Runs everything up to and including `untilMs`. A runaway simulation is our bug, hence the bound. */
	runUntil(untilMs: number, maxEvents = 500_000): void {
		for (let n = 0; this.#queue.length && this.#queue[0]!.atMs <= untilMs; n++) {
			if (n >= maxEvents) throw new RangeError(`rehearsal: more than ${maxEvents} events before ${untilMs} ms`);
			const next = this.#queue.shift()!;
			this.nowMs = next.atMs;
			next.run();
		}
		this.nowMs = untilMs;
	}
}
