import type { Result } from '../../basics/result';
import { readJson } from './json';

/** What stands between an opening bracket and its end, as JSON, and the characters that it takes. */
interface FoundJson {
	readonly read: Result<unknown>;
	readonly from: number;
	readonly to: number;
}

/**
 * The JSON values in a text, between whatever stands around them, in linear time. What is torn is never looked into: a part of
 * a listing would show one thing and hide another.
 */
export function jsonValuesIn(text: string): FoundJson[] {
	const values: FoundJson[] = [];
	let at = nextOpening(text, 0);
	while (at >= 0) {
		const end = closingOf(text, at);
		if (end < 0) break;
		values.push({ read: readJson(text.slice(at, end + 1)), from: at, to: end });
		at = nextOpening(text, end + 1);
	}
	return values;
}

function nextOpening(text: string, from: number): number {
	const opening = /[[{]/g;
	opening.lastIndex = from;
	return opening.exec(text)?.index ?? -1;
}

/** Where the bracket at `from` is closed; -1 when it never is. Brackets within strings do not count. */
function closingOf(text: string, from: number): number {
	let depth = 0;
	let quoted = false;
	for (let at = from; at < text.length; at++) {
		const c = text[at];
		if (quoted) {
			if (c === '\\') at++;
			else if (c === '"') quoted = false;
		} else if (c === '"') quoted = true;
		else if (c === '[' || c === '{') depth++;
		else if ((c === ']' || c === '}') && --depth === 0) return at;
	}
	return -1;
}
