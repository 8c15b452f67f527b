import type { Result } from '../../../basics/result';
import type { Expansion, Piece, Statement, Word } from './syntax';

/** Something in a script that is not known here: it is said, and the script is not run as if it were nothing. */
export class Unknown extends Error {}

/** Scripts within words within scripts. */
export const DEEPEST = 60;
const OPERATORS = [':-', ':=', ':+', ':?', '##', '%%', '//', '#', '%', '-', '+', ':', '/'] as const;

/** Words of a script, with what is expanded in them. */
export class Words {
	/** @param parseScript reads the script of a command that stands within a word */
	constructor(readonly parseScript: (text: string) => Result<readonly Statement[]>) {}

	/** The whole of a text as one word: of arithmetic, of a default. */
	parse(text: string, depth: number): Word {
		return this.read(text, 0, depth, true).pieces;
	}

	/** A word from `from` on, up to what parts words; `whole`: up to the end. */
	read(text: string, from: number, depth: number, whole: boolean): { pieces: Piece[]; length: number } {
		if (depth > DEEPEST) throw new Unknown('nested too deep');
		const pieces: Piece[] = [];
		let plain = '';
		const flush = (): void => {
			if (plain) pieces.push({ kind: 'text', text: plain, quoted: false });
			plain = '';
		};
		let at = from;
		while (at < text.length) {
			const c = text[at]!;
			if (!whole && /[\s;&|()<>]/.test(c)) break;
			if (c === "'") {
				const end = text.indexOf("'", at + 1);
				if (end < 0) throw new Unknown('a single quote is never closed');
				flush();
				pieces.push({ kind: 'text', text: text.slice(at + 1, end), quoted: true });
				at = end + 1;
			} else if (c === '"') {
				flush();
				at = this.#double(text, at + 1, pieces, depth);
			} else if (c === '\\') {
				flush();
				pieces.push({ kind: 'text', text: text[at + 1] ?? '', quoted: true });
				at += 2;
			} else if (c === '$') {
				flush();
				at = this.#dollar(text, at, false, pieces, depth);
			} else if (c === '`') throw new Unknown('a command between backticks');
			else {
				plain += c;
				at++;
			}
		}
		flush();
		return { pieces, length: at - from };
	}

	#double(text: string, from: number, pieces: Piece[], depth: number): number {
		let plain = '';
		let at = from;
		const before = pieces.length;
		// "" is an empty word; what stands beside "$@" may be none.
		const flush = (isEnd: boolean): void => {
			if (plain !== '' || (isEnd && pieces.length === before)) pieces.push({ kind: 'text', text: plain, quoted: true });
		};
		for (;;) {
			const c = text[at];
			if (c === undefined) throw new Unknown('a double quote is never closed');
			if (c === '"') {
				flush(true);
				return at + 1;
			}
			if (c === '`') throw new Unknown('a command between backticks');
			if (c === '\\' && /["$`\\]/.test(text[at + 1] ?? '')) {
				plain += text[at + 1];
				at += 2;
			} else if (c === '$') {
				flush(false);
				plain = '';
				at = this.#dollar(text, at, true, pieces, depth);
			} else {
				plain += c;
				at++;
			}
		}
	}

	/** $name, ${…}, $(…), $((…)); a lone $ stays. */
	#dollar(text: string, from: number, quoted: boolean, pieces: Piece[], depth: number): number {
		if (text.startsWith('$((', from)) {
			const end = closing(text, from + 1);
			if (text[end - 1] === ')') {
				const inner = text.slice(from + 3, end - 1);
				pieces.push({ kind: 'arithmetic', text: this.parse(inner, depth + 1), quoted });
				return end + 1;
			}
		}
		if (text[from + 1] === '(') {
			const end = closing(text, from + 1);
			const script = this.parseScript(text.slice(from + 2, end));
			if (!script.ok) throw new Unknown(script.faults[0]!.message);
			pieces.push({ kind: 'command', script: script.value, quoted });
			return end + 1;
		}
		if (text[from + 1] === '{') {
			const end = closing(text, from + 1);
			pieces.push({ kind: 'expand', expansion: this.#expansion(text.slice(from + 2, end), depth + 1), quoted });
			return end + 1;
		}
		const name = /^\$([A-Za-z_]\w*|[0-9@*#?$!-])/.exec(text.slice(from, from + 60));
		if (!name) {
			pieces.push({ kind: 'text', text: '$', quoted });
			return from + 1;
		}
		const expansion: Expansion = {
			name: name[1]!,
			index: null,
			length: false,
			operator: null,
			word: [],
			replacement: []
		};
		pieces.push({ kind: 'expand', expansion, quoted });
		return from + name[0].length;
	}

	#expansion(text: string, depth: number): Expansion {
		const length = text.startsWith('#') && text.length > 1;
		const body = length ? text.slice(1) : text;
		const head = /^([A-Za-z_]\w*|\d+|[@*#?$!-])(?:\[([^\]]*)\])?/.exec(body);
		if (!head) throw new Unknown(`\${${text}}`);
		const rest = body.slice(head[0].length);
		const operator = OPERATORS.find((known) => rest.startsWith(known)) ?? null;
		if (rest !== '' && !operator) throw new Unknown(`\${${text}}`);
		const index =
			head[2] === undefined ? null : head[2] === '@' || head[2] === '*' ? head[2] : this.parse(head[2], depth);
		const argument = rest.slice(operator?.length ?? 0);
		const parted = operator === '/' || operator === '//' ? partedAt(argument) : argument.length;
		return {
			name: head[1]!,
			index,
			length,
			operator,
			word: this.parse(argument.slice(0, parted), depth),
			replacement: this.parse(argument.slice(parted + 1), depth)
		};
	}
}

/** Where the bracket at `from` is closed: quotes, and brackets within, each with quotes of their own, are passed over. */
function closing(text: string, from: number): number {
	const open: { close: string; double: boolean }[] = [];
	for (let at = from; at < text.length; at++) {
		const c = text[at]!;
		const here = open.at(-1);
		if (c === '\\') at++;
		else if (c === "'" && !here?.double) {
			const end = text.indexOf("'", at + 1);
			if (end < 0) break;
			at = end;
		} else if (c === '"' && here) here.double = !here.double;
		else if (
			at === from ||
			(c === '$' && /[({]/.test(text[at + 1] ?? '')) ||
			(c === '(' && here?.close === ')' && !here.double)
		) {
			if (c === '$') at++;
			open.push({ close: text[at] === '{' ? '}' : ')', double: false });
		} else if (c === here?.close && !here.double) {
			open.pop();
			if (open.length === 0) return at;
		}
	}
	throw new Unknown(`"${text[from] === '{' ? '}' : ')'}" is missing`);
}

/** Where a pattern ends and what takes its place begins: at the first slash that is not quoted. */
function partedAt(text: string): number {
	let quote = '';
	for (let at = 0; at < text.length; at++) {
		const c = text[at]!;
		if (c === '\\') at++;
		else if (quote) quote = c === quote ? '' : quote;
		else if (c === '"' || c === "'") quote = c;
		else if (c === '/') return at;
	}
	return text.length;
}
