import { cardDigest } from '$core/files/cardBytes';
import type { CardFile } from '$core/link/file';

const SECRET = '(kept secret)';

/** The text of a file without its secrets; for other files, their digest. */
export const shownText = (file: CardFile): string =>
	'lines' in file
		? file.lines.map((line) => (line.secret ? SECRET : line.text)).join('\n')
		: `sha256 ${cardDigest(file)}`;

/** What is kept of a written set, for showing later what has changed. */
export const rememberWritten = (
	files: readonly CardFile[],
	atUtc: string
): { atUtc: string; files: Record<string, string> } => ({
	atUtc,
	files: Object.fromEntries(files.map((file) => [file.path, shownText(file)]))
});

export type FileChange = 'same' | 'changed' | 'new' | 'gone';

/** How each file stands to the last written set; null when none was written. */
export function compareWritten(
	files: readonly CardFile[],
	written: { readonly files: Readonly<Record<string, string>> } | null
): Map<string, FileChange> | null {
	if (!written) return null;
	const now = new Map(files.map((file) => [file.path, shownText(file)]));
	const changes = new Map<string, FileChange>();
	for (const [path, text] of now)
		changes.set(
			path,
			written.files[path] === undefined ? 'new' : isSame(path, text, written.files[path]) ? 'same' : 'changed'
		);
	for (const path of Object.keys(written.files)) if (!now.has(path)) changes.set(path, 'gone');
	return changes;
}

/** The key of a Wi-Fi network is known only while writing: a profile without it has not changed. */
function isSame(path: string, text: string, before: string): boolean {
	if (!path.endsWith('.nmconnection')) return text === before;
	const plain = (value: string): string =>
		value
			.split('\n')
			.filter((line) => line !== SECRET && line !== '[wifi-security]' && line !== 'key-mgmt=wpa-psk' && line !== '')
			.join('\n');
	return plain(text) === plain(before);
}
