import type { z } from 'zod';
import { safely, TOO_MUCH } from '../basics/safely';

/** What was set aside to make a value fit: where it stood, why, and as what. */
export interface Mended<T> {
	readonly value: T;
	readonly changed: readonly MendedPlace[];
}
/** One place where something had to give way. */
interface MendedPlace {
	readonly where: string;
	readonly why: string;
	readonly raw: unknown;
	/** What became of it. */
	readonly now: 'left out' | 'cut' | 'set to its default';
}
type Place = readonly (string | number)[];
type Container = Record<string | number, unknown>;

const ROUNDS = 12;
const isContainer = (value: unknown): value is Container => typeof value === 'object' && value !== null;

/**
 * As much of a value as its schema takes: entries of lists and keys of records that do not fit go, a list that is too long is
 * cut, and any other setting is taken from `fallback`. Null when even that does not fit.
 */
export function mend<T>(schema: z.ZodType<T>, raw: unknown, fallback: unknown): Mended<T> | null {
	const changed: Mended<T>['changed'][number][] = [];
	let value = raw;
	for (let round = 0; round < ROUNDS; round++) {
		const parsed = safely(schema, value);
		if (parsed.success) return { value: parsed.data, changed };
		// Nobody knows what of it to replace, and all of it would be.
		if (parsed.error.issues[0]!.message === TOO_MUCH) return null;
		const found = new Map<string, { place: Place; issue: z.core.$ZodIssue }>();
		for (const issue of parsed.error.issues) {
			const place = placeOf(issue, value, fallback);
			if (!found.has(JSON.stringify(place))) found.set(JSON.stringify(place), { place, issue });
		}
		// From the last entry to the first, so that the places of those before it still hold.
		for (const { place, issue } of [...found.values()].sort((a, b) => fromLast(a.place, b.place))) {
			const there = valueAt(value, place);
			const most = mostOf(issue, there);
			const instead = most === null ? valueAt(fallback, place) : (there as unknown[]).slice(0, most);
			if (there === undefined && instead === undefined) continue;
			const now = most !== null ? 'cut' : instead === undefined ? 'left out' : 'set to its default';
			changed.push({ where: place.join('.'), why: issue.message, raw: there, now });
			value = replaceAt(value, place, structuredClone(instead));
		}
	}
	return null;
}

/** So many entries are allowed where a list has more; null where it is something else that is wrong. */
const mostOf = (issue: z.core.$ZodIssue, there: unknown): number | null =>
	issue.code === 'too_big' && Array.isArray(there) && there.length > Number(issue.maximum)
		? Number(issue.maximum)
		: null;

/** The smallest thing that can go or be replaced: the innermost entry of a list, a key of a record, else what the fallback knows. */
function placeOf(issue: z.core.$ZodIssue, value: unknown, fallback: unknown): Place {
	const path = issue.path.map((step) => (typeof step === 'symbol' ? String(step) : step));
	for (let end = path.length; end > 0; end--)
		if (Array.isArray(valueAt(value, path.slice(0, end - 1)))) return path.slice(0, end);
	for (let end = path.length; end > 0; end--) {
		const known = valueAt(fallback, path.slice(0, end));
		if (known !== undefined || isContainer(valueAt(fallback, path.slice(0, end - 1)))) return path.slice(0, end);
	}
	return [];
}

/** `undefined` takes away what stands there. */
function replaceAt(value: unknown, [step, ...rest]: Place, instead: unknown): unknown {
	if (step === undefined) return instead;
	if (Array.isArray(value)) {
		const at = Number(step);
		return rest.length === 0 && instead === undefined
			? value.toSpliced(at, 1)
			: value.with(at, replaceAt(value[at], rest, instead));
	}
	const entries = isContainer(value) ? Object.entries(value).filter(([key]) => key !== String(step)) : [];
	const next = replaceAt(isContainer(value) ? value[step] : undefined, rest, instead);
	return Object.fromEntries(next === undefined ? entries : [...entries, [String(step), next]]);
}

const valueAt = (value: unknown, place: Place): unknown =>
	place.reduce<unknown>(
		(there, step) => (isContainer(there) && Object.hasOwn(there, step) ? there[step] : undefined),
		value
	);

function fromLast(a: Place, b: Place): number {
	for (let n = 0; n < Math.min(a.length, b.length); n++) {
		const [x, y] = [a[n]!, b[n]!];
		if (x !== y) return typeof x === 'number' && typeof y === 'number' ? y - x : x < y ? 1 : -1;
	}
	return b.length - a.length;
}
