/** How a list whose entries have ids changes: which came, which went, which moved. The rest keeps its order. */
interface Moved {
	readonly key: string;
	/** The entry before it, null at the head of the list; absent: it was not, or is no longer, in the list. */
	readonly from?: string | null;
	readonly to?: string | null;
	/** What came or went. */
	readonly value?: unknown;
}
/** Entries of a list by id: gone, new, changed, moved. */
export interface ListChange {
	readonly by: 'id' | 'location';
	readonly moved: readonly Moved[];
}
type Step = { readonly id: string } | { readonly location: string };

const KEYS = ['id', 'location'] as const;

/** Entries by key, in their order; null when one has none, or two have the same. */
function byKey(list: readonly unknown[], key: string): Map<string, unknown> | null {
	const known = new Map<string, unknown>();
	for (const item of list) {
		if (typeof item !== 'object' || item === null || !Object.hasOwn(item, key)) return null;
		const name = (item as Record<string, unknown>)[key];
		if (typeof name !== 'string' || known.has(name)) return null;
		known.set(name, item);
	}
	return known;
}

/** The difference between two lists of entries with ids. */
interface ListDiff {
	readonly both: readonly { readonly step: Step; readonly before: unknown; readonly after: unknown }[];
	readonly change: ListChange | null;
}

/** Null when the entries of either list cannot be told apart by a key. */
export function diffList(before: readonly unknown[], after: readonly unknown[]): ListDiff | null {
	for (const by of KEYS) {
		const quick = inSameOrder(before, after, by);
		if (quick) return quick;
		const a = byKey(before, by);
		const b = a && byKey(after, by);
		if (!a || !b || a.size + b.size === 0) continue;
		const kept = [...a.keys()].filter((key) => b.has(key));
		const staying = stayingOf(kept, [...b.keys()]);
		const from = anchors(a);
		const to = anchors(b);
		const moved = [...new Set([...a.keys(), ...b.keys()])]
			.filter((key) => !staying.has(key))
			.map((key): Moved => ({
				key,
				...(a.has(key) ? { from: from.get(key)! } : {}),
				...(b.has(key) ? { to: to.get(key)! } : {}),
				...(a.has(key) && b.has(key) ? {} : { value: a.get(key) ?? b.get(key) })
			}));
		return {
			both: kept
				.filter((key) => a.get(key) !== b.get(key))
				.map((key) => ({
					step: (by === 'id' ? { id: key } : { location: key }) as Step,
					before: a.get(key),
					after: b.get(key)
				})),
			change: moved.length ? { by, moved } : null
		};
	}
	return null;
}

/** Most changes are within one entry: the same entries in the same order. Null when it is anything else. */
function inSameOrder(before: readonly unknown[], after: readonly unknown[], by: 'id' | 'location'): ListDiff | null {
	if (before.length !== after.length || before.length === 0) return null;
	const keys = new Set<unknown>();
	const both: ListDiff['both'][number][] = [];
	for (const [n, item] of before.entries()) {
		const next = after[n];
		if (typeof item !== 'object' || item === null || !Object.hasOwn(item, by)) return null;
		const key = (item as Record<string, unknown>)[by];
		if (typeof key !== 'string') return null;
		keys.add(key);
		if (item === next) continue;
		if (typeof next !== 'object' || next === null || !Object.hasOwn(next, by)) return null;
		if ((next as Record<string, unknown>)[by] !== key) return null;
		both.push({ step: (by === 'id' ? { id: key } : { location: key }) as Step, before: item, after: next });
	}
	return keys.size === before.length ? { both, change: null } : null;
}

/** The key before each key. */
function anchors(list: ReadonlyMap<string, unknown>): Map<string, string | null> {
	let last: string | null = null;
	const before = new Map<string, string | null>();
	for (const key of list.keys()) {
		before.set(key, last);
		last = key;
	}
	return before;
}

/** The most entries that keep their order: a longest increasing run of places, by patience sorting. */
function stayingOf(kept: readonly string[], after: readonly string[]): Set<string> {
	const place = new Map(after.map((key, n) => [key, n]));
	const ends: number[] = [];
	const previous: number[] = [];
	const places = kept.map((key) => place.get(key)!);
	places.forEach((at, n) => {
		let low = 0;
		let high = ends.length;
		while (low < high) {
			const middle = (low + high) >> 1;
			if (places[ends[middle]!]! < at) low = middle + 1;
			else high = middle;
		}
		previous[n] = low > 0 ? ends[low - 1]! : -1;
		ends[low] = n;
	});
	const staying = new Set<string>();
	for (let n = ends.at(-1) ?? -1; n >= 0; n = previous[n]!) staying.add(kept[n]!);
	return staying;
}

/** The list after the change, or before it; null when the list is not the one that the change was made from. */
export function moveWithin(
	list: readonly unknown[],
	{ by, moved }: ListChange,
	way: 'forward' | 'back',
	isSame: (a: unknown, b: unknown) => boolean
): unknown[] | null {
	const [source, target] = way === 'forward' ? (['from', 'to'] as const) : (['to', 'from'] as const);
	const known = byKey(list, by);
	if (!known) return null;
	const before = anchors(known);
	const inserted = new Map<string | null, { key: string; item: unknown }>();
	for (const change of moved) {
		if (change[source] === undefined ? known.has(change.key) : before.get(change.key) !== change[source]) return null;
		// What goes must be what came, to the letter.
		if (change[target] === undefined && !isSame(known.get(change.key), change.value)) return null;
		if (change[target] !== undefined)
			inserted.set(change[target], { key: change.key, item: known.get(change.key) ?? change.value });
		known.delete(change.key);
	}
	const out: unknown[] = [];
	let left = inserted.size;
	const follow = (key: string | null): void => {
		for (let next = inserted.get(key); next && left > 0; next = inserted.get(next.key)) {
			out.push(next.item);
			left--;
		}
	};
	follow(null);
	for (const [key, item] of known) {
		out.push(item);
		follow(key);
	}
	return left === 0 ? out : null;
}
