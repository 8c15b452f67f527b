import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { fault, ok, type Result } from '../../result';
import { isStream, type Playlist, type PlaylistEntry } from './playlist';

/** XSPF version 1 playlists. Source: Xiph XSPF specification version 1, section 4. */
const NAMESPACE = 'http://xspf.org/ns/0/';

/** Faults: `xspf-xml` with the line, `xspf-none`, `xspf-empty`. */
export function readXspf(text: string): Result<Playlist> {
	const checked = XMLValidator.validate(text.replace(/^\ufeff/, ''));
	if (checked !== true)
		return fault('xspf-xml', `The file is not well-formed: ${checked.err.msg}`, `line ${checked.err.line}`);
	const tree = new XMLParser({
		ignoreAttributes: true,
		parseTagValue: false,
		trimValues: true,
		removeNSPrefix: true,
		isArray: (name) => name === 'track' || name === 'location',
		htmlEntities: true
	}).parse(text) as {
		playlist?: { title?: unknown; trackList?: { track?: Record<string, unknown>[] } | '' };
	};
	if (!tree.playlist) return fault('xspf-none', 'There is no playlist element in this file.');
	const tracks = (tree.playlist.trackList || {}).track ?? [];
	const remarks: string[] = [];
	const entries = tracks.flatMap((track, index): PlaylistEntry[] => {
		const location = String((track.location as unknown[] | undefined)?.[0] ?? '');
		if (!location) {
			remarks.push(`Track ${index + 1} has no location and was left out.`);
			return [];
		}
		const title = [track.creator, track.title].filter((part) => typeof part === 'string' && part !== '').join(' – ');
		const duration = Number(track.duration ?? 0);
		return [
			{
				location: fromUri(location),
				title: title || null,
				durationSec: duration > 0 ? Math.round(duration / 1000) : null,
				extra: []
			}
		];
	});
	if (entries.length === 0) return fault('xspf-empty', 'There is no track with a location in this file.');
	return ok({
		title: typeof tree.playlist.title === 'string' ? tree.playlist.title || null : null,
		entries,
		header: [],
		remarks
	});
}

/** Streams keep their address as it is; everything else is a path and loses its percent codes. */
function fromUri(uri: string): string {
	if (isStream(uri)) return uri;
	const path = uri.replace(/^file:\/\/(localhost)?/i, '');
	try {
		return decodeURIComponent(path);
	} catch {
		return path;
	}
}

const UNRESERVED = /[A-Za-z0-9\-._~!$&'()*+,;=:@/]/;

/** A path as the path of a URI reference: UTF-8 bytes percent-coded. Source: RFC 3986, 3.3 and 4.2. */
export function pathToUri(path: string): string {
	let out = '';
	for (const c of path)
		out += UNRESERVED.test(c)
			? c
			: [...new TextEncoder().encode(c)].map((b) => `%${b.toString(16).toUpperCase().padStart(2, '0')}`).join('');
	// A colon in the first part of a relative path would read as a scheme.
	if (path.startsWith('/')) return `file://${out}`;
	return /^[^/]*:/.test(out) ? `./${out}` : out;
}

const xmlText = (text: string): string =>
	text
		.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
		.replaceAll('&', '&amp;')
		.replaceAll('<', '&lt;')
		.replaceAll('>', '&gt;');

export function writeXspf(list: Pick<Playlist, 'title' | 'entries'>): string {
	const track = ({ location, title, durationSec }: PlaylistEntry): string[] => [
		'\t\t<track>',
		`\t\t\t<location>${xmlText(isStream(location) ? location : pathToUri(location))}</location>`,
		...(title === null ? [] : [`\t\t\t<title>${xmlText(title)}</title>`]),
		...(durationSec === null ? [] : [`\t\t\t<duration>${durationSec * 1000}</duration>`]),
		'\t\t</track>'
	];
	return [
		'<?xml version="1.0" encoding="UTF-8"?>',
		`<playlist version="1" xmlns="${NAMESPACE}">`,
		...(list.title === null ? [] : [`\t<title>${xmlText(list.title)}</title>`]),
		'\t<trackList>',
		...list.entries.flatMap(track),
		'\t</trackList>',
		'</playlist>',
		''
	].join('\n');
}
