import { partLastsMs } from '../files/entryPart';
import { placeKind } from '../files/mediaPlace';
import type { Context } from '../link/context';
import { spanOfDates, type Item } from './item';
import type { Timetable } from './when';

/** An entry of the sources, or a page of the notices, by its id; null: there is none. */
export function itemOf(id: string, { facts, media }: Context): Item | null {
	const page = facts.pages?.find((known) => known.id === id);
	if (page)
		return {
			id,
			title: page.title || id,
			kind: 'page',
			location: page.picture ?? '',
			lastsMs:
				1000 *
				(page.picture !== null && facts.picture
					? turnsOf(page.forSec, facts.picture.stillSec) * facts.picture.stillSec
					: page.forSec)
		};
	const entry = facts.entries && entryById(facts.entries, id);
	if (!entry) return null;
	const known = media(entry.location);
	const isStill = known?.picture?.framesPerSec === null;
	const wholeMs = isStill ? (facts.picture ? facts.picture.stillSec * 1000 : null) : (known?.durationMs ?? null);
	return {
		id,
		title: entry.title || entry.location,
		kind: placeKind(entry.location) === 'stream' ? 'stream' : isStill ? 'still' : known?.picture ? 'film' : 'sound',
		location: entry.location,
		lastsMs: partLastsMs(entry.part, wholeMs, isStill),
		...(entry.part ? { part: entry.part } : {})
	};
}

type Entries = NonNullable<Context['facts']['entries']>;
const places = new WeakMap<Entries, ReadonlyMap<string, Entries[number]>>();
/** A list has thousands, and each of them may be asked for. */
function entryById(entries: Entries, id: string): Entries[number] | undefined {
	let byId = places.get(entries);
	if (!byId) places.set(entries, (byId = new Map(entries.toReversed().map((entry) => [entry.id, entry]))));
	return byId.get(id);
}

/** A page's picture stands for whole turns of still pictures: so many of them one after another. */
export const turnsOf = (forSec: number, stillSec: number): number => Math.max(1, Math.round(forSec / stillSec));

/** Everything in order: pages, then what the sources list. */
export const everything = ({ facts }: Context): string[] => [
	...(facts.pages ?? []).map(({ id }) => id),
	...(facts.entries ?? []).map(({ id }) => id)
];

/** What a playlist plays, in order; what is gone is left out. */
export function itemsOf(show: string, { lists }: Pick<Timetable, 'lists'>, context: Context): Item[] {
	const list = show === 'all' ? null : lists.find(({ id }) => id === show);
	const ids = show === 'all' ? everything(context) : (list?.items ?? []);
	return ids.flatMap((id) => {
		const item = itemOf(id, context);
		const days = list?.valid.find((known) => known.item === id);
		return item ? [days ? { ...item, days: spanOfDates(days.from, days.until) } : item] : [];
	});
}
