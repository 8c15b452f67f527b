import { writeTone } from '$core/formats/wav/wav';
import { TONES } from './facts';

const made = new Map<string, Uint8Array>();

/** The bytes of one of the demo's tones, computed when it is first asked for; null: it is none. */
export function toneBytes(location: string): Uint8Array | null {
	const tone = (TONES as Record<string, (typeof TONES)[keyof typeof TONES]>)[location];
	if (!tone) return null;
	let bytes = made.get(location);
	if (!bytes) made.set(location, (bytes = writeTone({ ...tone, bitDepth: 16 })));
	return bytes;
}
