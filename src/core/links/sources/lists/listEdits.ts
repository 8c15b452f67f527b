import { partedPlace } from '../../../files/entryPart';
import type { PlaylistEntry } from '../../../formats/playlist/playlist';
import type { Media } from '../../../parts/media';
import { sourceItem, type SourceItem } from '../settings';

type Items = readonly SourceItem[];
type Ids = ReadonlySet<string>;

/** An entry of a playlist that was read, with the part of it that stands behind its place. */
export const itemOfEntry = (entry: PlaylistEntry, id: string): SourceItem => ({
	id,
	...partedPlace(entry.location),
	title: entry.title ?? '',
	durationSec: entry.durationSec,
	extra: [...entry.extra]
});

/** Of a playlist's entries those that fit, and the others by their names with what is wrong: one that is odd keeps none of the others out. */
export function itemsOfEntries(
	entries: readonly PlaylistEntry[],
	newId: () => string
): { readonly items: SourceItem[]; readonly refused: readonly string[] } {
	const items: SourceItem[] = [];
	const refused: string[] = [];
	for (const entry of entries) {
		const read = sourceItem.safeParse(itemOfEntry(entry, newId()));
		if (read.success) items.push(read.data);
		else refused.push(`${(entry.title || entry.location).slice(0, 60)}: ${read.error.issues[0]!.message}`);
	}
	return { items, refused };
}

/** The chosen entries, in their own order, before the entry that stands at `index` now; at the end where none does. */
export function moveTo(items: Items, ids: Ids, index: number): SourceItem[] {
	const chosen = items.filter(({ id }) => ids.has(id));
	const before = items.slice(0, Math.max(0, index)).filter(({ id }) => !ids.has(id));
	const after = items.slice(Math.max(0, index)).filter(({ id }) => !ids.has(id));
	return [...before, ...chosen, ...after];
}

/** The chosen entries one place up or down, each past its neighbour that is not chosen; what is at the end stays there. */
export function moveBy(items: Items, ids: Ids, by: -1 | 1): SourceItem[] {
	const out = [...items];
	const from = by < 0 ? 1 : out.length - 2;
	for (let n = from; by < 0 ? n < out.length : n >= 0; n -= by) {
		const [here, there] = [out[n]!, out[n + by]!];
		if (ids.has(here.id) && !ids.has(there.id)) [out[n], out[n + by]] = [there, here];
	}
	return out;
}

/** What a list can be put in order by. */
export const SORTS = ['title', 'place', 'made', 'length'] as const;
/** The same, as a type. */
export type Sort = (typeof SORTS)[number];

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** How long an entry is, in ms: as its file says, else as its list did; null: endless, or nobody knows. */
export const lengthMs = (item: SourceItem, media: Media | null): number | null =>
	media?.durationMs ?? (item.durationSec === null ? null : item.durationSec * 1000);

/** The list in that order, numbers in names by their size; in the other direction when it stands so already. What has no figure comes last. */
export function sortBy(items: Items, sort: Sort, mediaOf: (location: string) => Media | null): SourceItem[] {
	const keyed = items.map((item) => {
		const media = mediaOf(item.location);
		return {
			item,
			text: sort === 'title' ? item.title || item.location : sort === 'place' ? item.location : (media?.codec ?? ''),
			number: sort === 'length' ? lengthMs(item, media) : sort === 'made' ? (media?.sampleRateHz ?? null) : 0
		};
	});
	const compare = (a: (typeof keyed)[number], b: (typeof keyed)[number]): number =>
		(a.number ?? Infinity) - (b.number ?? Infinity) || (sort === 'length' ? 0 : collator.compare(a.text, b.text));
	const known = keyed.filter(({ number }) => number !== null);
	const unknown = keyed.filter(({ number }) => number === null);
	const ordered = [...known].sort(compare);
	const stands =
		ordered.every((one, n) => one === known[n]) && unknown.every((one, n) => one === keyed[known.length + n]);
	const turned = stands ? [...known].sort((a, b) => compare(b, a)) : ordered;
	return [...turned, ...unknown].map(({ item }) => item);
}

/** Entries in whose title, place or tags all of these words stand. */
export function searchIn(items: Items, text: string, mediaOf: (location: string) => Media | null): SourceItem[] {
	const words = text.toLowerCase().split(/\s+/).filter(Boolean);
	if (words.length === 0) return [...items];
	return items.filter((item) => {
		const { artist = '', album = '', title = '' } = mediaOf(item.location)?.details?.tags ?? {};
		const all = `${item.title}\n${item.location}\n${artist}\n${album}\n${title}`.toLowerCase();
		return words.every((word) => all.includes(word));
	});
}
