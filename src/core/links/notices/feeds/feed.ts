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

/** By kind and zone, then by the text itself: no long key is made anew at each look. */
const known = new Map<string, Map<string, FeedRead<FeedKind>>>();
const MOST_KNOWN = 60;

/** Reads a feed; the same text is read once. */
export function readFeed<K extends FeedKind>(kind: K, text: string, zone: string): FeedRead<K> {
	const key = `${kind} ${zone}`;
	let texts = known.get(key);
	if (!texts) known.set(key, (texts = new Map()));
	let read = texts.get(text);
	if (!read) {
		const found: Result<FeedValues[FeedKind]> = READERS[kind](text, zone);
		read = found.ok ? { value: found.value } : { wrong: sentence(found.faults) };
		if (texts.size >= MOST_KNOWN) texts.clear();
		texts.set(text, read);
	}
	return read as FeedRead<K>;
}
