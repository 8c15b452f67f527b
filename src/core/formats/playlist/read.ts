import type { Result } from '../../result';
import { readM3u } from './m3u';
import { decodeText, oneLine, type Playlist } from './playlist';
import { readPls } from './pls';
import { readXspf } from './xspf';

/**
 * Reads a playlist by what is in it, never by its name's ending: XSPF, PLS, else M3U.
 * Titles and locations come out as single lines; anything replaced is said in `remarks`.
 */
export function readPlaylist(bytes: Uint8Array): Result<Playlist & { readonly format: 'M3U' | 'PLS' | 'XSPF' }> {
	const { text, encoding } = decodeText(bytes);
	const format = /^\ufeff?\s*</.test(text) ? 'XSPF' : /^\ufeff?\s*\[playlist\]/i.test(text) ? 'PLS' : 'M3U';
	const read = format === 'XSPF' ? readXspf(text) : format === 'PLS' ? readPls(text) : readM3u(text);
	if (!read.ok) return read;
	const remarks = [...read.value.remarks];
	if (encoding === 'Latin-1') remarks.push('The file is not UTF-8; it was read as Latin-1. Check names with accents.');
	const entries = read.value.entries.map((entry) => {
		const location = oneLine(entry.location);
		const title = entry.title === null ? null : oneLine(entry.title);
		if (location !== entry.location || title !== entry.title)
			remarks.push(`Control characters in "${title ?? location}" became spaces.`);
		return { ...entry, location, title };
	});
	return { ok: true, value: { ...read.value, entries, remarks, format } };
}
