import { handIn, judgeOfPages } from '$core/links/notices/later';
import type { Workshop } from '$core/plan/workshop';

/** Counts what has come to judge plans by since the first view; whoever shows judgements reads it. */
class Judged {
	count = $state(0);
	#asked = false;

	/** Loads what judges pages once the first view stands, where a plan has any. */
	need({ endpoints }: Workshop): void {
		if (this.#asked || judgeOfPages() || !endpoints.some(({ plan }) => plan.notices.used)) return;
		this.#asked = true;
		const load = (): void =>
			void import('$core/links/notices/findings').then(
				({ assessNotices }) => {
					handIn(assessNotices);
					this.count++;
				},
				// Asked for again with the next change.
				() => (this.#asked = false)
			);
		if ('requestIdleCallback' in window) requestIdleCallback(load, { timeout: 2000 });
		else setTimeout(load, 200);
	}
}
export const judged = new Judged();
