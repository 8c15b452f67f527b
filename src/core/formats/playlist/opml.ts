import { fault, ok, type Result } from '../../basics/result';
import { childrenOf, readXml, xmlText, type XmlElement } from '../xml/tree';
import { isStream, oneLine, type Playlist, type PlaylistEntry } from './playlist';
import { readPreset, withPreset } from './preset';

/** Outlines: OPML 2.0, as directories of stations use it. Source: OPML 2.0 specification (2007), "outline". */

/** An attribute by any of its spellings. */
const attribute = ({ attributes }: XmlElement, ...names: readonly string[]): string => {
	for (const [name, value] of Object.entries(attributes)) if (names.includes(name.toLowerCase())) return value.trim();
	return '';
};

/** Stations anywhere in the outline; feeds of pages are left out. Faults: those of `readXml`; `opml-none`, `opml-empty`. */
export function readOpml(text: string): Result<Playlist> {
	const tree = readXml(text);
	if (!tree.ok) return tree;
	if (tree.value.name !== 'opml') return fault('opml-none', 'There is no outline in this file.');
	const entries: PlaylistEntry[] = [];
	const remarks: string[] = [];
	const walk = (element: XmlElement): void => {
		for (const outline of childrenOf(element, 'outline')) {
			const title = oneLine(attribute(outline, 'text', 'title'));
			const location = attribute(outline, 'url', 'href');
			if (location !== '' && isStream(location)) {
				const logo = attribute(outline, 'image', 'logo');
				entries.push({
					location,
					title: title || null,
					durationSec: null,
					extra: withPreset([], {
						logo: oneLine(logo),
						language: oneLine(attribute(outline, 'language')),
						country: oneLine(attribute(outline, 'country'))
					})
				});
			} else if (attribute(outline, 'xmlurl') !== '')
				remarks.push(`"${title || attribute(outline, 'xmlurl')}" is a feed of pages, not a station, and was left out.`);
			walk(outline);
		}
	};
	walk(childrenOf(tree.value, 'body')[0] ?? tree.value);
	if (entries.length === 0) return fault('opml-empty', 'There is no station with an address in this outline.');
	const title = oneLine(childrenOf(childrenOf(tree.value, 'head')[0], 'title')[0]?.text ?? '');
	return ok({ title: title || null, entries, header: [], remarks });
}

/** Streams alone have a place in an outline; files are left out. */
export function writeOpml(list: Pick<Playlist, 'title' | 'entries'>): string {
	const outline = ({ location, title, extra }: PlaylistEntry): string => {
		const { logo, language, country } = readPreset(extra);
		const said = { text: title ?? location, type: 'audio', URL: location, image: logo, language, country };
		const attributes = Object.entries(said).filter(([, value]) => value !== '');
		return `\t\t<outline ${attributes.map(([name, value]) => `${name}="${xmlText(oneLine(value))}"`).join(' ')}/>`;
	};
	return [
		'<?xml version="1.0" encoding="UTF-8"?>',
		'<opml version="2.0">',
		`\t<head><title>${xmlText(list.title ?? '')}</title></head>`,
		'\t<body>',
		...list.entries.filter(({ location }) => isStream(location)).map(outline),
		'\t</body>',
		'</opml>',
		''
	].join('\n');
}
