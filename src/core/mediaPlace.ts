import { isStream } from './formats/playlist';
import { MEDIA_DIR } from './cardFile';

/**
 * A file name that every file system on the way takes: FAT refuses " * / : < > ? \ | and control characters, and ends names
 * at a dot or space. What had to change gets a short mark of the whole original, so that two never meet.
 * Source: Microsoft FAT specification 1.03 (2000), "Long Directory Entries". The title keeps every character.
 */
export function cardFileName(location: string): string {
	const original = location.split('/').at(-1)!;
	const plain = original
		.normalize('NFC')
		.replace(/[^\p{L}\p{N} ._()&+,=@'!-]/gu, '_')
		.replace(/^[ .-]+|[ .]+$/g, '');
	const extension = /\.[A-Za-z0-9]{1,5}$/.exec(plain)?.[0] ?? '';
	const stem = plain.slice(0, plain.length - extension.length).slice(0, 60);
	const needsMark = `${stem}${extension}` !== location || stem === '';
	return needsMark ? `${stem || 'track'}-${mark(location)}${extension}` : `${stem}${extension}`;
}

/** FNV-1a, 32 bit: enough to tell names apart within one list. */
function mark(text: string): string {
	let hash = 0x811c9dc5;
	for (const byte of new TextEncoder().encode(text)) hash = Math.imul(hash ^ byte, 0x01000193);
	return (hash >>> 0).toString(16).padStart(8, '0');
}

export type Place = { readonly kind: 'stream' | 'disk' | 'card'; readonly inPlaylist: string };

/** Where an entry leads on the endpoint, and how the playlist names it. */
export function placeOf(location: string): Place {
	if (isStream(location)) return { kind: 'stream', inPlaylist: location };
	if (location.startsWith('/')) return { kind: 'disk', inPlaylist: location };
	return { kind: 'card', inPlaylist: `${MEDIA_DIR}/${cardFileName(location)}` };
}
