import { fault, ok, type Result } from '../../basics/result';
import { linesOf } from '../lines';
import { ATTRIBUTES } from './preset';
import { oneLine, wholeSeconds, type Playlist, type PlaylistEntry } from './playlist';

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
	let inf: ExtInf = NO_INF;
	let extra: string[] = [];
	for (const raw of linesOf(text)) {
		const line = raw.trim();
		if (line === '') continue;
		const directive = line.slice(0, 22).toUpperCase();
		if (directive.startsWith('#EXT-X-TARGETDURATION'))
			return fault(
				'm3u-segments',
				'This is the segment list of one stream, not a playlist. Enter the address it came from as a stream instead.'
			);
		if (/^#EXTM3U\b/.test(directive)) {
			if (line.length > 7) header.push(line);
		} else if (directive.startsWith('#EXTINF:')) {
			inf = readExtinf(line.slice(8));
			if (inf.attributes) extra.push(`${ATTRIBUTES}${inf.attributes}`);
		} else if (directive.startsWith('#PLAYLIST:')) title = line.slice(10).trim();
		else if (line.startsWith('#')) extra.push(line);
		else {
			entries.push({ location: line, title: inf.title, durationSec: inf.durationSec, extra });
			inf = NO_INF;
			extra = [];
		}
	}
	if (entries.length === 0)
		return fault('m3u-empty', 'There is no entry in this list: every line is a comment or empty.');
	return ok({ title, entries, header: [...header, ...extra], remarks: [] });
}

interface ExtInf {
	readonly title: string | null;
	readonly durationSec: number | null;
	readonly attributes: string;
}
const NO_INF: ExtInf = { title: null, durationSec: null, attributes: '' };

/** "seconds attributes,title": the title begins behind the first comma outside quotes; where a quote is never closed, behind the first. */
function readExtinf(body: string): ExtInf {
	const comma = commaOutsideQuotes(body);
	const head = comma < 0 ? body : body.slice(0, comma);
	const number = /^\s*-?\d{1,12}(?:\.\d{1,9})?(?![\dA-Za-z.])/.exec(head)?.[0] ?? '';
	const seconds = number === '' ? -1 : Number(number);
	return {
		title: comma < 0 ? null : body.slice(comma + 1).trim() || null,
		durationSec: wholeSeconds(seconds),
		attributes: head.slice(number.length).trim()
	};
}

function commaOutsideQuotes(text: string): number {
	let quoted = false;
	for (let at = 0; at < text.length; at++) {
		if (text[at] === '"') quoted = !quoted;
		else if (text[at] === ',' && !quoted) return at;
	}
	return quoted ? text.indexOf(',') : -1;
}

/** Writes UTF-8 text with LF ends. A path that begins with "#" gets "./" before it, or it would be a comment. */
export function writeM3u(list: Pick<Playlist, 'title' | 'entries'> & Partial<Playlist>): string {
	return `${writeM3uLines(list).flat().join('\n')}\n`;
}

/** The same by entry, the head first, so that each line can be traced to what caused it. */
export function writeM3uLines(list: Pick<Playlist, 'title' | 'entries'> & Partial<Playlist>): string[][] {
	const heads = list.header ?? [];
	const head = heads.find((line) => /^#EXTM3U/i.test(line)) ?? '#EXTM3U';
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
