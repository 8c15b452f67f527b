/**
 * The difference between two plain JSON values, small enough to keep a long history of.
 * Lists are compared place by place; a list that changed its length is one change.
 */
export interface Change {
	readonly path: readonly (string | number)[];
	/** `undefined`: the key was not there. */
	readonly before?: unknown;
	readonly after?: unknown;
}

type Container = Record<string | number, unknown>;
const isContainer = (value: unknown): value is Container => typeof value === 'object' && value !== null;

/** Never what a key happens to be called in every object. */
const own = (container: Container, key: string): unknown =>
	Object.hasOwn(container, key) ? container[key] : undefined;

export function diff(before: unknown, after: unknown, path: readonly (string | number)[] = []): Change[] {
	if (Object.is(before, after)) return [];
	const bothLists = Array.isArray(before) && Array.isArray(after) && before.length === after.length;
	const bothObjects = isContainer(before) && isContainer(after) && !Array.isArray(before) && !Array.isArray(after);
	if (!bothLists && !bothObjects) return [{ path, before, after }];
	const a = before as Container;
	const b = after as Container;
	return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((key) =>
		diff(own(a, key), own(b, key), [...path, bothLists ? Number(key) : key])
	);
}

/** Applies changes forward, or takes them back. Gives a new value; shares what did not change. */
export function applyChanges<T>(value: T, changes: readonly Change[], way: 'forward' | 'back'): T {
	return changes.reduce<unknown>(
		(current, { path, before, after }) => setAt(current, path, way === 'forward' ? after : before),
		value
	) as T;
}

function setAt(value: unknown, path: readonly (string | number)[], to: unknown): unknown {
	const [key, ...rest] = path;
	if (key === undefined) return to;
	if (Array.isArray(value))
		return value.map((item, n) => (n === Number(key) ? (rest.length ? setAt(item, rest, to) : to) : item));
	const before = value as Container;
	const name = String(key);
	const next = rest.length ? setAt(own(before, name), rest, to) : to;
	// Entries, not assignment: they keep the order of keys, and no key is special.
	const entries = Object.entries(before).flatMap(([known, item]): [string, unknown][] =>
		known !== name ? [[known, item]] : next === undefined ? [] : [[known, next]]
	);
	return Object.fromEntries(Object.hasOwn(before, name) || next === undefined ? entries : [...entries, [name, next]]);
}
