import { readFeed } from '../feeds/feed';
import type { Feed } from '../feeds/schema';
import { timeOfRow } from '../feeds/table';

const DAY_MS = 86_400_000;

/** The day on which a table that goes along runs out, as its last row says; null: its rows have no days. */
export function lastDayOf(feed: Feed, zone: string): number | null {
	if (feed.kind !== 'table' || feed.address !== '') return null;
	const read = readFeed('table', feed.text, zone);
	if ('wrong' in read) return null;
	// Times without a day come again each day: with any two days as today they differ.
	const days = read.value.rows.flatMap((row) => {
		const [a, b] = [timeOfRow(row, 0), timeOfRow(row, 1)];
		return a && b && a.wallMs === b.wallMs ? [Math.floor(a.wallMs / DAY_MS)] : [];
	});
	return days.length ? Math.max(...days) : null;
}
