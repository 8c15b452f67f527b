import { fault, ok, type Result } from '../../result';
import type { Playlist } from './playlist';

/** PLS playlists: File1=, Title1=, Length1= under [playlist]. Fault: `pls-empty`. */
export function readPls(text: string): Result<Playlist> {
	const byNumber = new Map<number, { File?: string; Title?: string; Length?: string }>();
	for (const raw of text.replace(/^\ufeff/, '').split(/\r\n|\n|\r/)) {
		const m = /^\s*(File|Title|Length)(\d+)\s*=\s*(.*?)\s*$/i.exec(raw);
		if (!m) continue;
		const key = (m[1]![0]!.toUpperCase() + m[1]!.slice(1).toLowerCase()) as 'File' | 'Title' | 'Length';
		byNumber.set(Number(m[2]), { ...byNumber.get(Number(m[2])), [key]: m[3]!.replace(/^"(.*)"$/, '$1') });
	}
	const numbers = [...byNumber.keys()].sort((a, b) => a - b);
	const withoutFile = numbers.filter((n) => !byNumber.get(n)!.File);
	const entries = numbers
		.filter((n) => byNumber.get(n)!.File)
		.map((n) => {
			const { File, Title, Length } = byNumber.get(n)!;
			const seconds = Number(Length ?? -1);
			return {
				location: File!,
				title: Title || null,
				durationSec: seconds > 0 ? Math.round(seconds) : null,
				extra: []
			};
		});
	if (entries.length === 0) return fault('pls-empty', 'There is no File1= line in this list. Is it a PLS playlist?');
	return ok({
		title: null,
		entries,
		header: [],
		remarks: withoutFile.map((n) => `Entry ${n} has no File${n}= line and was left out.`)
	});
}
