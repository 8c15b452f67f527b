import { fitLine } from '../../basics/text';
import { fault, type Result } from '../../basics/result';
import { LIST_LIMITS } from './limits';
import { readM3u } from './m3u';
import { decodeText, type Playlist, type PlaylistEntry } from './playlist';
import { readOpml } from './opml';
import { readPls } from './pls';
import { readXspf } from './xspf';

const SHOWN_REMARKS = 30;
const READERS = { XSPF: readXspf, OPML: readOpml, PLS: readPls, M3U: readM3u } as const;

/**
 * Reads a playlist by what is in it, never by its name's ending: XSPF, OPML, PLS, else M3U. What comes out fits a plan's list:
 * lines are single, titles and comments cut to what it holds, entries that cannot be left out; all of it is said in `remarks`.
 * Faults: `list-long`, and those of the four readers.
 */
export function readPlaylist(
	bytes: Uint8Array
): Result<Playlist & { readonly format: 'M3U' | 'PLS' | 'XSPF' | 'OPML' }> {
	if (bytes.length > LIST_LIMITS.fileBytes)
		return fault(
			'list-long',
			`The file has ${(bytes.length / 1e6).toFixed(1)} MB; lists of more than ${LIST_LIMITS.fileBytes / 1e6} MB are not read. Split it.`
		);
	const { text, encoding } = decodeText(bytes);
	const format = /^\ufeff?\s*</.test(text)
		? /<opml[\s>]/i.test(text.slice(0, 2000))
			? 'OPML'
			: 'XSPF'
		: /^\ufeff?\s*\[playlist\]/i.test(text)
			? 'PLS'
			: 'M3U';
	const read = READERS[format](text);
	if (!read.ok) return read;
	const list = fitList(read.value);
	if (list.entries.length === 0)
		return fault('list-empty', `No entry of this list can be played. ${list.remarks.slice(0, 3).join(' ')}`);
	const latin =
		encoding === 'Latin-1' ? ['The file is not UTF-8; it was read as Latin-1. Check names with accents.'] : [];
	const remarks = [...latin, ...list.remarks];
	const more = remarks.length - SHOWN_REMARKS;
	return {
		ok: true,
		value: {
			...list,
			format,
			remarks: more > 0 ? [...remarks.slice(0, SHOWN_REMARKS), `And ${more} remarks more.`] : remarks
		}
	};
}

/** The list within `LIST_LIMITS`, with a word on everything that is not as it stood. */
function fitList(list: Playlist): Playlist {
	const remarks = [...list.remarks];
	const entries = list.entries.slice(0, LIST_LIMITS.entries).flatMap((entry, n): PlaylistEntry[] => {
		const location = fitLine(entry.location, Infinity);
		if (location === '' || location.length > LIST_LIMITS.location) {
			remarks.push(
				`Entry ${n + 1} was left out: ${location === '' ? 'nothing printable is in its address' : `its address has ${location.length} characters, at most ${LIST_LIMITS.location} are possible`}.`
			);
			return [];
		}
		const title = entry.title === null ? null : fitLine(entry.title, LIST_LIMITS.title) || null;
		if (location !== entry.location || (entry.title !== null && fitLine(entry.title, Infinity) !== entry.title))
			remarks.push(`Control characters in "${title ?? location.slice(0, 80)}" became spaces.`);
		if (entry.title !== null && fitLine(entry.title, Infinity).length > LIST_LIMITS.title)
			remarks.push(`The title of entry ${n + 1} was cut to ${LIST_LIMITS.title} characters.`);
		return [
			{
				location,
				title,
				durationSec: entry.durationSec,
				extra: fitLines(entry.extra, LIST_LIMITS.linesPerEntry, remarks)
			}
		];
	});
	if (list.entries.length > LIST_LIMITS.entries)
		remarks.push(
			`The list has ${list.entries.length} entries; the first ${LIST_LIMITS.entries} were taken. Split it to take the others.`
		);
	return {
		title: list.title === null ? null : fitLine(list.title, 200) || null,
		entries,
		header: fitLines(list.header, LIST_LIMITS.headerLines, remarks),
		remarks
	};
}

function fitLines(lines: readonly string[], most: number, remarks: string[]): string[] {
	const fitting = lines.map((line) => fitLine(line, Infinity)).filter((line) => line.length <= LIST_LIMITS.line);
	const kept = fitting.slice(0, most);
	if (kept.length < lines.length)
		remarks.push(`${lines.length - kept.length} comment lines were left out: too many, or too long.`);
	return kept;
}
