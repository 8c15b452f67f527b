import { LIST_LIMITS } from './limits';

/**
 * A playlist, whichever format it came in. What our own model does not know is kept beside it and written back:
 * `extra` lines before an entry (M3U comments and directives), `header` lines of the whole.
 */
export interface PlaylistEntry {
	/** As it stands in the list: an address, a path, or a path relative to the list. */
	readonly location: string;
	readonly title: string | null;
	/** Whole seconds; null when unknown or endless. */
	readonly durationSec: number | null;
	readonly extra: readonly string[];
}

/** A playlist of any format: what all of them have, and what has no place elsewhere. */
export interface Playlist {
	readonly title: string | null;
	readonly entries: readonly PlaylistEntry[];
	readonly header: readonly string[];
	/** What a person should know of the reading: characters replaced, lines left out. */
	readonly remarks: readonly string[];
}

/** Text from bytes: UTF-8 with or without its mark, UTF-16 by its mark, otherwise Latin-1, which never fails. */
export function decodeText(bytes: Uint8Array): { text: string; encoding: 'UTF-8' | 'UTF-16' | 'Latin-1' } {
	if (bytes[0] === 0xff && bytes[1] === 0xfe)
		return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'UTF-16' };
	if (bytes[0] === 0xfe && bytes[1] === 0xff)
		return { text: new TextDecoder('utf-16be').decode(bytes), encoding: 'UTF-16' };
	try {
		return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
	} catch {
		return { text: new TextDecoder('iso-8859-1').decode(bytes), encoding: 'Latin-1' };
	}
}

/** True for http:, https:, rtsp: and their like; a drive letter or a file: address is not a stream. */
export const isStream = (location: string): boolean =>
	/^[a-z][a-z0-9+.-]+:\/\//i.test(location) && !/^file:/i.test(location);

/** One line of text: every control character, tab and line break too, becomes a space. */
export const oneLine = (text: string): string =>
	text.replace(/[\u0000-\u001f\u007f\u0085\u2028\u2029\ufffe\uffff]+/g, ' ').trim();

/** Seconds as a list keeps them: whole, at least one where something sounds; null when unknown, endless or absurd. */
export const wholeSeconds = (seconds: number): number | null =>
	seconds > 0 && seconds <= LIST_LIMITS.durationSec ? Math.max(1, Math.round(seconds)) : null;
