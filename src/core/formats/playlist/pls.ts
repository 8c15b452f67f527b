import { fault, ok, type Result } from '../../basics/result';
import { linesOf } from '../lines';
import { wholeSeconds, type Playlist } from './playlist';

type Field = 'file' | 'title' | 'length';

/** "File12" → file, 12. */
const KEY = /^(file|title|length)(\d{1,9})$/i;

/** PLS playlists: File1=, Title1=, Length1= under [playlist]. Fault: `pls-empty`. */
export function readPls(text: string): Result<Playlist> {
	const byNumber = new Map<number, Partial<Record<Field, string>>>();
	for (const line of linesOf(text)) {
		const equals = line.indexOf('=');
		const key = equals < 0 ? null : KEY.exec(line.slice(0, equals).trim());
		if (!key) continue;
		const value = line.slice(equals + 1).trim();
		const known = byNumber.get(Number(key[2])) ?? {};
		known[key[1]!.toLowerCase() as Field] = /^".*"$/.test(value) ? value.slice(1, -1) : value;
		byNumber.set(Number(key[2]), known);
	}
	const numbers = [...byNumber.keys()].sort((a, b) => a - b);
	const withoutFile = numbers.filter((n) => !byNumber.get(n)!.file);
	const entries = numbers.flatMap((n) => {
		const { file, title, length } = byNumber.get(n)!;
		return file
			? [{ location: file, title: title || null, durationSec: wholeSeconds(Number(length ?? -1)), extra: [] }]
			: [];
	});
	if (entries.length === 0) return fault('pls-empty', 'There is no File1= line in this list. Is it a PLS playlist?');
	return ok({
		title: null,
		entries,
		header: [],
		remarks: withoutFile.map((n) => `Entry ${n} has no File${n}= line and was left out.`)
	});
}
