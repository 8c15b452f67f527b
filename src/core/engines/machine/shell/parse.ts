import { fault, ok, type Result } from '../../../basics/result';
import type { Assignment, Command, Pipeline, Redirect, Statement, Word } from './syntax';
import { DEEPEST, Unknown, Words } from './words';

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

const wordReader = new Words(parseShell);

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
			const [start, test, step] = parts.map((part) => wordReader.parse(part.trim(), this.#depth)) as [Word, Word, Word];
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
		return {
			kind: 'arithmetic',
			text: wordReader.parse(this.#arithmeticText(), this.#depth),
			redirects: this.#redirects()
		};
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
		const index = head[2] === undefined ? null : wordReader.parse(head[2].slice(1, -1), this.#depth);
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
		const { pieces, length } = wordReader.read(this.text, this.#at, this.#depth, false);
		if (length === 0) throw new Unknown(`a word is missing before "${this.rest.slice(0, 20)}"`);
		this.#at += length;
		return pieces;
	}
}
