import { fault, ok, type Result } from '../../basics/result';

/** How much of a JSON text is read. Our own shapes are at most a dozen levels deep. */
interface JsonLimits {
	readonly characters: number;
	readonly depth: number;
}
const USUAL: JsonLimits = { characters: 100_000_000, depth: 64 };

/**
 * A value from JSON text, in linear time, however the text is made: too long or too deep is refused before it is parsed.
 * Keys called `__proto__` are left out: they would mean something else to a program that copies them.
 * Faults: `json-long`, `json-deep`, `not-json`.
 */
export function readJson(text: string, limits: JsonLimits = USUAL): Result<unknown> {
	if (text.length > limits.characters)
		return fault(
			'json-long',
			`It has ${text.length} characters; more than ${limits.characters} are not read. Choose a smaller file.`
		);
	if (depthOf(text, limits.depth) > limits.depth)
		return fault('json-deep', `It is nested deeper than ${limits.depth} levels, which no file of this kind is.`);
	try {
		return ok(withoutProto(JSON.parse(text)));
	} catch (error) {
		return fault('not-json', `It is not readable as JSON, perhaps cut off: ${briefly((error as Error).message)}`);
	}
}

/** Error messages of a parser quote what they met, which may be long and may hold anything. */
const briefly = (message: string): string => message.replace(/[\u0000-\u001f\u007f-\u009f]/g, ' ').slice(0, 160);

/** How deep brackets are nested outside strings; counting ends beyond `most`. */
function depthOf(text: string, most: number): number {
	let depth = 0;
	let deepest = 0;
	for (let at = 0; at < text.length && deepest <= most; at++) {
		const code = text.charCodeAt(at);
		if (code === 0x22) at = endOfString(text, at);
		else if (code === 0x5b || code === 0x7b) deepest = Math.max(deepest, ++depth);
		else if (code === 0x5d || code === 0x7d) depth--;
	}
	return deepest;
}

/** Where the string that begins at `from` ends; the text's end when it never does. */
function endOfString(text: string, from: number): number {
	for (let at = from + 1; at < text.length; at++) {
		const code = text.charCodeAt(at);
		if (code === 0x5c) at++;
		else if (code === 0x22) return at;
	}
	return text.length;
}

function withoutProto(value: unknown): unknown {
	if (typeof value !== 'object' || value === null) return value;
	if (Object.hasOwn(value, '__proto__')) delete (value as Record<string, unknown>)['__proto__'];
	for (const inner of Object.values(value)) withoutProto(inner);
	return value;
}
