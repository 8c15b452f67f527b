/**
 * What is said of a station beside its address and title. It travels as attributes of M3U ("#EXTINF:-1 logo="…" language="…",Title"),
 * as the picture of XSPF, and as attributes of OPML; in a plan it stands among an entry's own lines, so that nothing is lost.
 */
export interface Preset {
	/** Address of a picture. */
	readonly logo: string;
	readonly language: string;
	readonly country: string;
}

/** Attributes between the seconds and the comma are kept as a line of their own until they are written back in their place. */
export const ATTRIBUTES = '#EXTINF-ATTRIBUTES:';
const KEYS = ['logo', 'language', 'country'] as const;
/** Lists of television put a prefix before them. */
const keyOf = (name: string): string => name.toLowerCase().replace(/^tvg-/, '');

const attributesOf = (extra: readonly string[]): string =>
	extra.find((line) => line.startsWith(ATTRIBUTES))?.slice(ATTRIBUTES.length) ?? '';
const PAIR = /([\w-]{1,40})="([^"]*)"/g;

/** What an entry's own lines say of its station; "": nothing. */
export function readPreset(extra: readonly string[]): Preset {
	const found: Record<string, string> = {};
	for (const [, name, value] of attributesOf(extra).matchAll(PAIR)) found[keyOf(name!)] ??= value!;
	const track = extra.find((line) => line.startsWith('#XSPF-TRACK:'));
	const image = /"image":"((?:[^"\\]|\\.)*)"/.exec(track ?? '')?.[1];
	return { logo: found.logo ?? image ?? '', language: found.language ?? '', country: found.country ?? '' };
}

/** The lines with those values in the attributes' line; everything else in it stays. Quotes within a value become single ones. */
export function withPreset(extra: readonly string[], preset: Partial<Preset>): string[] {
	let attributes = attributesOf(extra);
	for (const key of KEYS) {
		const value = preset[key]?.replaceAll('"', "'").trim();
		if (value === undefined) continue;
		attributes = attributes.replace(PAIR, (pair, name: string) => (keyOf(name) === key ? '' : pair));
		if (value) attributes += ` ${key}="${value}"`;
	}
	const line = attributes.replace(/ {2,}/g, ' ').trim();
	return [...extra.filter((one) => !one.startsWith(ATTRIBUTES)), ...(line ? [ATTRIBUTES + line] : [])];
}
