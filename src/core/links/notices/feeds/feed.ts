import { sentence, type Result } from '../../../basics/result';
import { readAgenda, type Happening } from './agenda';
import { readNews, type Headline } from './news';
import type { FeedKind } from './schema';
import { readTable, type Table } from './table';
import { readWeather, type Weather } from './weather';

/** What each kind holds, once read. */
export interface FeedValues {
	readonly table: Table;
	readonly calendar: readonly Happening[];
	readonly news: readonly Headline[];
	readonly weather: Weather;
}

const READERS: { readonly [K in FeedKind]: (text: string, zone: string) => Result<FeedValues[K]> } = {
	table: readTable,
	calendar: readAgenda,
	news: readNews,
	weather: readWeather
};

/** The value of a feed's text, or why it cannot be read. */
export type FeedRead<K extends FeedKind> = { readonly value: FeedValues[K] } | { readonly wrong: string };

const known = new Map<string, FeedRead<FeedKind>>();
const MOST_KNOWN = 60;

/** Reads a feed; the same text is read once. */
export function readFeed<K extends FeedKind>(kind: K, text: string, zone: string): FeedRead<K> {
	const key = `${kind} ${zone} ${text}`;
	let read = known.get(key);
	if (!read) {
		const found: Result<FeedValues[FeedKind]> = READERS[kind](text, zone);
		read = found.ok ? { value: found.value } : { wrong: sentence(found.faults) };
		if (known.size >= MOST_KNOWN) known.clear();
		known.set(key, read);
	}
	return read as FeedRead<K>;
}
