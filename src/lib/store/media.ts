import { FILM, POSTERS } from '$demo/facts';
import { toneBytes } from '$demo/tones';
import { readMediaBytes } from './storage';

/** The demo's film and posters are larger than the rest of a page: only who asks for them loads them. */
const large = async (location: string): Promise<Uint8Array | null> =>
	location === FILM || location in POSTERS ? (await import('$demo/media')).demoMediaBytes(location) : null;

/** Bytes of these media, as far as this browser has them. */
export async function loadMediaBytes(locations: readonly string[]): Promise<Map<string, Uint8Array>> {
	const found = new Map<string, Uint8Array>();
	for (const location of locations) {
		const bytes = toneBytes(location) ?? (await large(location)) ?? (await readMediaBytes(location));
		if (bytes) found.set(location, bytes);
	}
	return found;
}
