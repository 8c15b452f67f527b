import { fault, ok, type Result } from '../../result';
import { oneLine, type Playlist, type PlaylistEntry } from './playlist';

/**
 * M3U and M3U8 playlists. There is no standard; the rules are those in which common players agree:
 * "#EXTINF:seconds,title", the title being all that follows the first comma outside quotes.
 * Segment lists of HTTP streaming (RFC 8216) are not playlists of titles and are refused.
 * Fault: `m3u-segments`, `m3u-empty`.
 */
export function readM3u(text: string): Result<Playlist> {
	const entries: PlaylistEntry[] = [];
	const header: string[] = [];
	let title: string | null = null;
	let pending: { title: string | null; durationSec: number | null; extra: string[] } = {
		title: null,
		durationSec: null,
		extra: []
	};
	if (/^#EXT-X-TARGETDURATION/m.test(text))
		return fault(
			'm3u-segments',
			'This is the segment list of one stream, not a playlist. Enter the address it came from as a stream instead.'
		);
	for (const raw of text.replace(/^\ufeff/, '').split(/\r\n|\n|\r/)) {
		const line = raw.trim();
		if (line === '') continue;
		if (/^#EXTM3U\b/i.test(line)) {
			if (line.length > 7) header.push(line);
		} else if (/^#EXTINF:/i.test(line)) {
			const { extra, ...inf } = readExtinf(line);
			pending = { ...inf, extra: [...pending.extra, ...extra] };
		} else if (/^#PLAYLIST:/i.test(line)) title = line.slice(10).trim();
		else if (line.startsWith('#')) pending.extra.push(line);
		else {
			entries.push({ location: line, ...pending });
			pending = { title: null, durationSec: null, extra: [] };
		}
	}
	if (entries.length === 0)
		return fault('m3u-empty', 'There is no entry in this list: every line is a comment or empty.');
	return ok({ title, entries, header: [...header, ...pending.extra], remarks: [] });
}

/** Attributes between the seconds and the comma are kept as a line of their own until they are written back in their place. */
const ATTRIBUTES = '#EXTINF-ATTRIBUTES:';

function readExtinf(line: string): { title: string | null; durationSec: number | null; extra: string[] } {
	const body = line.slice(8);
	const m = /^\s*(-?\d+(?:\.\d+)?)?((?:[^,"]|"[^"]*")*)(?:,(.*))?$/s.exec(body);
	if (!m) return { title: body.replace(/^[^,]*,/, '').trim() || null, durationSec: null, extra: [] };
	const seconds = m[1] === undefined ? -1 : Number(m[1]);
	const attributes = m[2]!.trim();
	return {
		title: m[3]?.trim() || null,
		durationSec: seconds > 0 ? Math.round(seconds) : null,
		extra: attributes ? [`${ATTRIBUTES}${attributes}`] : []
	};
}

/** Writes UTF-8 text with LF ends. A path that begins with "#" gets "./" before it, or it would be a comment. */
export function writeM3u(list: Pick<Playlist, 'title' | 'entries'> & Partial<Playlist>): string {
	return `${writeM3uLines(list).flat().join('\n')}\n`;
}

/** The same by entry, the head first, so that each line can be traced to what caused it. */
export function writeM3uLines(list: Pick<Playlist, 'title' | 'entries'> & Partial<Playlist>): string[][] {
	const heads = list.header ?? [];
	const head = heads.filter((line) => /^#EXTM3U/i.test(line))[0] ?? '#EXTM3U';
	const rest = heads.filter((line) => !/^#EXTM3U/i.test(line));
	return [
		[head, ...(list.title ? [`#PLAYLIST:${oneLine(list.title)}`] : [])],
		...list.entries.map(writeEntry),
		...(rest.length ? [rest] : [])
	];
}

function writeEntry({ location, title, durationSec, extra }: PlaylistEntry): string[] {
	const attributes = extra.find((line) => line.startsWith(ATTRIBUTES))?.slice(ATTRIBUTES.length);
	const others = extra.filter((line) => !line.startsWith(ATTRIBUTES));
	const inf =
		title !== null || durationSec !== null || attributes
			? [`#EXTINF:${durationSec ?? -1}${attributes ? ` ${attributes}` : ''},${oneLine(title ?? '')}`]
			: [];
	return [...others, ...inf, location.startsWith('#') ? `./${location}` : location];
}
