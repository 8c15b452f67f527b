import { chain } from '$core/chain';
import type { Link } from '$core/link';

/** What is drawn and fetched for the first view goes first. */
const AFTER_MS = 200;

/** The links with what judges them, as soon as that is loaded: the first view stands before. */
class Judging {
	links = $state.raw<readonly Link[]>(chain);
	#asked = false;

	/** Loads it once the first view is drawn; what failed is asked for again when this is called again. */
	load(): void {
		if (this.#asked) return;
		this.#asked = true;
		const fetched = (): void =>
			void import('$core/judges').then(
				({ judges }) => (this.links = judges),
				() => (this.#asked = false)
			);
		requestAnimationFrame(() => setTimeout(fetched, AFTER_MS));
	}
}
export const judging = new Judging();
