import { remembered } from '../../../basics/remembered';
import { parseShell } from './parse';
import { BUILTINS } from './builtins';
import { computeCondition, ConditionFault } from './conditions';
import { Expander } from './expand';
import { matches } from './pattern';
import { assign } from './assign';
import { redirected } from './redirect';
import {
	ExitShell,
	NeverRests,
	fail,
	LeaveLoop,
	ReturnFrom,
	scalar,
	set,
	type Input,
	type Output,
	type Shell,
	type ShellHost,
	type Step,
	type Value
} from './state';
import type { Assignment, Command, Statement, Word } from './syntax';

/** All that a run of a script begins with. */
export interface ScriptRun {
	readonly host: ShellHost;
	readonly text: string;
	/** What $0 is, and where the script stands. */
	readonly name: string;
	readonly args: readonly string[];
	readonly isBash: boolean;
	readonly env: ReadonlyMap<string, string>;
	readonly stdin: string;
	readonly cwd: string;
	readonly out: Output;
	readonly err: Output;
}

/** Turns of loops without any program in them: more is a loop that spins for ever. */
const MOST_TURNS = 20_000;
/** Functions within functions, and $( ) within $( ). */
const DEEPEST = 100;
const expander = new Expander((shell, script) => captured(shell, script));

/** A timer runs the same script hundreds of times a week. */
const readOnce = remembered(200, parseShell);

/**
 * A script as a generator: it yields each program that it wants to be run, and gives its exit code. Time passes only in programs.
 * A loop that spins without any program in it throws `NeverRests`. What is not known of the language ends it with 2, as an error of syntax does, and is said to the host.
 */
export function* runScript(run: ScriptRun): Step<number> {
	const parsed = readOnce(run.text);
	if (!parsed.ok) {
		const { message, where } = parsed.faults[0]!;
		run.host.unknown(`${run.name}, ${where}: ${message}`);
		run.err.write(`${run.name}: ${where}: ${message}\n`);
		return 2;
	}
	const shell: Shell = {
		host: run.host,
		name: run.name,
		source: run.name,
		isBash: run.isBash,
		variables: new Map(run.env),
		exported: new Set(run.env.keys()),
		functions: new Map(),
		args: [...run.args],
		options: { errexit: false, nounset: false, pipefail: false },
		status: 0,
		cwd: run.cwd,
		onExit: null,
		guarded: 0,
		ranWithin: false,
		depth: 0,
		turns: { sinceRest: 0 },
		stdin: { text: run.stdin, at: 0 },
		out: run.out,
		err: run.err,
		locals: []
	};
	return yield* toItsEnd(shell, parsed.value);
}

/** Statements up to an exit, and what was to be done at the end. */
function* toItsEnd(shell: Shell, statements: readonly Statement[]): Step<number> {
	let code: number;
	try {
		yield* all(shell, statements);
		code = shell.status;
	} catch (error) {
		if (error instanceof ExitShell || error instanceof ReturnFrom) code = error.code;
		else if (error instanceof LeaveLoop) code = shell.status;
		else throw error;
	}
	const { onExit } = shell;
	if (onExit === null) return code;
	shell.onExit = null;
	shell.status = code;
	const parsed = parseShell(onExit);
	if (!parsed.ok) return code;
	try {
		yield* all(shell, parsed.value);
	} catch (error) {
		if (error instanceof ExitShell) return error.code;
		throw error;
	}
	return code;
}

function* captured(shell: Shell, script: readonly Statement[]): Step<string> {
	let text = '';
	const inner = subshell(shell, { write: (piece) => void (text += piece) });
	// Without -e within: bash switches it off there, and dash's own is the same for what we write.
	if (shell.isBash) inner.options.errexit = false;
	shell.status = yield* toItsEnd(inner, script);
	shell.ranWithin = true;
	return text;
}

function subshell(shell: Shell, out: Output = shell.out): Shell {
	if (shell.depth >= DEEPEST) fail(shell, 'nested too deep');
	return {
		...shell,
		variables: new Map(
			[...shell.variables].map(([name, value]) => [name, value instanceof Map ? new Map(value) : value])
		),
		exported: new Set(shell.exported),
		functions: new Map(shell.functions),
		args: [...shell.args],
		options: { ...shell.options },
		onExit: null,
		depth: shell.depth + 1,
		out,
		locals: []
	};
}

/**
 * Statements one after another: pipelines joined by && and ||. A failure ends a script under -e only where it is the last one's, and
 * nothing asks about it. Each command passes through here, so what it needs is done here and not a call further down.
 */
function* all(shell: Shell, statements: readonly Statement[]): Step<void> {
	for (const statement of statements)
		for (let n = 0; n < statement.length; n++) {
			const { join, pipeline } = statement[n]!;
			if (join === '&&' && shell.status !== 0) continue;
			if (join === '||' && shell.status === 0) continue;
			const isAsked = pipeline.negated || n < statement.length - 1;
			if (isAsked) shell.guarded++;
			try {
				const { commands } = pipeline;
				yield* commands.length === 1 ? command(shell, commands[0]!) : piped(shell, commands);
			} finally {
				if (isAsked) shell.guarded--;
			}
			if (pipeline.negated) shell.status = shell.status === 0 ? 1 : 0;
			if (!isAsked && shell.status !== 0 && shell.options.errexit && shell.guarded === 0)
				throw new ExitShell(shell.status);
		}
}

/** Whether statements end well; within them no failure ends the script. */
function* holds(shell: Shell, statements: readonly Statement[]): Step<boolean> {
	shell.guarded++;
	try {
		yield* all(shell, statements);
	} finally {
		shell.guarded--;
	}
	return shell.status === 0;
}

/** One after another, each with what the one before has written. */
function* piped(shell: Shell, commands: readonly Command[]): Step<void> {
	let input: Input = shell.stdin;
	const codes: number[] = [];
	for (const [n, one] of commands.entries()) {
		let text = '';
		const isLast = n === commands.length - 1;
		const inner = subshell(shell, isLast ? shell.out : { write: (piece) => void (text += piece) });
		inner.stdin = input;
		codes.push(yield* toItsEnd(inner, [[{ join: null, pipeline: { negated: false, commands: [one] } }]]));
		input = { text, at: 0 };
	}
	shell.status = shell.options.pipefail ? (codes.findLast((code) => code !== 0) ?? 0) : codes.at(-1)!;
}

function* command(shell: Shell, one: Command): Step<void> {
	if (one.kind === 'function') {
		shell.functions.set(one.name, one.body);
		shell.status = 0;
		return;
	}
	const files = one.redirects.length === 0 ? NO_FILES : yield* redirected(expander, shell, one.redirects);
	if (!files) return;
	try {
		if (one.kind === 'simple') yield* simple(shell, one.assignments, one.words);
		else yield* compound(shell, one);
	} finally {
		files.back();
	}
}

function* compound(shell: Shell, one: Exclude<Command, { kind: 'function' | 'simple' }>): Step<void> {
	switch (one.kind) {
		case 'if': {
			for (const { when, then } of one.branches) if (yield* holds(shell, when)) return yield* all(shell, then);
			shell.status = 0;
			return yield* all(shell, one.otherwise);
		}
		case 'while':
			return yield* loop(shell, one.body, function* () {
				return (yield* holds(shell, one.when)) !== one.until;
			});
		case 'for': {
			const values = one.words === null ? [...shell.args] : [];
			for (const word of one.words ?? []) values.push(...(yield* expander.fields(shell, word)));
			let n = 0;
			// eslint-disable-next-line require-yield -- it has the shape of those that ask for programs
			return yield* loop(shell, one.body, function* () {
				if (n >= values.length) return false;
				set(shell, one.name, values[n++]!);
				return true;
			});
		}
		case 'for-arithmetic': {
			yield* expander.arithmetic(shell, one.start);
			let first = true;
			return yield* loop(shell, one.body, function* () {
				if (!first) yield* expander.arithmetic(shell, one.step);
				first = false;
				return (yield* expander.arithmetic(shell, one.test)) !== 0 || one.test.length === 0;
			});
		}
		case 'case': {
			const subject = yield* expander.text(shell, one.word);
			shell.status = 0;
			for (const { patterns, body } of one.arms)
				for (const pattern of patterns)
					if (matches(subject, yield* expander.pattern(shell, pattern))) return yield* all(shell, body);
			return;
		}
		case 'group':
			if (!one.subshell) return yield* all(shell, one.body);
			shell.status = yield* toItsEnd(subshell(shell), one.body);
			return;
		case 'arithmetic':
			shell.status = (yield* expander.arithmetic(shell, one.text)) === 0 ? 1 : 0;
			return;
		case 'test': {
			const words: { text: string; pattern: string; isSign: boolean }[] = [];
			for (const word of one.words)
				words.push({
					...(yield* expander.both(shell, word)),
					isSign: word.length === 1 && word[0]!.kind === 'text' && !word[0]!.quoted
				});
			try {
				shell.status = computeCondition(shell, words, true) ? 0 : 1;
			} catch (error) {
				if (!(error instanceof ConditionFault)) throw error;
				shell.err.write(`${shell.name}: ${error.message}\n`);
				shell.status = 2;
			}
		}
	}
}

function* loop(shell: Shell, body: readonly Statement[], goesOn: () => Step<boolean>): Step<void> {
	let last = 0;
	while (yield* goesOn()) {
		if (++shell.turns.sinceRest > MOST_TURNS) {
			shell.host.unknown(`${shell.name}: a loop that never rests`);
			throw new NeverRests(shell.name);
		}
		shell.status = 0;
		try {
			yield* all(shell, body);
		} catch (error) {
			if (!(error instanceof LeaveLoop)) throw error;
			if (error.levels > 1) {
				error.levels--;
				throw error;
			}
			if (error.how === 'break') {
				last = 0;
				break;
			}
			shell.status = 0;
		}
		last = shell.status;
	}
	shell.status = last;
}

function* simple(shell: Shell, assignments: readonly Assignment[], words: readonly Word[]): Step<void> {
	const argv: string[] = [];
	shell.ranWithin = false;
	for (const word of words)
		if (isDeclared(shell, argv, word)) argv.push(yield* expander.text(shell, word));
		else argv.push(...(yield* expander.fields(shell, word)));
	if (argv.length === 0) {
		for (const one of assignments) yield* assign(expander, shell, one);
		// The status of a command within a value stays; without one all went well.
		if (!shell.ranWithin) shell.status = 0;
		return;
	}
	const [name, ...args] = argv as [string, ...string[]];
	const body = shell.functions.get(name);
	const builtin = Object.hasOwn(BUILTINS, name) ? BUILTINS[name] : undefined;
	if (!body && !builtin) return yield* program(shell, argv, assignments);
	// Values for this command alone.
	const before = new Map<string, Value | undefined>();
	for (const one of assignments) {
		before.set(one.name, shell.variables.get(one.name));
		yield* assign(expander, shell, one);
	}
	try {
		if (body) yield* call(shell, name, body, args);
		else shell.status = builtin!(shell, args);
	} finally {
		// Special ones keep what is assigned before them, but for bash. Source: POSIX.1-2017, 2.14.
		if (shell.isBash || !SPECIAL.has(name)) restore(shell, before);
	}
}

/** A value behind local and its like is one word to bash, whatever stands in it. Source: bash(1), SIMPLE COMMANDS, "declaration commands". */
const isDeclared = ({ isBash }: Shell, [name]: readonly string[], [first]: Word): boolean =>
	isBash &&
	(name === 'local' || name === 'export' || name === 'readonly') &&
	first?.kind === 'text' &&
	!first.quoted &&
	/^[A-Za-z_]\w*=/.test(first.text);

function* call(shell: Shell, name: string, body: Command, args: string[]): Step<void> {
	if (shell.depth >= DEEPEST) fail(shell, `${name}: nested too deep`);
	const before = shell.args;
	shell.args = args;
	shell.depth++;
	shell.locals.push(new Map());
	try {
		yield* command(shell, body);
	} catch (error) {
		if (!(error instanceof ReturnFrom)) throw error;
		shell.status = error.code;
	} finally {
		restore(shell, shell.locals.pop()!);
		shell.args = before;
		shell.depth--;
	}
}

function restore(shell: Shell, before: ReadonlyMap<string, Value | undefined>): void {
	for (const [name, value] of before)
		if (value === undefined) shell.variables.delete(name);
		else shell.variables.set(name, value);
}

function* program(shell: Shell, argv: readonly string[], assignments: readonly Assignment[]): Step<void> {
	const env = new Map<string, string>();
	for (const name of shell.exported) env.set(name, scalar(shell.variables.get(name)) ?? '');
	for (const { name, value } of assignments) if (!('list' in value)) env.set(name, yield* expander.text(shell, value));
	shell.turns.sinceRest = 0;
	const ended = yield {
		argv,
		env,
		stdin: shell.stdin.text.slice(shell.stdin.at),
		stdinFile: shell.stdin.file ?? null,
		cwd: shell.cwd
	};
	shell.out.write(ended.out);
	shell.err.write(ended.err);
	shell.status = ended.code;
}

const SPECIAL = new Set([
	':',
	'break',
	'continue',
	'exit',
	'export',
	'readonly',
	'return',
	'set',
	'shift',
	'trap',
	'unset'
]);
const NO_FILES = { back: () => {} };
