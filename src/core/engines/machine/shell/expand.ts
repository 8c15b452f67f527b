import { ArithmeticFault, computeArithmetic } from './arithmetic';
import { escapePattern, hasPattern, matches, replace, trim, unescapePattern } from './pattern';
import { elements, fail, get, resolvePath, scalar, set, type Shell, type Step } from './state';
import type { Expansion, Piece, Word } from './syntax';

/** How the script of $(…) is run; given by the runner, so that the two rooms do not import each other. */
type RunCommand = (shell: Shell, script: Extract<Piece, { kind: 'command' }>['script']) => Step<string>;

interface Fragment {
	readonly text: string;
	readonly quoted: boolean;
}
/** Fields parted already by "$@", each made of fragments. */
type Fields = Fragment[][];

/** Expansion of words; runs commands only for $( … ). Source: POSIX.1-2017, XCU 2.6. */
export class Expander {
	constructor(readonly run: RunCommand) {}

	/** One word as the fields that a command gets: expanded, split at blanks, file names found. Source: 2.6. */
	*fields(shell: Shell, word: Word): Step<string[]> {
		const plain = plainText(shell, word);
		if (plain !== null) return [plain];
		const parted = yield* this.#fragments(shell, word);
		return parted.flatMap((fragments) =>
			fragments.length > 0 && fragments.every(isPlain)
				? [fragments.map(({ text }) => text).join('')]
				: split(fragments).flatMap((field) => paths(shell, field))
		);
	}

	/** One word as a single text: for assignments, redirections, patterns' subjects. */
	*text(shell: Shell, word: Word): Step<string> {
		const plain = plainText(shell, word);
		if (plain !== null) return plain;
		const parted = yield* this.#fragments(shell, word);
		return parted.map((fragments) => fragments.map(({ text }) => text).join('')).join(' ');
	}

	/** One word as a pattern: what was quoted stands for itself. */
	*pattern(shell: Shell, word: Word): Step<string> {
		const parted = yield* this.#fragments(shell, word);
		return parted
			.map((fragments) => fragments.map(({ text, quoted }) => (quoted ? escapePattern(text) : text)).join(''))
			.join(' ');
	}

	/** The same word both as text and as pattern, expanded once. */
	*both(shell: Shell, word: Word): Step<{ text: string; pattern: string }> {
		const parted = yield* this.#fragments(shell, word);
		const join = (of: (fragment: Fragment) => string): string =>
			parted.map((fragments) => fragments.map(of).join('')).join(' ');
		return {
			text: join(({ text }) => text),
			pattern: join(({ text, quoted }) => (quoted ? escapePattern(text) : text))
		};
	}

	*arithmetic(shell: Shell, word: Word): Step<number> {
		const text = yield* this.text(shell, word);
		try {
			return computeArithmetic(text, {
				get: (name) => scalar(get(shell, name)) ?? '',
				set: (name, value) => set(shell, name, value)
			});
		} catch (error) {
			if (error instanceof ArithmeticFault) return fail(shell, error.message);
			throw error;
		}
	}

	*#fragments(shell: Shell, word: Word): Step<Fields> {
		let current: Fragment[] = [];
		const done: Fields = [];
		let any = false;
		for (const piece of word) {
			switch (piece.kind) {
				case 'text':
					current.push(piece);
					any = true;
					break;
				case 'command': {
					const text = (yield* this.run(shell, piece.script)).replace(/(?<!\n)\n+$/, '');
					current.push({ text, quoted: piece.quoted });
					any ||= piece.quoted;
					break;
				}
				case 'arithmetic':
					current.push({ text: String(yield* this.arithmetic(shell, piece.text)), quoted: piece.quoted });
					any = true;
					break;
				case 'expand': {
					const list = this.#list(shell, piece.expansion);
					if (list && (piece.quoted || list.length !== 1)) {
						const values = yield* this.#sliced(shell, piece.expansion, list);
						values.forEach((value, n) => {
							if (n > 0) {
								done.push(current);
								current = [];
							}
							current.push({ text: value, quoted: piece.quoted });
							any = true;
						});
					} else {
						current.push({ text: yield* this.#expand(shell, piece.expansion), quoted: piece.quoted });
						any ||= piece.quoted;
					}
				}
			}
		}
		if (any || current.some(({ text }) => text !== '')) done.push(current);
		return done;
	}

	/** The list that "$@" or "${name[@]}" means; null: it is no list. */
	#list(shell: Shell, { name, index, length }: Expansion): string[] | null {
		if (length) return null;
		if (name === '@') return shell.args;
		return index === '@' ? elements(get(shell, name)) : null;
	}

	/** "${@:2}": from the so-manieth on; of the positional parameters the 0th is the script's own name. */
	*#sliced(shell: Shell, { name, operator, word }: Expansion, list: readonly string[]): Step<readonly string[]> {
		if (operator !== ':') return list;
		const from = yield* this.arithmetic(shell, word);
		return name === '@' ? [shell.name, ...list].slice(from) : list.slice(from);
	}

	*#expand(shell: Shell, { name, index, length, operator, word, replacement }: Expansion): Step<string> {
		const held = name === '@' || name === '*' ? shell.args.join(' ') : get(shell, name);
		if (length && (index === '@' || index === '*')) return String(elements(held).length);
		if (length && (name === '@' || name === '*')) return String(shell.args.length);
		let value: string | undefined;
		if (index === '*' || index === '@') value = elements(held).join(' ');
		else if (index !== null) {
			const place = yield* this.arithmetic(shell, index);
			value = held instanceof Map ? held.get(place) : place === 0 ? held : undefined;
		} else value = scalar(held);
		const unset = value === undefined;
		const empty = unset || value === '';
		switch (operator) {
			case ':-':
				return empty ? yield* this.text(shell, word) : value!;
			case '-':
				return unset ? yield* this.text(shell, word) : value!;
			case ':=':
				if (!empty) return value!;
				value = yield* this.text(shell, word);
				set(shell, name, value);
				return value;
			case ':+':
				return empty ? '' : yield* this.text(shell, word);
			case '+':
				return unset ? '' : yield* this.text(shell, word);
			case ':?':
				return empty ? fail(shell, `${name}: ${yield* this.text(shell, word)}`) : value!;
		}
		if (unset && shell.options.nounset && !['@', '*'].includes(name)) fail(shell, `${name}: unbound variable`);
		value ??= '';
		if (length) return String([...value].length);
		if (operator === '/' || operator === '//')
			return replace(value, yield* this.pattern(shell, word), yield* this.text(shell, replacement), operator === '//');
		if (operator === ':') return value.slice(yield* this.arithmetic(shell, word));
		return operator === null ? value : trim(value, yield* this.pattern(shell, word), operator);
	}
}

/** Neither parted at blanks nor a pattern: most words are. */
const isPlain = ({ text, quoted }: Fragment): boolean =>
	quoted || /^[^\s*?[\]\\]+$/.test(text) || text === '[' || text === ']';

/** The one text that a word makes where nothing in it is parted, matched or run, as in most; null: it must be gone through. */
function plainText(shell: Shell, word: Word): string | null {
	let text = '';
	for (const piece of word)
		if (piece.kind === 'text') {
			if (!isPlain(piece)) return null;
			text += piece.text;
		} else if (piece.kind === 'expand') {
			const { name, index, length, operator } = piece.expansion;
			if (index !== null || length || operator !== null || name === '@' || name === '*') return null;
			const value = scalar(get(shell, name));
			if (value === undefined || !isPlain({ text: value, quoted: piece.quoted })) return null;
			text += value;
		} else return null;
	return word.length > 0 ? text : null;
}

/** At blanks that were not quoted. Source: 2.6.5, with the usual IFS. */
function split(fragments: readonly Fragment[]): Fragment[][] {
	const fields: Fragment[][] = [];
	let current: Fragment[] = [];
	let open = false;
	const end = (): void => {
		if (open) fields.push(current);
		current = [];
		open = false;
	};
	for (const { text, quoted } of fragments) {
		if (quoted) {
			current.push({ text, quoted });
			open = true;
			continue;
		}
		text.split(/[ \t\n]+/).forEach((piece, n) => {
			if (n > 0) end();
			if (piece === '') return;
			current.push({ text: piece, quoted });
			open = true;
		});
	}
	end();
	return fields;
}

/** Names of files that a pattern matches; the word itself when none does. Source: 2.13.3. */
function paths(shell: Shell, fragments: readonly Fragment[]): string[] {
	const pattern = fragments.map(({ text, quoted }) => (quoted ? escapePattern(text) : text)).join('');
	if (!hasPattern(pattern)) return [unescapePattern(pattern)];
	const steps = pattern.split('/');
	let found = pattern.startsWith('/') ? [''] : ['.'];
	for (const step of pattern.startsWith('/') ? steps.slice(1) : steps)
		found = found.flatMap((folder) => {
			if (!hasPattern(step)) return [`${folder}/${unescapePattern(step)}`];
			return shell.host
				.list(resolvePath(shell, folder || '/'))
				.filter((name) => (!name.startsWith('.') || step.startsWith('.')) && matches(name, step))
				.map((name) => `${folder}/${name}`);
		});
	const there = found.filter((path) => shell.host.kind(resolvePath(shell, path)) !== null);
	return there.length ? there.map((path) => path.replace(/^\.\//, '')).sort() : [unescapePattern(pattern)];
}
