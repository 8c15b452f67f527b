/**
 * A user's mistake is a value, never an exception: every reader gives either what it read or all the faults it found.
 * `code` is for programs, `message` for people: what is wrong, then what to do.
 */
export interface Fault {
	readonly code: string;
	readonly message: string;
	/** Line number (from 1), path in a document, or whatever leads the person to the place. */
	readonly where?: string;
}

/** A value, or what is wrong: readers return it and never throw. */
export type Result<T> =
	{ readonly ok: true; readonly value: T } | { readonly ok: false; readonly faults: readonly Fault[] };

/** A good result. */
export const ok = <T>(value: T): Result<T> => ({ ok: true, value });

/** A bad one: a code for programs, a sentence for people, and the place where that is known. */
export const fault = (code: string, message: string, where?: string): Result<never> => ({
	ok: false,
	faults: [where === undefined ? { code, message } : { code, message, where }]
});

/** One sentence for people from all the faults. */
export const sentence = (faults: readonly Fault[]): string =>
	faults.map((f) => (f.where ? `${f.where}: ${f.message}` : f.message)).join(' ');
