import { matches } from './pattern';
import { resolvePath, type Shell } from './state';

/** Files, texts and numbers compared, for test, [ and [[. Source: POSIX.1-2017, test; bash(1), CONDITIONAL EXPRESSIONS. */
const UNARY = /^-[efdhLnrswxz]$/;
const BINARY = new Set(['=', '==', '!=', '-eq', '-ne', '-lt', '-le', '-gt', '-ge', '<', '>', '=~']);

/** What a test that cannot be judged throws: status 2. Source: POSIX.1-2017, XCU, test. */
export class ConditionFault extends Error {}

function unary(shell: Shell, operator: string, operand: string): boolean {
	if (operator === '-n') return operand !== '';
	if (operator === '-z') return operand === '';
	const path = resolvePath(shell, operand);
	const kind = operand === '' ? null : shell.host.kind(path);
	switch (operator) {
		case '-f':
			return kind === 'file';
		case '-d':
			return kind === 'folder';
		case '-s':
			return (shell.host.read(path) ?? '') !== '';
		case '-x':
			return kind === 'folder' || shell.host.isExecutable(path);
		case '-w':
			return kind !== null && shell.host.isWritable(path);
		case '-h':
		case '-L':
			return false;
		default:
			return kind !== null;
	}
}

function whole(text: string): number {
	if (!/^\s*[-+]?\d+\s*$/.test(text)) throw new ConditionFault(`${text}: integer expected`);
	return Number(text);
}

function binary(left: string, operator: string, right: string, asPattern: boolean): boolean {
	switch (operator) {
		case '=':
		case '==':
			return asPattern ? matches(left, right) : left === right;
		case '!=':
			return asPattern ? !matches(left, right) : left !== right;
		case '<':
			return left < right;
		case '>':
			return left > right;
		case '-eq':
			return whole(left) === whole(right);
		case '-ne':
			return whole(left) !== whole(right);
		case '-lt':
			return whole(left) < whole(right);
		case '-le':
			return whole(left) <= whole(right);
		case '-gt':
			return whole(left) > whole(right);
		case '-ge':
			return whole(left) >= whole(right);
	}
	throw new ConditionFault(`${operator} is not known here`);
}

/** An expression out of words that are expanded already. In [[ ]] the right side of a comparison is a pattern, kept escaped. */
export function computeCondition(
	shell: Shell,
	words: readonly { text: string; pattern: string; isSign: boolean }[],
	doubled: boolean
): boolean {
	let at = 0;
	const AND = doubled ? '&&' : '-a';
	const OR = doubled ? '||' : '-o';
	const is = (sign: string): boolean => words[at]?.text === sign && (!doubled || words[at]!.isSign);
	const or = (): boolean => {
		let value = and();
		while (is(OR)) {
			at++;
			const right = and();
			value ||= right;
		}
		return value;
	};
	const and = (): boolean => {
		let value = not();
		while (is(AND)) {
			at++;
			const right = not();
			value &&= right;
		}
		return value;
	};
	const not = (): boolean => {
		if (words[at]?.text === '!' && words.length - at > 1) {
			at++;
			return !not();
		}
		if (is('(') && words.length - at > 2) {
			at++;
			const value = or();
			if (!is(')')) throw new ConditionFault('")" is missing');
			at++;
			return value;
		}
		return primary();
	};
	const primary = (): boolean => {
		const first = words[at];
		if (!first) throw new ConditionFault('argument expected');
		const operator = words[at + 1]?.text ?? '';
		if (BINARY.has(operator) && words[at + 2]) {
			const right = words[at + 2]!;
			at += 3;
			return binary(first.text, operator, doubled ? right.pattern : right.text, doubled);
		}
		if (UNARY.test(first.text) && words[at + 1]) {
			at += 2;
			return unary(shell, first.text, words[at - 1]!.text);
		}
		at++;
		return first.text !== '';
	};
	if (words.length === 0) return false;
	const value = or();
	if (at < words.length) throw new ConditionFault(`"${words[at]!.text}" is not expected`);
	return value;
}
