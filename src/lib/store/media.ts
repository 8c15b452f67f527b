import { FILM, POSTERS } from '$demo/facts';
import { toneBytes } from '$demo/tones';
import { readMedia, readMediaNames } from './storage';

/** The demo's film and posters are larger than the rest of a page: only who asks for them loads them. */
const large = async (location: string): Promise<Uint8Array | null> =>
	location === FILM || location in POSTERS ? (await import('$demo/media')).demoMediaBytes(location) : null;

/** These media, as far as this browser has them; what it keeps stays a blob, which is read when it is wanted. */
export async function loadMedia(locations: readonly string[]): Promise<Map<string, Uint8Array | Blob>> {
	const found = new Map<string, Uint8Array | Blob>();
	// One question for all of them: of a list of thousands hardly any may be here.
	const kept = new Set(locations.length ? await readMediaNames() : []);
	for (const location of locations) {
		const media =
			toneBytes(location) ?? (await large(location)) ?? (kept.has(location) ? await readMedia(location) : null);
		if (media) found.set(location, media);
	}
	return found;
}

/** The same, with all bytes at hand. */
export async function loadMediaBytes(locations: readonly string[]): Promise<Map<string, Uint8Array>> {
	const found = new Map<string, Uint8Array>();
	for (const [location, media] of await loadMedia(locations))
		found.set(location, media instanceof Blob ? new Uint8Array(await media.arrayBuffer()) : media);
	return found;
}
