import type { Command } from './syntax';

/** What a shell can ask of the machine that it runs on. Paths are absolute. */
export interface ShellHost {
	/** Null: there is no such file, or it is a folder. */
	read(path: string): string | null;
	/** A sentence of the kernel's when it cannot be written. */
	write(path: string, text: string, append: boolean): string | null;
	kind(path: string): 'file' | 'folder' | 'device' | null;
	/** Names in a folder, sorted; empty when it is none. */
	list(path: string): readonly string[];
	isExecutable(path: string): boolean;
	isWritable(path: string): boolean;
	/** The program of that name in PATH; null: there is none. */
	find(name: string): string | null;
	/** What it does not simulate, said once. */
	unknown(what: string): void;
}

/** A program that the script runs: the machine answers when it has ended. */
export interface Spawn {
	readonly argv: readonly string[];
	readonly env: ReadonlyMap<string, string>;
	readonly stdin: string;
	/** The file that standard input is, where it is one: its bytes may be no text. */
	readonly stdinFile?: string | null;
	readonly cwd: string;
}
/** How a script ended, and all that it printed. */
export interface Ended {
	readonly code: number;
	readonly out: string;
	readonly err: string;
}
/** A part of a script under way: asks for programs, gives a value. */
export type Step<T> = Generator<Spawn, T, Ended>;

/** A text that is read from `at` on; shared by all that read from it. */
export interface Input {
	text: string;
	at: number;
	file?: string;
}
/** Where a command prints to. */
export interface Output {
	write(text: string): void;
}

/** A scalar, or an indexed array by its places. */
export type Value = string | Map<number, string>;

/** Everything that a shell knows while it runs; a subshell gets a copy. */
export interface Shell {
	readonly host: ShellHost;
	readonly name: string;
	/** The file that the script stands in: BASH_SOURCE. */
	readonly source: string;
	/** bash, or a plain POSIX shell, which knows no arrays and no [[ ]]. */
	readonly isBash: boolean;
	variables: Map<string, Value>;
	exported: Set<string>;
	functions: Map<string, Command>;
	args: string[];
	options: { errexit: boolean; nounset: boolean; pipefail: boolean };
	status: number;
	cwd: string;
	onExit: string | null;
	/** Within a condition a failure ends nothing. */
	guarded: number;
	/** A $(…) ran while words were expanded. */
	ranWithin: boolean;
	depth: number;
	/** Turns of loops since a program was last run; subshells count together. */
	readonly turns: { sinceRest: number };
	stdin: Input;
	out: Output;
	err: Output;
	locals: Map<string, Value | undefined>[];
}

/** Thrown by `exit`, caught where the shell began. */
export class ExitShell extends Error {
	constructor(readonly code: number) {
		super(`exit ${code}`);
	}
}
/** Thrown by a loop that would spin for ever: the script never ends, and nobody need wait for it. */
export class NeverRests extends Error {}
/** Thrown by `return`, caught at the call of the function. */
export class ReturnFrom extends Error {
	constructor(readonly code: number) {
		super(`return ${code}`);
	}
}
/** Thrown by `break` and `continue`, caught by the loops that they pass. */
export class LeaveLoop extends Error {
	constructor(
		readonly how: 'break' | 'continue',
		public levels: number
	) {
		super(how);
	}
}

/** Ends the shell as an error of the script's own language does. */
export function fail(shell: Shell, words: string): never {
	shell.err.write(`${shell.name}: ${words}\n`);
	throw new ExitShell(shell.isBash ? 1 : 2);
}

/** The value of a variable or special parameter; undefined when it is unset. Source: POSIX.1-2017, XCU 2.5. */
export function get(shell: Shell, name: string): Value | undefined {
	switch (name) {
		case '?':
			return String(shell.status);
		case '#':
			return String(shell.args.length);
		case '$':
			return '1000';
		case '0':
			return shell.name;
		case '-':
			return '';
		case 'EUID':
		case 'UID':
			return shell.isBash ? '0' : shell.variables.get(name);
		case 'BASH_SOURCE':
			return shell.isBash ? new Map([[0, shell.source]]) : undefined;
	}
	if (/^\d+$/.test(name)) return shell.args[Number(name) - 1];
	return shell.variables.get(name);
}

/** Sets a variable as it is, in place of what it held. */
export const set = (shell: Shell, name: string, value: Value): void => void shell.variables.set(name, value);

/** A scalar stands at place 0 of an array, and the other way round. */
export const scalar = (value: Value | undefined): string | undefined => (value instanceof Map ? value.get(0) : value);
/** All elements of an array in the order of their places; of a scalar, the one. */
export const elements = (value: Value | undefined): string[] =>
	value === undefined
		? []
		: value instanceof Map
			? [...value.entries()].sort(([a], [b]) => a - b).map(([, element]) => element)
			: [value];

const IS_RESOLVED = /^(?:\/[^/.][^/]*)+$/;
/** An absolute path without "." and "..", from where the shell stands. */
export const resolvePath = (shell: Pick<Shell, 'cwd'>, path: string): string => {
	if (IS_RESOLVED.test(path)) return path;
	const steps: string[] = [];
	for (const step of (path.startsWith('/') ? path : `${shell.cwd}/${path}`).split('/')) {
		if (step === '..') steps.pop();
		else if (step !== '' && step !== '.') steps.push(step);
	}
	return `/${steps.join('/')}`;
};
