import { demoMediaBytes } from '$demo/media';
import { readMediaBytes } from './storage';

/** Bytes of these media, as far as this browser has them. */
export async function loadMediaBytes(locations: readonly string[]): Promise<Map<string, Uint8Array>> {
	const found = new Map<string, Uint8Array>();
	for (const location of locations) {
		const bytes = demoMediaBytes(location) ?? (await readMediaBytes(location));
		if (bytes) found.set(location, bytes);
	}
	return found;
}
