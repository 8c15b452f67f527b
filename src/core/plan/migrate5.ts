import { LIST_LIMITS } from '../formats/playlist/limits';
import { canonicalTimeZone } from '../standards/timeZones';
import { each, fill, isSaved, type Saved } from './saved';
import { fitLine, freeId, isId } from '../basics/text';

/**
 * Version 5 stored what its own schema refused: readers and ids were not held to it. Everything is brought within the
 * bounds of version 6, so that nothing is left out: ids into the narrow alphabet and made unique, list entries cut to
 * what a list holds, time zones spelt as an endpoint finds them, digests of secret files forgotten.
 */
export function withinBounds(saved: Saved): Saved {
	const parts = renamed(saved.parts, 'id');
	const endpoints = renamed(saved.endpoints, 'id').list;
	const newId = (id: unknown): unknown => (typeof id === 'string' ? (parts.ids.get(id) ?? id) : id);
	return {
		...saved,
		venue: isSaved(saved.venue) ? { ...saved.venue, timeZone: zoneOf(saved.venue.timeZone) } : saved.venue,
		parts: each(parts.list, (part) => (part.kind === 'kit' ? withContents(part, newId) : part)),
		owned: isSaved(saved.owned) ? keysRenamed(saved.owned, newId) : saved.owned,
		media: firstOfEach(saved.media, 'location'),
		endpoints: each(endpoints, (endpoint) => ({
			...endpoint,
			written: withoutDigests(endpoint.written),
			...(isSaved(endpoint.plan) ? { plan: planWithinBounds(endpoint.plan, newId) } : {})
		}))
	};
}

const zoneOf = (zone: unknown): unknown => (typeof zone === 'string' ? (canonicalTimeZone(zone) ?? zone) : zone);

/** A list whose ids are in the alphabet and unique, and what each first holder of an id is called now. */
function renamed(list: unknown, key: string): { list: unknown; ids: Map<string, string> } {
	const ids = new Map<string, string>();
	const taken = new Set<string>();
	if (!Array.isArray(list)) return { list, ids };
	for (const item of list) if (isSaved(item) && typeof item[key] === 'string' && isId(item[key])) taken.add(item[key]);
	const seen = new Set<string>();
	return {
		list: each(list, (item) => {
			const id = item[key];
			if (typeof id !== 'string' || (isId(id) && !seen.has(id))) {
				seen.add(String(id));
				return item;
			}
			const next = freeId(id, taken);
			taken.add(next);
			seen.add(next);
			if (!ids.has(id) && !isId(id)) ids.set(id, next);
			return { ...item, [key]: next };
		}),
		ids
	};
}

const keysRenamed = (record: Saved, newId: (id: unknown) => unknown): Saved =>
	Object.fromEntries(Object.entries(record).map(([key, value]) => [String(newId(key)), value]));

const withContents = (kit: Saved, newId: (id: unknown) => unknown): Saved => ({
	...kit,
	contains: each(kit.contains, (item) => ({ ...item, part: newId(item.part) }))
});

function firstOfEach(list: unknown, key: string): unknown {
	if (!Array.isArray(list)) return list;
	const seen = new Set<unknown>();
	return list.filter((item: unknown) => {
		if (!isSaved(item) || typeof item[key] !== 'string') return true;
		const isFirst = !seen.has(item[key]);
		seen.add(item[key]);
		return isFirst;
	});
}

function planWithinBounds(plan: Saved, newId: (id: unknown) => unknown): Saved {
	const { parts, header, sources, card } = plan;
	return {
		...plan,
		parts: isSaved(parts) ? partsRenamed(parts, newId) : parts,
		header: isSaved(header) && isSaved(header.lines) ? { ...header, lines: keysRenamed(header.lines, newId) } : header,
		card:
			isSaved(card) && typeof card.bootText === 'string'
				? { ...card, bootText: card.bootText.replace(/\r\n?/g, '\n') }
				: card,
		sources: isSaved(sources) ? listWithinBounds(sources) : sources
	};
}

const partsRenamed = ({ also, ...places }: Saved, newId: (id: unknown) => unknown): Saved => ({
	...Object.fromEntries(Object.entries(places).map(([place, id]) => [place, newId(id)])),
	also: firstOfEach(
		each(also, (item) => ({ ...item, part: newId(item.part) })),
		'part'
	)
});

function listWithinBounds(sources: Saved): Saved {
	const items = Array.isArray(sources.items)
		? sources.items.filter((item) => !isSaved(item) || fitLine(String(item.location), Infinity) !== '')
		: sources.items;
	return {
		...(fill(sources, { header: [] }) as Saved),
		header: commentLines(sources.header, LIST_LIMITS.headerLines),
		items: each(Array.isArray(items) ? renamed(items.slice(0, LIST_LIMITS.entries), 'id').list : items, (item) => ({
			...item,
			location: typeof item.location === 'string' ? fitLine(item.location, LIST_LIMITS.location) : item.location,
			title: typeof item.title === 'string' ? fitLine(item.title, LIST_LIMITS.title) : item.title,
			durationSec: durationOf(item.durationSec),
			extra: commentLines(item.extra, LIST_LIMITS.linesPerEntry)
		}))
	};
}

const durationOf = (value: unknown): unknown =>
	typeof value !== 'number' ? value : value >= 0.5 && value <= LIST_LIMITS.durationSec ? Math.round(value) : null;

const commentLines = (lines: unknown, most: number): unknown =>
	Array.isArray(lines)
		? lines.slice(0, most).map((line: unknown) => {
				if (typeof line !== 'string') return line;
				const text = fitLine(line, LIST_LIMITS.line - 1);
				return text.startsWith('#') ? text : `#${text}`;
			})
		: lines;

/** Lines of apply.sh and the manifest that held the digest of a file with a key in it let anybody try keys. */
function withoutDigests(written: unknown): unknown {
	if (!isSaved(written) || !isSaved(written.files)) return written;
	return {
		...written,
		files: Object.fromEntries(
			Object.entries(written.files).map(([path, text]) => [
				path,
				typeof text === 'string' && /(?:apply\.sh|manifest\.json)$/.test(path)
					? text
							.split('\n')
							.map((line) => (/\.nmconnection|"apply\.sh"/.test(line) ? '(kept secret)' : line))
							.join('\n')
					: text
			])
		)
	};
}
