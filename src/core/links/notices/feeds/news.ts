import { fault, ok, type Result } from '../../../basics/result';
import { readXml, type XmlElement } from '../../../formats/xml/tree';
import { fitLine } from '../../../basics/text';
import { LONGEST_FEED } from './schema';

/** One headline. */
export interface Headline {
	readonly title: string;
	/** null: it does not say. */
	readonly utcMs: number | null;
}

const MOST = 200;
const LONGEST_TITLE = 300;
const LIMITS = { characters: LONGEST_FEED, depth: 24, elements: 20_000 };

/**
 * Headlines of a feed, in its order, as plain text: marks of pages within them are taken out. Faults: those of XML; `news-kind`,
 * `news-empty`. Sources: RSS 2.0; RFC 4287 (Atom).
 */
export function readNews(text: string): Result<Headline[]> {
	const read = readXml(text, LIMITS);
	if (!read.ok) return read;
	const { value: root } = read;
	const channel = root.name === 'rss' ? root.children.find(({ name }) => name === 'channel') : root;
	const entries = (channel?.children ?? []).filter(({ name }) => name === 'item' || name === 'entry');
	if (root.name !== 'rss' && root.name !== 'feed' && root.name !== 'RDF')
		return fault(
			'news-kind',
			'This is neither RSS nor Atom. Look for the address of the feed itself, not of its page.'
		);
	const found = entries.slice(0, MOST).flatMap((entry) => {
		const title = plain(textOf(entry, 'title'));
		return title === '' ? [] : [{ title, utcMs: timeOf(entry) }];
	});
	return found.length ? ok(found) : fault('news-empty', 'No headline is in it.');
}

const textOf = ({ children }: XmlElement, wanted: string): string =>
	children.find(({ name }) => name === wanted)?.text ?? '';

/** RSS titles often hold marks of pages, once more escaped; they are text here, and only that. */
const plain = (text: string): string =>
	fitLine(
		text
			.replace(/<[^<>]{0,400}>/g, ' ')
			.replace(/&(amp|lt|gt|quot|#39|apos|nbsp);/g, (_, name: string) => ENTITIES[name] ?? ' ')
			.replace(/ {2,}/g, ' '),
		LONGEST_TITLE
	);
const ENTITIES: Readonly<Record<string, string>> = {
	amp: '&',
	lt: '<',
	gt: '>',
	quot: '"',
	'#39': "'",
	apos: "'",
	nbsp: ' '
};

function timeOf(entry: XmlElement): number | null {
	const said =
		textOf(entry, 'pubDate') || textOf(entry, 'updated') || textOf(entry, 'published') || textOf(entry, 'date');
	const utcMs = Date.parse(said);
	return Number.isNaN(utcMs) ? null : utcMs;
}
