/** Says when something changes that a script could have looked at: a file, a device, a network. */
export class World {
	version = 0;
	#listeners = new Set<() => void>();

	changed(): void {
		this.version++;
		for (const run of [...this.#listeners]) run();
	}

	/** Gives a way to listen no more. */
	onChange(run: () => void): () => void {
		this.#listeners.add(run);
		return () => void this.#listeners.delete(run);
	}
}
