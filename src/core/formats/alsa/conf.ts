import { fault, ok, type Result } from '../../basics/result';

/**
 * ALSA's configuration language, as far as asound.conf uses it: nested blocks, quoted strings, "!" overrides.
 * Source: alsa-lib, "Configuration files" (src/conf.c). Functions (@func) and arguments are not read.
 */
type AlsaValue = string | AlsaBlock;
/** A compound of ALSA's configuration: names to values or further compounds. */
export interface AlsaBlock {
	readonly [key: string]: AlsaValue;
}

/** A string value, exactly as given. */
export const alsaString = (text: string): string => `"${text.replaceAll('\\', '\\\\').replaceAll('"', '\\"')}"`;

type Token = { kind: 'word' | 'string' | 'punct'; text: string };

function tokens(text: string): Token[] | null {
	const out: Token[] = [];
	let i = 0;
	while (i < text.length) {
		const c = text[i]!;
		if (/\s/.test(c)) i++;
		else if (c === '#') while (i < text.length && text[i] !== '\n') i++;
		else if ('{}[]=,;'.includes(c)) {
			out.push({ kind: 'punct', text: c });
			i++;
		} else if (c === '"' || c === "'") {
			let s = '';
			for (i++; i < text.length && text[i] !== c; i++) s += text[i] === '\\' ? (text[++i] ?? '') : text[i];
			if (i >= text.length) return null;
			i++;
			out.push({ kind: 'string', text: s });
		} else {
			const start = i;
			while (i < text.length && !/[\s{}[\]=,;"'#]/.test(text[i]!)) i++;
			out.push({ kind: 'word', text: text.slice(start, i) });
		}
	}
	return out;
}

/** Blocks within blocks; our own are three deep. */
const DEEPEST = 64;
/** Without what every object has: a name may be anything. */
const bare = (): Record<string, AlsaValue> => Object.create(null) as Record<string, AlsaValue>;

/** Reads a whole file into one tree; "a.b" nests, a leading "!" is dropped. Fault: `alsa-syntax`. */
export function readAlsaConf(text: string): Result<AlsaBlock> {
	const list = tokens(text);
	if (!list) return fault('alsa-syntax', 'A quotation mark in asound.conf is never closed.');
	const root = bare();
	let at = 0;
	const readBlock = (into: Record<string, AlsaValue>, depth: number): boolean => {
		const nested = depth > 0;
		if (depth > DEEPEST) return false;
		while (at < list.length) {
			const token = list[at]!;
			if (token.kind === 'punct') {
				at++;
				if (token.text === '}') return nested;
				if (token.text === ',' || token.text === ';') continue;
				return false;
			}
			at++;
			const keys = token.kind === 'string' ? [token.text] : token.text.split('.').map((key) => key.replace(/^!/, ''));
			if (list[at]?.text === '=' && list[at]?.kind === 'punct') at++;
			const value = list[at];
			if (!value) return false;
			at++;
			let target = into;
			for (const key of keys.slice(0, -1))
				target = (target[key] = typeof target[key] === 'object' ? target[key] : bare()) as Record<string, AlsaValue>;
			const last = keys.at(-1)!;
			if (value.kind === 'punct') {
				if (value.text !== '{') return false;
				const block = bare();
				if (!readBlock(block, depth + 1)) return false;
				target[last] = block;
			} else target[last] = value.text;
		}
		return !nested;
	};
	return readBlock(root, 0)
		? ok(root)
		: fault('alsa-syntax', `asound.conf is not readable near "${list[Math.max(0, at - 1)]?.text ?? ''}".`);
}
