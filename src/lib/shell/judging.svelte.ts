import { preloadCode } from '$app/navigation';
import { chain } from '$core/chain';
import type { Link } from '$core/link';

/** What is drawn and fetched for the first view goes first. */
const AFTER_MS = 200;
/** Where most people go from the shelf; the pages of all endpoints are the same code. */
const NEXT = ['/endpoint/any/plan/brief', '/week'];

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
				({ judges }) => {
					this.links = judges;
					// What fails here is fetched, or told of, when the person goes there.
					for (const path of NEXT) preloadCode(path).catch(() => {});
				},
				() => (this.#asked = false)
			);
		requestAnimationFrame(() => setTimeout(fetched, AFTER_MS));
	}
}
export const judging = new Judging();
