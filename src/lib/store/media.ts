import { readMediaBytes } from './storage';

/** Bytes of these media, as far as this browser has them. */
export async function loadMediaBytes(locations: readonly string[]): Promise<Map<string, Uint8Array>> {
	// The demo's film is larger than the rest of a page.
	const { demoMediaBytes } = await import('$demo/media');
	const found = new Map<string, Uint8Array>();
	for (const location of locations) {
		const bytes = demoMediaBytes(location) ?? (await readMediaBytes(location));
		if (bytes) found.set(location, bytes);
	}
	return found;
}
