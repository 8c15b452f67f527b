/**
 * The lines of a script that stands in a file beside its link, as they go on the card. What it must know of an endpoint reaches it by a
 * head that is put behind its first comment, its arguments, or a file; never by words within its body.
 */
export const scriptLines = (text: string): string[] => text.trimEnd().split('\n');

/** The same with a head: what it is called, then the values, then the body. */
export function withHead(text: string, head: readonly string[]): string[] {
	const lines = scriptLines(text);
	const body = lines.findIndex((line) => !line.startsWith('#'));
	return [...lines.slice(0, body), ...head, ...lines.slice(body)];
}
