import { alike } from '../basics/alike';
import { fault, ok, type Result } from '../basics/result';
import { diffList, moveWithin, type ListChange } from './patchList';

/** A key of an object, a place of a list without ids, or an entry of a list by what it is known by. */
type PathStep = string | number | { readonly id: string } | { readonly location: string };
/** From the root to a value: keys and indices. */
export type Path = readonly PathStep[];

/** A value in place of another. */
interface ValueChange {
	readonly path: Path;
	/** Absent or `undefined`: the key was not there. */
	readonly before?: unknown;
	readonly after?: unknown;
}
/** One difference between two values, forwards and back. */
export type Change = ValueChange | (ListChange & { readonly path: Path });

/** An object or a list, by key. */
export type Container = Record<string | number, unknown>;
const isContainer = (value: unknown): value is Container => typeof value === 'object' && value !== null;

/** Never what a key happens to be called in every object. */
const own = (container: Container, key: string): unknown =>
	Object.hasOwn(container, key) ? container[key] : undefined;

/** Whether it is entries of a list that changed, by their ids. */
export const isListChange = (change: Change): change is ListChange & { readonly path: Path } => 'by' in change;
/** A step of a path as text. */
export const stepText = (step: PathStep): string =>
	typeof step === 'object' ? ('id' in step ? `#${step.id}` : `@${step.location}`) : String(step);

/**
 * The difference between two plain JSON values, small enough to keep a long history of. Entries of a list are known by
 * their id, or else by their location, never by their place: so a change cannot hit another entry than the one it was made in.
 */
export function diff(before: unknown, after: unknown, path: Path = []): Change[] {
	if (Object.is(before, after)) return [];
	if (Array.isArray(before) && Array.isArray(after)) {
		const keyed = diffList(before, after);
		if (keyed) {
			const inside = keyed.both.flatMap(({ step, before: a, after: b }) => diff(a, b, [...path, step]));
			return keyed.change ? [...inside, { path, ...keyed.change }] : inside;
		}
		if (before.length !== after.length) return [{ path, before, after }];
		return before.flatMap((item, n) => diff(item, after[n], [...path, n]));
	}
	if (!isContainer(before) || !isContainer(after) || Array.isArray(before) || Array.isArray(after))
		return [{ path, before, after }];
	return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((key) =>
		diff(own(before, key), own(after, key), [...path, key])
	);
}

/**
 * Applies changes forward, or takes them back. Gives a new value that shares what did not change.
 * Fault: `changes-unfit`, when the value is not what the changes were made from; nothing is applied then.
 */
export function applyChanges<T>(value: T, changes: readonly Change[], way: 'forward' | 'back'): Result<T> {
	let current: unknown = value;
	for (const change of way === 'forward' ? changes : [...changes].reverse()) {
		const next = applyOne(current, change, way);
		if (next === UNFIT) return fault('changes-unfit', 'This step no longer fits what is there now.');
		current = next;
	}
	return ok(current as T);
}

const UNFIT = Symbol('unfit');

function applyOne(value: unknown, change: Change, way: 'forward' | 'back'): unknown {
	return setAt(value, change.path, (there) => {
		if (isListChange(change)) return Array.isArray(there) ? (moveWithin(there, change, way, alike) ?? UNFIT) : UNFIT;
		const [from, to] = way === 'forward' ? [change.before, change.after] : [change.after, change.before];
		return alike(there, from) ? to : UNFIT;
	});
}

function setAt(value: unknown, [step, ...rest]: Path, edit: (there: unknown) => unknown): unknown {
	if (step === undefined) return edit(value);
	if (!isContainer(value)) return UNFIT;
	if (typeof step === 'object' || typeof step === 'number') {
		if (!Array.isArray(value)) return UNFIT;
		const at = typeof step === 'number' ? step : placeOf(value, step);
		if (at < 0 || at >= value.length) return UNFIT;
		const next = setAt(value[at], rest, edit);
		return next === UNFIT ? UNFIT : value.with(at, next);
	}
	if (Array.isArray(value)) return UNFIT;
	const next = setAt(own(value, step), rest, edit);
	if (next === UNFIT) return UNFIT;
	// Entries, not assignment: they keep the order of keys, and no key is special.
	const entries = Object.entries(value).flatMap(([known, item]): [string, unknown][] =>
		known !== step ? [[known, item]] : next === undefined ? [] : [[known, next]]
	);
	return Object.fromEntries(Object.hasOwn(value, step) || next === undefined ? entries : [...entries, [step, next]]);
}

const placeOf = (list: readonly unknown[], step: { readonly id: string } | { readonly location: string }): number => {
	const [[key, wanted]] = Object.entries(step) as [[string, string]];
	return list.findIndex((item) => isContainer(item) && own(item, key) === wanted);
};
