import { remembered } from '../../../basics/remembered';

/** Patterns of file names and cases. Source: POSIX.1-2017, Shell Command Language, 2.13. Quoted parts come escaped by a backslash. */
function patternSource(pattern: string, anyChar = '[^]'): string {
	let out = '';
	for (let at = 0; at < pattern.length; at++) {
		const c = pattern[at]!;
		if (c === '\\') out += escaped(pattern[++at] ?? '\\');
		else if (c === '*') {
			// Several stars are one, so that no expression tries each of them.
			if (!out.endsWith(`${anyChar}*`)) out += `${anyChar}*`;
		} else if (c === '?') out += anyChar;
		else if (c === '[') {
			const end = pattern.indexOf(']', at + 2);
			if (end < 0) out += '\\[';
			else {
				out += `[${pattern
					.slice(at + 1, end)
					.replace(/^!/, '^')
					.replace(/[\\[]/g, '\\$&')}]`;
				at = end;
			}
		} else out += escaped(c);
	}
	return out;
}
const escaped = (c: string): string => c.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&');

/** Scripts ask for the same few patterns again and again. */
const expressionOf = remembered(500, (pattern) => new RegExp(`^(?:${patternSource(pattern)})$`, 'u'));

/** Whether the whole text fits a shell pattern. Source: POSIX.1-2017, XCU 2.13. */
export const matches = (text: string, pattern: string): boolean => expressionOf(pattern).test(text);
/** Whether a star, a question mark or a pair of brackets stands there unescaped; a bracket that is never closed, as the command [, is none. */
export function hasPattern(text: string): boolean {
	for (let at = 0; at < text.length; at++) {
		const c = text[at];
		if (c === '\\') at++;
		else if (c === '*' || c === '?') return true;
		else if (c === '[') return text.indexOf(']', at + 2) > 0;
	}
	return false;
}
/** The pattern that only this text fits. */
export const escapePattern = (text: string): string => text.replace(/[\\*?[\]]/g, '\\$&');
/** A pattern without special characters as the text that it fits. */
export const unescapePattern = (text: string): string => text.replace(/\\([^])/g, '$1');

/** ${name#pattern}, ##, %, %%. */
export function trim(text: string, pattern: string, operator: '#' | '##' | '%' | '%%'): string {
	// A plain text fits itself alone.
	if (!hasPattern(pattern)) {
		const plain = unescapePattern(pattern);
		if (operator[0] === '#') return text.startsWith(plain) ? text.slice(plain.length) : text;
		return text.endsWith(plain) ? text.slice(0, text.length - plain.length) : text;
	}
	const lengths = Array.from({ length: text.length + 1 }, (_, n) => n);
	if (operator.length === 2) lengths.reverse();
	for (const length of lengths) {
		const piece = operator[0] === '#' ? text.slice(0, length) : text.slice(text.length - length);
		if (matches(piece, pattern)) return operator[0] === '#' ? text.slice(length) : text.slice(0, text.length - length);
	}
	return text;
}

/** ${name/pattern/text} and ${name//pattern/text}; of a pattern with special characters the longest piece. Source: bash(1), Parameter Expansion. */
export function replace(text: string, pattern: string, by: string, everywhere: boolean): string {
	if (pattern === '') return text;
	if (!hasPattern(pattern)) {
		const plain = unescapePattern(pattern);
		return everywhere ? text.split(plain).join(by) : text.replace(plain, () => by);
	}
	let out = '';
	let at = 0;
	while (at < text.length) {
		let end = text.length;
		while (end > at && !matches(text.slice(at, end), pattern)) end--;
		const fits = end > at;
		out += fits ? by : text[at];
		at = fits ? end : at + 1;
		if (fits && !everywhere) break;
	}
	return out + text.slice(at);
}
