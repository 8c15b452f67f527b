import { chain } from '$core/chain';
import type { Link } from '$core/link';

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
		requestAnimationFrame(() => setTimeout(fetched));
	}
}
export const judging = new Judging();
