/**
 * NetworkManager's keyfile profiles. Source: nm-settings-keyfile(5).
 * Values are never quoted; a backslash and a leading space are escaped.
 */
export const keyfileText = (text: string): string =>
	text
		.replaceAll('\\', '\\\\')
		.replaceAll('\n', '\\n')
		.replaceAll('\t', '\\t')
		.replaceAll('\r', '\\r')
		.replace(/^ /, '\\s');

/** A network name as decimal bytes, the one form that no character can upset. */
export const keyfileBytes = (text: string): string =>
	[...new TextEncoder().encode(text)].map((byte) => `${byte};`).join('');

const ESCAPES: Record<string, string> = { s: ' ', n: '\n', t: '\t', r: '\r', '\\': '\\' };

/** Without what every object has, so that a section may be called anything. */
const bare = <T>(): Record<string, T> => Object.create(null) as Record<string, T>;

/** Reads `[section]` and `key=value`; byte lists (72;105;) come back as text. */
export function readKeyfile(text: string): Record<string, Record<string, string>> {
	const sections = bare<Record<string, string>>();
	let section = '';
	for (const line of text.split('\n')) {
		const head = /^\[(.+)\]$/.exec(line.trim());
		const equals = line.indexOf('=');
		if (head) section = head[1]!;
		else if (!line.startsWith('#') && equals > 0) {
			const value = line.slice(equals + 1);
			(sections[section] ??= bare())[line.slice(0, equals).trim()] = /^(\d{1,3};)+$/.test(value)
				? new TextDecoder().decode(Uint8Array.from(value.split(';').filter(Boolean).map(Number)))
				: value.replace(/\\(.)/g, (whole, c: string) => ESCAPES[c] ?? whole);
		}
	}
	return sections;
}
