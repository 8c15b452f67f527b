import type { FeedState, NoticeWorld } from './content';
import type { Show } from './show';

/** What a world is made of: a show, or the settings it comes from with their venue. */
type Source = Pick<Show, 'units' | 'language'> & {
	readonly venue: NoticeWorld['venue'];
	readonly feeds: readonly Pick<Show['feeds'][number], 'id' | 'title' | 'kind' | 'text'>[];
};

/** What the endpoint has fetched of a feed: its text, and when. */
export interface Fetched {
	readonly text: string;
	readonly fetchedUtcMs: number | null;
}

/** A show's own world at an instant, with what has been fetched since. `still`: as a picture that stands for hours has it. */
export const worldOf = (
	show: Source,
	nowUtcMs: number,
	fetched: ReadonlyMap<string, Fetched>,
	still = false
): NoticeWorld => ({
	nowUtcMs,
	still,
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
