import { calendarFeed, ferryTable, newsFeed, tideTable, weatherFeed } from '$demo/feeds';

const DAY_MS = 86_400_000;
/** An old feed is as it was so long ago. */
const STALE_MS = 40 * DAY_MS;

/** By path what is given out, and as what. */
const FEEDS: Readonly<Record<string, readonly [type: string, make: (nowMs: number) => string]>> = {
	'feeds/tides.csv': ['text/csv; charset=utf-8', (nowMs) => tideTable(nowMs - (nowMs % DAY_MS), 14)],
	'feeds/ferry.csv': ['text/csv; charset=utf-8', ferryTable],
	'feeds/weather.json': ['application/json', weatherFeed],
	'feeds/tours.ics': ['text/calendar; charset=utf-8', calendarFeed],
	'feeds/news.xml': ['application/rss+xml; charset=utf-8', newsFeed]
};
/** A feed as those who attack write it: none of it may ever run, wherever it is shown. */
export const HOSTILE = '<script>document.title="broken"</script><img src=x onerror="document.title=\'broken\'">';

/**
 * Made-up feeds that can misbehave. Behind any of them: ?stale (as it was long ago), ?empty, ?broken (its half), ?other (a page instead),
 * ?hostile (its words are marks of a page). Null: no feed is at this path.
 */
export function standInFeed(path: string, query: URLSearchParams, nowMs: number): Response | null {
	if (!Object.hasOwn(FEEDS, path)) return null;
	const [type, make] = FEEDS[path]!;
	const whole = make(query.has('stale') ? nowMs - STALE_MS : nowMs);
	const text = query.has('empty')
		? ''
		: query.has('broken')
			? whole.slice(0, whole.length / 2)
			: query.has('other')
				? '<!doctype html><title>Sorry</title><p>Back soon.</p>\n'
				: query.has('hostile')
					? whole.replace(/Norvik|Up to the lamp|Skerrin|Seals/g, () => hostileIn(path))
					: whole;
	return new Response(text, { headers: { 'content-type': type, 'cache-control': 'no-store' } });
}

/** As each format carries it, so that its reader hands it on. */
function hostileIn(path: string): string {
	if (path.endsWith('.xml')) return HOSTILE.replaceAll('<', '&amp;lt;');
	if (path.endsWith('.json')) return JSON.stringify(HOSTILE).slice(1, -1);
	if (path.endsWith('.csv')) return `"${HOSTILE.replaceAll('"', '""')}"`;
	return HOSTILE;
}
