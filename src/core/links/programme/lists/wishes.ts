/** What is asked of one entry of a playlist that goes round and round. */
export interface ListWish {
	readonly item: string;
	/** Begins at least so often in any hour. */
	readonly perHour: number | null;
	/** Has at least this part of the time, %. */
	readonly percent: number | null;
	/** Entries that never come right before or after it; itself among them: never twice in a row. */
	readonly apartFrom: readonly string[];
}

/** What of a wish a round does not do. */
export interface Unmet {
	readonly wish: ListWish;
	readonly what: 'perHour' | 'percent' | 'apart' | 'gone';
	/** What it does instead: times an hour, %, or the neighbour. */
	readonly is: number | string;
}

/** By entry how long it takes, ms. */
export type Lengths = (item: string) => number;

const HOUR_MS = 3_600_000;
/** A round is never longer, entries. */
const MOST_ENTRIES = 600;
/** Steps of trying before it is given up. */
const MOST_TRIES = 100_000;
/** Turns that are added to make room, and entries that may have them. */
const MOST_EXTRA = 4;
const MOST_HELPERS = 8;
const EPSILON = 1e-9;

/** How often at the least an entry begins within any hour, while the round goes on for ever. 0: it is not in it. */
export function leastPerHour(items: readonly string[], item: string, lengthOf: Lengths): number {
	const starts: number[] = [];
	let totalMs = 0;
	for (const id of items) {
		if (id === item) starts.push(totalMs);
		totalMs += lengthOf(id);
	}
	if (starts.length === 0) return 0;
	// The hour that begins right after one of them has the fewest.
	return Math.min(
		...starts.map((from, n) => {
			const whole = Math.floor(HOUR_MS / totalMs);
			const restMs = HOUR_MS - whole * totalMs;
			let more = 0;
			for (let k = 1; k < starts.length; k++) {
				const next = starts[(n + k) % starts.length]! - from;
				if ((next + totalMs) % totalMs <= restMs + EPSILON) more++;
			}
			return whole * starts.length + more;
		})
	);
}

/** How much of the time an entry has, %. */
export function percentOf(items: readonly string[], item: string, lengthOf: Lengths): number {
	const totalMs = items.reduce((sum, id) => sum + lengthOf(id), 0);
	return (100 * items.filter((id) => id === item).length * lengthOf(item)) / totalMs;
}

/** Which wishes a round does not meet, and what it does instead. */
export function unmetIn(items: readonly string[], wishes: readonly ListWish[], lengthOf: Lengths): Unmet[] {
	return wishes.flatMap((wish): Unmet[] => {
		if (!items.includes(wish.item)) return [{ wish, what: 'gone', is: 0 }];
		const often = leastPerHour(items, wish.item, lengthOf);
		const part = percentOf(items, wish.item, lengthOf);
		const beside = items.flatMap((id, n) => {
			const next = items[(n + 1) % items.length]!;
			return id === wish.item ? [next] : next === wish.item ? [id] : [];
		});
		// What is alone cannot but follow itself.
		const neighbour = items.length === 1 ? undefined : beside.find((id) => wish.apartFrom.includes(id));
		return [
			...(wish.perHour !== null && often < wish.perHour ? [{ wish, what: 'perHour', is: often } as const] : []),
			...(wish.percent !== null && part < wish.percent - EPSILON ? [{ wish, what: 'percent', is: part } as const] : []),
			...(neighbour !== undefined ? [{ wish, what: 'apart', is: neighbour } as const] : [])
		];
	});
}

/** A round that meets all that is wished, or why none does: too much is asked for at once, or too many must be kept apart. */
export type Arranged =
	| { readonly items: readonly string[] }
	| { readonly why: 'time'; readonly percent: number }
	| { readonly why: 'apart'; readonly item: string }
	| { readonly why: 'long' }
	| { readonly why: 'gone'; readonly item: string };

/**
 * Arranges a round: every entry at least once, each as often as it is wished, spread evenly. How often follows from the shares of the
 * time that are asked for; in which order by trying, the one that is due first being tried first.
 */
export function arrange(items: readonly string[], wishes: readonly ListWish[], lengthOf: Lengths): Arranged {
	const ids = [...new Set(items)];
	const gone = wishes.find(({ item }) => !ids.includes(item));
	if (gone) return { why: 'gone', item: gone.item };
	const parts = wishes.map(({ item, perHour, percent }) =>
		Math.max(((perHour ?? 0) * lengthOf(item)) / HOUR_MS, (percent ?? 0) / 100)
	);
	const asked = parts.reduce((sum, part) => sum + part, 0);
	// Whoever has no wish needs some of the time as well.
	if (asked > 1 + EPSILON || (asked > 1 - EPSILON && wishes.length < ids.length))
		return { why: 'time', percent: asked * 100 };
	const budget = { tries: MOST_TRIES };
	// Who bears most neighbours is the first to come more often than it must.
	const bearing = (id: string): number => ids.filter((other) => !apart(wishes, id, other)).length;
	const helpers = [...ids].sort((a, b) => bearing(b) - bearing(a)).slice(0, MOST_HELPERS);
	let tooLong = true;
	for (const extra of choices(helpers, MOST_EXTRA)) {
		const more = new Map<string, number>();
		for (const id of extra) more.set(id, (more.get(id) ?? 0) + 1);
		for (;;) {
			const counts = countsFor(ids, wishes, lengthOf, more);
			if (!counts) break;
			tooLong = false;
			const order = tooMany(ids, wishes, counts) ? null : orderOf(ids, counts, wishes, budget);
			if (!order) break;
			const unmet = unmetIn(order, wishes, lengthOf);
			if (unmet.length === 0) return { items: order };
			// Spread evenly, and still an hour has too few: once more then.
			for (const { wish } of unmet) more.set(wish.item, (more.get(wish.item) ?? 0) + 1);
		}
	}
	const kept = wishes.find(({ apartFrom }) => apartFrom.length > 0);
	return kept && !tooLong ? { why: 'apart', item: kept.item } : { why: 'long' };
}

/** Nothing, then each one, then each two of them, the same twice too, and so on. */
function* choices(of: readonly string[], most: number): Generator<readonly string[]> {
	let last: (readonly [number, readonly string[]])[] = [[0, []]];
	yield [];
	for (let size = 1; size <= most; size++) {
		last = last.flatMap(([from, chosen]) => of.slice(from).map((id, n) => [from + n, [...chosen, id]] as const));
		for (const [, chosen] of last) yield chosen;
	}
}

/** How often each comes in a round, so that all have their share; null: a round would be too long. */
function countsFor(
	ids: readonly string[],
	wishes: readonly ListWish[],
	lengthOf: Lengths,
	more: ReadonlyMap<string, number>
): Map<string, number> | null {
	const counts = new Map(ids.map((id) => [id, 1 + (more.get(id) ?? 0)]));
	for (let changed = true; changed;) {
		changed = false;
		const totalMs = ids.reduce((sum, id) => sum + counts.get(id)! * lengthOf(id), 0);
		for (const { item, perHour, percent } of wishes) {
			const need = Math.max(((perHour ?? 0) * totalMs) / HOUR_MS, ((percent ?? 0) * totalMs) / (100 * lengthOf(item)));
			if (counts.get(item)! >= need - EPSILON) continue;
			counts.set(item, counts.get(item)! + 1);
			changed = true;
		}
		if ([...counts.values()].reduce((sum, count) => sum + count, 0) > MOST_ENTRIES) return null;
	}
	return counts;
}

const apart = (wishes: readonly ListWish[], a: string, b: string): boolean =>
	wishes.some(({ item, apartFrom }) => (item === a && apartFrom.includes(b)) || (item === b && apartFrom.includes(a)));

/** One that is never to follow itself, and has more turns than all that may stand between. */
const tooMany = (ids: readonly string[], wishes: readonly ListWish[], counts: ReadonlyMap<string, number>): boolean =>
	ids.some((id) => {
		if (!apart(wishes, id, id) || ids.length === 1) return false;
		const between = ids
			.filter((other) => other !== id && !apart(wishes, id, other))
			.reduce((sum, other) => sum + counts.get(other)!, 0);
		return counts.get(id)! > between;
	});

/** An order in which nothing stands beside what it is to be kept from; null: none was found. */
function orderOf(
	ids: readonly string[],
	counts: ReadonlyMap<string, number>,
	wishes: readonly ListWish[],
	budget: { tries: number }
): string[] | null {
	const left = new Map(counts);
	const total = [...counts.values()].reduce((sum, count) => sum + count, 0);
	const order: string[] = [];
	const until = budget.tries - MOST_TRIES / 50;
	/** When the next turn of an entry is due, in places of the round. */
	const dueAt = (id: string): number => ((counts.get(id)! - left.get(id)! + 0.5) * total) / counts.get(id)!;
	const go = (): boolean => {
		if (order.length === total) return total === 1 || !apart(wishes, order.at(-1)!, order[0]!);
		if (budget.tries <= 0 || --budget.tries < until) return false;
		const next = ids
			.filter((id) => left.get(id)! > 0 && (order.length === 0 || !apart(wishes, order.at(-1)!, id)))
			.sort((a, b) => dueAt(a) - dueAt(b));
		for (const id of next) {
			left.set(id, left.get(id)! - 1);
			order.push(id);
			if (go()) return true;
			order.pop();
			left.set(id, left.get(id)! + 1);
		}
		return false;
	};
	return go() ? order : null;
}
