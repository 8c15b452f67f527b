import { fault, ok, type Result } from '../../../basics/result';
import type { Assignment, Command, Expansion, Piece, Pipeline, Redirect, Statement, Word } from './syntax';

/** Something in a script that is not known here: it is said, and the script is not run as if it were nothing. */
class Unknown extends Error {}

const DEEPEST = 60;
const RESERVED = new Set(['then', 'do', 'done', 'fi', 'else', 'elif', 'esac', '}', ')', ';;']);

/** A script as its statements. Fault: `shell-syntax`, with the line: an error of the script, or a part of the language that is not known here. */
export function parseShell(text: string): Result<readonly Statement[]> {
	const parser = new Parser(text.replace(/\\\n/g, ''));
	try {
		const statements = parser.statements();
		parser.skipBlank(true);
		if (!parser.atEnd) throw new Unknown(`"${parser.rest.slice(0, 20)}" is not expected here`);
		return ok(statements);
	} catch (error) {
		if (!(error instanceof Unknown)) throw error;
		return fault('shell-syntax', error.message, `line ${parser.line}`);
	}
}

class Parser {
	#at = 0;
	#depth = 0;
	constructor(readonly text: string) {}

	get atEnd(): boolean {
		return this.#at >= this.text.length;
	}
	get rest(): string {
		return this.text.slice(this.#at, this.#at + 60);
	}
	get line(): number {
		let line = 1;
		for (let n = 0; n < this.#at; n++) if (this.text[n] === '\n') line++;
		return line;
	}

	#is(word: string): boolean {
		return this.text.startsWith(word, this.#at);
	}
	/** A reserved word, which ends where a word ends. */
	#isWord(word: string): boolean {
		return this.#is(word) && /^[\s;&|()<>]?$/.test(this.text.charAt(this.#at + word.length));
	}
	#take(word: string): void {
		if (!this.#is(word)) throw new Unknown(`"${word}" is missing before "${this.rest.slice(0, 20)}"`);
		this.#at += word.length;
	}

	/** Spaces and comments; line ends too where a statement may begin. */
	skipBlank(lines: boolean): void {
		for (;;) {
			const c = this.text[this.#at];
			if (c === ' ' || c === '\t' || c === '\r' || (lines && c === '\n')) this.#at++;
			else if (c === '#') while (!this.atEnd && this.text[this.#at] !== '\n') this.#at++;
			else return;
		}
	}

	statements(): Statement[] {
		if (++this.#depth > DEEPEST) throw new Unknown('nested too deep');
		const out: Statement[] = [];
		for (;;) {
			this.skipBlank(true);
			if (this.atEnd || this.#atReserved()) break;
			out.push(this.#statement());
			this.skipBlank(false);
			if (this.#is(';;')) break;
			if (this.#is('&') && !this.#is('&&')) throw new Unknown('a job in the background');
			if (this.#is(';') || this.#is('\n')) this.#at++;
			else if (!this.atEnd && !this.#atReserved())
				throw new Unknown(`"${this.rest.slice(0, 20)}" is not expected here`);
		}
		this.#depth--;
		return out;
	}

	#atReserved(): boolean {
		if (this.#is(')') || this.#is(';;')) return true;
		for (const word of RESERVED) if (/[a-z}]/.test(word[0]!) && this.#isWord(word)) return true;
		return false;
	}

	#statement(): Statement {
		const out: { join: '&&' | '||' | null; pipeline: Pipeline }[] = [{ join: null, pipeline: this.#pipeline() }];
		for (;;) {
			this.skipBlank(false);
			const join = this.#is('&&') ? '&&' : this.#is('||') ? '||' : null;
			if (!join) return out;
			this.#at += 2;
			this.skipBlank(true);
			out.push({ join, pipeline: this.#pipeline() });
		}
	}

	#pipeline(): Pipeline {
		let negated = false;
		if (this.#isWord('!')) {
			negated = true;
			this.#at++;
			this.skipBlank(false);
		}
		const commands = [this.#command()];
		for (;;) {
			this.skipBlank(false);
			if (!this.#is('|') || this.#is('||')) return { negated, commands };
			this.#at++;
			this.skipBlank(true);
			commands.push(this.#command());
		}
	}

	#command(): Command {
		if (this.#isWord('if')) return this.#if();
		if (this.#isWord('while') || this.#isWord('until')) return this.#while();
		if (this.#isWord('for')) return this.#for();
		if (this.#isWord('case')) return this.#case();
		if (this.#is('((')) return this.#arithmetic();
		if (this.#isWord('[[')) return this.#doubleTest();
		if (this.#isWord('{') || this.#is('(')) return this.#group();
		const name = /^([A-Za-z_]\w*)[ \t]*\(\)/.exec(this.rest);
		if (name) {
			this.#at += name[0].length;
			this.skipBlank(true);
			return { kind: 'function', name: name[1]!, body: this.#command() };
		}
		return this.#simple();
	}

	#block(...ends: readonly string[]): Statement[] {
		const body = this.statements();
		this.skipBlank(true);
		// Source: POSIX.1-2017, XCU 2.10.2: a compound list has a command.
		if (body.length === 0) throw new Unknown(`a command is missing before "${this.rest.slice(0, 20)}"`);
		if (!ends.some((end) => this.#isWord(end))) throw new Unknown(`"${ends[0]}" is missing`);
		return body;
	}

	#if(): Command {
		const branches: { when: Statement[]; then: Statement[] }[] = [];
		this.#take('if');
		for (;;) {
			const when = this.#block('then');
			this.#take('then');
			branches.push({ when, then: this.#block('fi', 'else', 'elif') });
			if (!this.#isWord('elif')) break;
			this.#take('elif');
		}
		let otherwise: Statement[] = [];
		if (this.#isWord('else')) {
			this.#take('else');
			otherwise = this.#block('fi');
		}
		this.#take('fi');
		return { kind: 'if', branches, otherwise, redirects: this.#redirects() };
	}

	#while(): Command {
		const until = this.#isWord('until');
		this.#take(until ? 'until' : 'while');
		const when = this.#block('do');
		const body = this.#loopBody();
		return { kind: 'while', until, when, body, redirects: this.#redirects() };
	}

	#loopBody(): Statement[] {
		this.skipBlank(true);
		this.#take('do');
		const body = this.#block('done');
		this.#take('done');
		return body;
	}

	#for(): Command {
		this.#take('for');
		this.skipBlank(false);
		if (this.#is('((')) {
			const parts = this.#arithmeticText().split(';');
			if (parts.length !== 3) throw new Unknown('for (( )) wants three parts');
			const [start, test, step] = parts.map((part) => parseWord(part.trim(), this.#depth)) as [Word, Word, Word];
			this.skipBlank(false);
			if (this.#is(';')) this.#at++;
			return { kind: 'for-arithmetic', start, test, step, body: this.#loopBody(), redirects: this.#redirects() };
		}
		const name = /^[A-Za-z_]\w*/.exec(this.rest)?.[0];
		if (!name) throw new Unknown('for wants a name');
		this.#at += name.length;
		this.skipBlank(true);
		let words: Word[] | null = null;
		if (this.#isWord('in')) {
			this.#take('in');
			words = [];
			for (;;) {
				this.skipBlank(false);
				if (this.atEnd || /[;\n]/.test(this.text[this.#at]!)) break;
				words.push(this.#word());
			}
		}
		this.skipBlank(false);
		if (this.#is(';')) this.#at++;
		return { kind: 'for', name, words, body: this.#loopBody(), redirects: this.#redirects() };
	}

	#case(): Command {
		this.#take('case');
		this.skipBlank(false);
		const word = this.#word();
		this.skipBlank(true);
		this.#take('in');
		const arms: { patterns: Word[]; body: Statement[] }[] = [];
		for (;;) {
			this.skipBlank(true);
			if (this.#isWord('esac')) break;
			if (this.#is('(')) this.#at++;
			const patterns: Word[] = [];
			for (;;) {
				this.skipBlank(false);
				patterns.push(this.#word());
				this.skipBlank(false);
				if (!this.#is('|')) break;
				this.#at++;
			}
			this.#take(')');
			const body = this.statements();
			arms.push({ patterns, body });
			this.skipBlank(true);
			if (this.#is(';;')) this.#at += 2;
		}
		this.#take('esac');
		return { kind: 'case', word, arms, redirects: this.#redirects() };
	}

	#group(): Command {
		const subshell = this.#is('(');
		this.#at++;
		const body = this.statements();
		this.skipBlank(true);
		this.#take(subshell ? ')' : '}');
		return { kind: 'group', subshell, body, redirects: this.#redirects() };
	}

	/** What stands between (( and )). */
	#arithmeticText(): string {
		this.#take('((');
		const end = this.text.indexOf('))', this.#at);
		let close = end;
		// A closing bracket of the expression may stand right before the two that end it.
		while (close >= 0 && this.text[close + 2] === ')') close++;
		if (close < 0) throw new Unknown('"))" is missing');
		const text = this.text.slice(this.#at, close);
		this.#at = close + 2;
		return text;
	}
	#arithmetic(): Command {
		return { kind: 'arithmetic', text: parseWord(this.#arithmeticText(), this.#depth), redirects: this.#redirects() };
	}

	#doubleTest(): Command {
		this.#take('[[');
		const words: Word[] = [];
		for (;;) {
			this.skipBlank(true);
			if (this.atEnd) throw new Unknown('"]]" is missing');
			if (this.#isWord(']]')) break;
			const sign = /^(?:&&|\|\||[()<>])/.exec(this.rest)?.[0];
			if (sign) {
				words.push([{ kind: 'text', text: sign, quoted: false }]);
				this.#at += sign.length;
			} else words.push(this.#word());
		}
		this.#take(']]');
		return { kind: 'test', words, redirects: this.#redirects() };
	}

	#simple(): Command {
		const assignments: Assignment[] = [];
		const words: Word[] = [];
		const redirects: Redirect[] = [];
		for (;;) {
			this.skipBlank(false);
			const redirect = this.#redirect();
			if (redirect) redirects.push(redirect);
			else if (this.atEnd || /[\n;&|()]/.test(this.text[this.#at]!)) break;
			else if (words.length === 0) {
				const assignment = this.#assignment();
				if (assignment) assignments.push(assignment);
				else words.push(this.#word());
			} else words.push(this.#word());
		}
		if (words.length + assignments.length + redirects.length === 0)
			throw new Unknown(`a command is missing before "${this.rest.slice(0, 20)}"`);
		return { kind: 'simple', assignments, words, redirects };
	}

	#assignment(): Assignment | null {
		const head = /^([A-Za-z_]\w*)(\[[^\]\n]*\])?(\+?)=/.exec(this.rest);
		if (!head) return null;
		this.#at += head[0].length;
		const index = head[2] === undefined ? null : parseWord(head[2].slice(1, -1), this.#depth);
		const common = { name: head[1]!, index, append: head[3] === '+' };
		if (this.atEnd || /[\s;&|)]/.test(this.text[this.#at]!)) return { ...common, value: [] };
		if (!this.#is('(')) return { ...common, value: this.#word() };
		this.#at++;
		const list: Word[] = [];
		for (;;) {
			this.skipBlank(true);
			if (this.#is(')')) break;
			if (this.atEnd) throw new Unknown('")" is missing');
			list.push(this.#word());
		}
		this.#at++;
		return { ...common, value: { list } };
	}

	#redirects(): Redirect[] {
		const out: Redirect[] = [];
		for (;;) {
			this.skipBlank(false);
			const next = this.#redirect();
			if (!next) return out;
			out.push(next);
		}
	}

	#redirect(): Redirect | null {
		const head = /^(?:(\d)?(<&|>&|>>|>|<(?![<(]))|(&>))/.exec(this.rest);
		if (!head) {
			if (/^\d?<</.test(this.rest)) throw new Unknown('a document within the script');
			return null;
		}
		this.#at += head[0].length;
		this.skipBlank(false);
		const operator = (head[3] ?? head[2]) as Redirect['operator'];
		return {
			descriptor: head[1] ? Number(head[1]) : operator.startsWith('<') ? 0 : 1,
			operator,
			target: this.#word()
		};
	}

	#word(): Word {
		const { pieces, length } = readWord(this.text, this.#at, this.#depth, false);
		if (length === 0) throw new Unknown(`a word is missing before "${this.rest.slice(0, 20)}"`);
		this.#at += length;
		return pieces;
	}
}

/** The whole of a text as one word: of arithmetic, of a default. */
const parseWord = (text: string, depth: number): Word => readWord(text, 0, depth, true).pieces;

/** A word from `from` on, up to what parts words; `whole`: up to the end. */
function readWord(text: string, from: number, depth: number, whole: boolean): { pieces: Piece[]; length: number } {
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
			at = readDouble(text, at + 1, pieces, depth);
		} else if (c === '\\') {
			flush();
			pieces.push({ kind: 'text', text: text[at + 1] ?? '', quoted: true });
			at += 2;
		} else if (c === '$') {
			flush();
			at = readDollar(text, at, false, pieces, depth);
		} else if (c === '`') throw new Unknown('a command between backticks');
		else {
			plain += c;
			at++;
		}
	}
	flush();
	return { pieces, length: at - from };
}

function readDouble(text: string, from: number, pieces: Piece[], depth: number): number {
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
			at = readDollar(text, at, true, pieces, depth);
		} else {
			plain += c;
			at++;
		}
	}
}

/** $name, ${…}, $(…), $((…)); a lone $ stays. */
function readDollar(text: string, from: number, quoted: boolean, pieces: Piece[], depth: number): number {
	if (text.startsWith('$((', from)) {
		const end = closing(text, from + 1);
		if (text[end - 1] === ')') {
			const inner = text.slice(from + 3, end - 1);
			pieces.push({ kind: 'arithmetic', text: parseWord(inner, depth + 1), quoted });
			return end + 1;
		}
	}
	if (text[from + 1] === '(') {
		const end = closing(text, from + 1);
		const script = parseShell(text.slice(from + 2, end));
		if (!script.ok) throw new Unknown(script.faults[0]!.message);
		pieces.push({ kind: 'command', script: script.value, quoted });
		return end + 1;
	}
	if (text[from + 1] === '{') {
		const end = closing(text, from + 1);
		pieces.push({ kind: 'expand', expansion: readExpansion(text.slice(from + 2, end), depth + 1), quoted });
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

const OPERATORS = [':-', ':=', ':+', ':?', '##', '%%', '//', '#', '%', '-', '+', ':', '/'] as const;

function readExpansion(text: string, depth: number): Expansion {
	const length = text.startsWith('#') && text.length > 1;
	const body = length ? text.slice(1) : text;
	const head = /^([A-Za-z_]\w*|\d+|[@*#?$!-])(?:\[([^\]]*)\])?/.exec(body);
	if (!head) throw new Unknown(`\${${text}}`);
	const rest = body.slice(head[0].length);
	const operator = OPERATORS.find((known) => rest.startsWith(known)) ?? null;
	if (rest !== '' && !operator) throw new Unknown(`\${${text}}`);
	const index = head[2] === undefined ? null : head[2] === '@' || head[2] === '*' ? head[2] : parseWord(head[2], depth);
	const argument = rest.slice(operator?.length ?? 0);
	const parted = operator === '/' || operator === '//' ? partedAt(argument) : argument.length;
	return {
		name: head[1]!,
		index,
		length,
		operator,
		word: parseWord(argument.slice(0, parted), depth),
		replacement: parseWord(argument.slice(parted + 1), depth)
	};
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
