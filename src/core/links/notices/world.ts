import type { FeedState, NoticeWorld } from './content';
import type { Show } from './show';

/** What the endpoint has fetched of a feed: its text, and when. */
export interface Fetched {
	readonly text: string;
	readonly fetchedUtcMs: number | null;
}

/** A show's own world at an instant, with what has been fetched since. */
export const worldOf = (show: Show, nowUtcMs: number, fetched: ReadonlyMap<string, Fetched>): NoticeWorld => ({
	nowUtcMs,
	venue: show.venue,
	units: show.units,
	language: show.language,
	feed(id): FeedState | null {
		const feed = show.feeds.find((known) => known.id === id);
		return feed
			? { kind: feed.kind, title: feed.title, ...(fetched.get(id) ?? { text: feed.text, fetchedUtcMs: null }) }
			: null;
	}
});
