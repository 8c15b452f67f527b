import type { Expander } from './expand';
import { ExitShell, resolvePath, type Output, type Shell, type Step } from './state';
import type { Redirect } from './syntax';

const NOWHERE: Output = { write: () => {} };

/** Redirections in force; null, with the status set, when a file cannot be opened. */
export function* redirected(
	expander: Expander,
	shell: Shell,
	redirects: readonly Redirect[]
): Step<{ back(): void } | null> {
	const { stdin, out, err } = shell;
	const back = (): void => void Object.assign(shell, { stdin, out, err });
	for (const { descriptor, operator, target } of redirects) {
		const text = yield* expander.text(shell, target);
		const refused = operator.endsWith('&')
			? duplicate(shell, descriptor, text)
			: open(shell, descriptor, operator, text);
		if (refused === null) continue;
		back();
		shell.err.write(`${shell.name}: ${refused}\n`);
		shell.status = 1;
		if (shell.options.errexit && shell.guarded === 0) throw new ExitShell(1);
		return null;
	}
	return { back };
}

function duplicate(shell: Shell, descriptor: number, text: string): string | null {
	const from = text === '1' ? shell.out : text === '2' ? shell.err : null;
	if (!from) return `${text}: ambiguous redirect`;
	if (descriptor === 1) shell.out = from;
	else shell.err = from;
	return null;
}

function open(shell: Shell, descriptor: number, operator: Redirect['operator'], text: string): string | null {
	const path = resolvePath(shell, text);
	if (operator === '<') {
		const found = path === '/dev/null' || path === '/dev/zero' ? '' : shell.host.read(path);
		if (found === null) return `${text}: No such file or directory`;
		shell.stdin = { text: found, at: 0, file: path };
		return null;
	}
	let output = NOWHERE;
	if (path !== '/dev/null') {
		const refused = shell.host.write(path, '', operator === '>>');
		if (refused !== null) return `${text}: ${refused}`;
		output = {
			write(piece) {
				if (piece !== '') shell.host.write(path, piece, true);
			}
		};
	}
	if (operator === '&>' || descriptor === 1) shell.out = output;
	if (operator === '&>' || descriptor === 2) shell.err = output;
	return null;
}
