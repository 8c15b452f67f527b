import { computeCondition, ConditionFault } from './conditions';
import { ExitShell, fail, LeaveLoop, resolvePath, ReturnFrom, set, type Shell } from './state';

/** Commands that the shell itself brings. Each gives its exit code. Source: POSIX.1-2017, 2.14; bash(1), SHELL BUILTIN COMMANDS. */
type Builtin = (shell: Shell, args: readonly string[]) => number;

const code = (shell: Shell, text: string | undefined): number =>
	text === undefined ? shell.status : /^\d+$/.test(text) ? Number(text) & 255 : 2;
const NAME = /^[A-Za-z_]\w*$/;

function condition(shell: Shell, args: readonly string[]): number {
	try {
		const words = args.map((text) => ({ text, pattern: text, isSign: false }));
		return computeCondition(shell, words, false) ? 0 : 1;
	} catch (error) {
		if (!(error instanceof ConditionFault)) throw error;
		shell.err.write(`${shell.name}: test: ${error.message}\n`);
		return 2;
	}
}

/** One line of input into names; the last takes what is left. */
function read(shell: Shell, args: readonly string[]): number {
	const raw = args.includes('-r');
	const names = args.filter((arg) => arg !== '-r');
	const { stdin } = shell;
	if (stdin.at >= stdin.text.length) {
		for (const name of names) set(shell, name, '');
		return 1;
	}
	const end = stdin.text.indexOf('\n', stdin.at);
	let line = stdin.text.slice(stdin.at, end < 0 ? undefined : end);
	stdin.at = end < 0 ? stdin.text.length : end + 1;
	if (!raw) line = line.replace(/\\([^])/g, '$1');
	const keepsBlanks = shell.variables.get('IFS') === '';
	const words = keepsBlanks ? [line] : line.trim().split(/[ \t]+/);
	names.forEach((name, n) => {
		const isLast = n === names.length - 1;
		set(shell, name, isLast ? (keepsBlanks ? line : rest(line, n)) : (words[n] ?? ''));
	});
	return end < 0 ? 1 : 0;
}

/** The line without its first words, inner blanks kept. */
function rest(line: string, skipped: number): string {
	let left = line.trim();
	for (let n = 0; n < skipped; n++) left = left.replace(/^[^ \t]+/, '').trimStart();
	return left;
}

const ESCAPES: Readonly<Record<string, string>> = { n: '\n', t: '\t', r: '\r', '\\': '\\', a: '\x07', '0': '\0' };
const unescape = (text: string): string => text.replace(/\\([ntra\\0])/g, (_, c: string) => ESCAPES[c]!);

/** Source: POSIX.1-2017, printf; the format is used again as long as there are arguments. */
function formatPrintf(format: string, args: readonly string[]): string {
	const parts = unescape(format).split(/(%%|%[-0 +#]{0,5}\d{0,4}(?:\.\d{1,4})?[sdibxXcuo])/);
	const wants = parts.filter((part) => /^%[^%]/.test(part)).length;
	let out = '';
	let at = 0;
	do {
		for (const part of parts) {
			if (part === '%%') out += '%';
			else if (/^%[^%]/.test(part) && part.length > 1) out += formatOne(part, args[at++]);
			else out += part;
		}
	} while (wants > 0 && at < args.length);
	return out;
}

function formatOne(part: string, arg: string | undefined): string {
	const m = /^%([-0 +#]*)((?:[1-9]\d*)?)(?:\.(\d+))?([a-zA-Z])$/.exec(part)!;
	const [, flags, width, precision, kind] = m as unknown as [string, string, string, string | undefined, string];
	const number = Math.trunc(Number(arg ?? 0)) || 0;
	let text =
		kind === 's'
			? (arg ?? '').slice(0, precision === undefined ? undefined : Number(precision))
			: kind === 'b'
				? unescape(arg ?? '')
				: kind === 'c'
					? (arg ?? '').slice(0, 1)
					: kind === 'x'
						? number.toString(16)
						: kind === 'X'
							? number.toString(16).toUpperCase()
							: kind === 'o'
								? number.toString(8)
								: String(number);
	if (flags.includes('-')) text = text.padEnd(Number(width));
	else text = text.padStart(Number(width), flags.includes('0') && kind !== 's' ? '0' : ' ');
	return text;
}

function setOptions(shell: Shell, args: readonly string[]): number {
	for (let n = 0; n < args.length; n++) {
		const on = args[n]!.startsWith('-');
		if (args[n] === '--') {
			shell.args = args.slice(n + 1);
			return 0;
		}
		for (const letter of args[n]!.slice(1)) {
			if (letter === 'e') shell.options.errexit = on;
			else if (letter === 'u') shell.options.nounset = on;
			else if (letter === 'o') {
				const option = args[++n];
				if (option === 'pipefail') shell.options.pipefail = on;
				else shell.host.unknown(`set -o ${option}`);
			} else shell.host.unknown(`set -${letter}`);
		}
	}
	return 0;
}

/** name=value, name: for local, export and readonly. */
function declare(shell: Shell, args: readonly string[], each: (name: string) => void): number {
	for (const arg of args) {
		if (arg.startsWith('-')) continue;
		const equals = arg.indexOf('=');
		const name = equals < 0 ? arg : arg.slice(0, equals);
		if (!NAME.test(name)) return 1;
		each(name);
		if (equals >= 0) set(shell, name, arg.slice(equals + 1));
	}
	return 0;
}

/** The commands that the shell carries out itself, by name. Source: POSIX.1-2017, XCU 2.14; bash(1). */
export const BUILTINS: Readonly<Record<string, Builtin>> = {
	':': () => 0,
	true: () => 0,
	false: () => 1,
	echo(shell, args) {
		const bare = args[0] === '-n';
		const text = (bare ? args.slice(1) : args).join(' ');
		// dash decodes backslashes, bash does not.
		shell.out.write((shell.isBash ? text : unescape(text)) + (bare ? '' : '\n'));
		return 0;
	},
	printf(shell, args) {
		const [format = '', ...values] = args[0] === '--' ? args.slice(1) : args;
		shell.out.write(formatPrintf(format, values));
		return 0;
	},
	test: condition,
	'['(shell, args) {
		if (args.at(-1) !== ']') return fail(shell, '[: "]" is missing');
		return condition(shell, args.slice(0, -1));
	},
	cd(shell, args) {
		const path = resolvePath(shell, args[0] ?? '/root');
		if (shell.host.kind(path) !== 'folder') {
			shell.err.write(`${shell.name}: cd: ${args[0]}: No such file or directory\n`);
			return 1;
		}
		shell.cwd = path;
		return 0;
	},
	pwd(shell) {
		shell.out.write(`${shell.cwd}\n`);
		return 0;
	},
	read,
	exit: (shell, [text]) => {
		throw new ExitShell(code(shell, text));
	},
	return: (shell, [text]) => {
		throw new ReturnFrom(code(shell, text));
	},
	break: (_, [levels = '1']) => {
		throw new LeaveLoop('break', Number(levels));
	},
	continue: (_, [levels = '1']) => {
		throw new LeaveLoop('continue', Number(levels));
	},
	shift(shell, [count = '1']) {
		if (Number(count) > shell.args.length) return 1;
		shell.args = shell.args.slice(Number(count));
		return 0;
	},
	set: setOptions,
	export: (shell, args) => declare(shell, args, (name) => shell.exported.add(name)),
	readonly: (shell, args) => declare(shell, args, () => {}),
	local(shell, args) {
		const frame = shell.locals.at(-1);
		if (!frame) return fail(shell, 'local: can only be used in a function');
		return declare(shell, args, (name) => {
			if (!frame.has(name)) frame.set(name, shell.variables.get(name));
			shell.variables.delete(name);
		});
	},
	unset(shell, args) {
		for (const name of args) if (!name.startsWith('-')) shell.variables.delete(name);
		return 0;
	},
	trap(shell, [action, ...signals]) {
		if (signals.includes('EXIT') || signals.includes('0')) shell.onExit = action === '-' ? null : (action ?? null);
		return 0;
	},
	umask: () => 0,
	command(shell, [flag, name]) {
		if (flag !== '-v' || name === undefined) return 127;
		const found = shell.functions.has(name) || Object.hasOwn(BUILTINS, name) ? name : shell.host.find(name);
		if (found === null) return 1;
		shell.out.write(`${found}\n`);
		return 0;
	}
};
