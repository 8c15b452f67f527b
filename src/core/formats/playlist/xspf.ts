import { fault, ok, type Result } from '../../basics/result';
import { readJson } from '../json/json';
import { childrenOf, readXml, xmlText, type XmlElement } from '../xml/tree';
import { readPreset } from './preset';
import { isStream, wholeSeconds, type Playlist, type PlaylistEntry } from './playlist';

/** XSPF version 1 playlists. Source: Xiph XSPF specification version 1, section 4. */
const NAMESPACE = 'http://xspf.org/ns/0/';

/** Faults: those of `readXml`, with the line; `xspf-none`, `xspf-empty`. */
export function readXspf(text: string): Result<Playlist> {
	const tree = readXml(text);
	if (!tree.ok) return tree;
	if (tree.value.name !== 'playlist') return fault('xspf-none', 'There is no playlist element in this file.');
	const tracks = childrenOf(childrenOf(tree.value, 'trackList')[0], 'track');
	const remarks: string[] = [];
	const entries = tracks.flatMap((track, index): PlaylistEntry[] => {
		const location = childrenOf(track, 'location')[0]?.text ?? '';
		if (!location) {
			remarks.push(`Track ${index + 1} has no location and was left out.`);
			return [];
		}
		const kept = textElements(track, KEPT_OF_TRACK);
		return [
			{
				location: fromUri(location),
				title: composeTitle(kept) || null,
				durationSec: wholeSeconds(Number(childrenOf(track, 'duration')[0]?.text ?? 0) / 1000),
				extra: keptLine(TRACK, Object.keys(kept).some((key) => key !== 'title') ? kept : {})
			}
		];
	});
	if (entries.length === 0) return fault('xspf-empty', 'There is no track with a location in this file.');
	const { title = '', ...kept } = textElements(tree.value, ['title', ...KEPT_OF_LIST]);
	return ok({ title: title || null, entries, header: keptLine(LIST, kept), remarks });
}

/** Elements of XSPF beyond our own model travel as one comment line of JSON, which an M3U carries too. */
const TRACK = '#XSPF-TRACK:';
const LIST = '#XSPF-LIST:';
const KEPT_OF_TRACK = ['identifier', 'title', 'creator', 'annotation', 'info', 'image', 'album', 'trackNum'] as const;
const KEPT_OF_LIST = ['creator', 'annotation', 'info', 'identifier', 'image', 'date', 'license'] as const;

const textElements = (from: XmlElement, keys: readonly string[]): Record<string, string> =>
	Object.fromEntries(
		keys.flatMap((key) => {
			const text = childrenOf(from, key)[0]?.text;
			return text ? [[key, text]] : [];
		})
	);

const keptLine = (mark: string, kept: Record<string, string>): string[] =>
	Object.keys(kept).length ? [mark + JSON.stringify(kept)] : [];

function readKept(lines: readonly string[], mark: string): Record<string, string> {
	const read = readJson(lines.find((line) => line.startsWith(mark))?.slice(mark.length) ?? '{}');
	const kept = read.ok && typeof read.value === 'object' ? ((read.value ?? {}) as Record<string, unknown>) : {};
	return Object.fromEntries(
		[...KEPT_OF_TRACK, ...KEPT_OF_LIST].flatMap((key) => {
			const text = Object.hasOwn(kept, key) ? kept[key] : undefined;
			return typeof text === 'string' && text !== '' ? [[key, text]] : [];
		})
	);
}

const composeTitle = ({ creator, title }: Record<string, string>): string =>
	[creator, title].filter(Boolean).join(' – ');

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

/** Source: XSPF 1, 4.1. */
export function writeXspf(list: Pick<Playlist, 'title' | 'entries'> & Partial<Playlist>): string {
	const element = (indent: string, name: string, text: string): string =>
		`${indent}<${name}>${xmlText(text)}</${name}>`;
	const track = ({ location, title, durationSec, extra }: PlaylistEntry): string[] => {
		const { logo } = readPreset(extra);
		const kept: Record<string, string> = { ...(logo ? { image: logo } : {}), ...readKept(extra, TRACK) };
		// A title that the person has changed since replaces creator and title as they came.
		const { identifier, creator } = kept;
		const rest = Object.entries(kept).filter(([name]) => !['identifier', 'title', 'creator'].includes(name));
		const own: Record<string, string> = title === null || composeTitle(kept) === title ? kept : { title };
		return [
			'\t\t<track>',
			element('\t\t\t', 'location', isStream(location) ? location : pathToUri(location)),
			...(identifier === undefined ? [] : [element('\t\t\t', 'identifier', identifier)]),
			...(own.title === undefined && (title === null || creator !== undefined)
				? []
				: [element('\t\t\t', 'title', own.title ?? title ?? '')]),
			...(own.creator === undefined ? [] : [element('\t\t\t', 'creator', own.creator)]),
			...rest.map(([name, text]) => element('\t\t\t', name, text)),
			...(durationSec === null ? [] : [element('\t\t\t', 'duration', String(durationSec * 1000))]),
			'\t\t</track>'
		];
	};
	return [
		'<?xml version="1.0" encoding="UTF-8"?>',
		`<playlist version="1" xmlns="${NAMESPACE}">`,
		...(list.title === null ? [] : [element('\t', 'title', list.title)]),
		...Object.entries(readKept(list.header ?? [], LIST)).map(([name, text]) => element('\t', name, text)),
		'\t<trackList>',
		...list.entries.flatMap(track),
		'\t</trackList>',
		'</playlist>',
		''
	].join('\n');
}
