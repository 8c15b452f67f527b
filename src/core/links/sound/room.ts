/**
 * What a room adds to a loudspeaker's level. In a room the sound that has been reflected many times fills it evenly, and
 * beyond a metre or two it is louder than what comes straight from the speaker.
 * Sources: W. C. Sabine's T = 0.161 V/A, as ISO 354:2003, 8.1.2 has it (55.3 V / c T); the sum of direct and diffuse field,
 * Q/4πr² + 4/A, as ISO 3741 and textbooks since Hopkins and Stryker (Proc. IRE 36, 1948, p. 315) have it.
 */
import type { SoundSettings } from './settings';

/** Mean absorption of all surfaces together, 0 to 1. Typical: stone, glass and tiles; a furnished room; carpet, curtains and upholstery. */
export const ABSORPTION = { hard: 0.08, ordinary: 0.18, soft: 0.32 } as const;

/**
 * Directivity factor of a speaker in a box for music as a whole, between what it is in the bass and in the treble. The more
 * it beams, the less of its sound fills the room: so the lower bound has the higher factor. Typical.
 */
export const DIRECTIVITY = { wide: 2, narrow: 5 } as const;

/** Nobody has said what room it is: no smaller and harder one is likely, a tiled one of eight square metres. */
const WORST_ROOM = { roomM3: 20, furnishing: 'hard' } as const;
/** Ground and a wall near by outdoors, at most: as much again as comes straight. */
const OUTDOOR_GAIN_DB = 3;

/** All surfaces of a room of common proportions (1 : 1.26 : 1.59), m², from its volume, m³. */
const surfaceM2 = (volumeM3: number): number => 6.2 * volumeM3 ** (2 / 3);

/** Equivalent absorption area, m². Reverberation time RT60 in seconds where it was measured. Source: ISO 354:2003, 8.1.2. */
export function absorptionM2(room: Pick<SoundSettings, 'roomM3' | 'furnishing' | 'reverbSec'>): number {
	return room.furnishing === 'measured'
		? (0.161 * room.roomM3) / room.reverbSec
		: ABSORPTION[room.furnishing] * surfaceM2(room.roomM3);
}

/** dB above the level that the same speaker makes at 1 m in a free field, at `distanceM`. */
export const fieldDb = (distanceM: number, directivity: number, absorption: number): number =>
	10 * Math.log10(1 / distanceM ** 2 + (absorption === Infinity ? 0 : (16 * Math.PI) / (directivity * absorption)));

/** The least and the most that distance and room make of the level at 1 m, dB. */
export interface FieldDb {
	readonly least: number;
	readonly most: number;
}

/** What is known of the room decides how far the two are apart: an unknown one may be a field or a bathroom. Headphones need none. */
export function fieldOf(
	settings: Pick<SoundSettings, 'distanceM' | 'place' | 'roomM3' | 'furnishing' | 'reverbSec'>,
	atEar = false
): FieldDb {
	if (atEar) return { least: 0, most: 0 };
	const { distanceM, place } = settings;
	const free = fieldDb(distanceM, 1, Infinity);
	switch (place) {
		case 'outdoors':
			return { least: free, most: free + OUTDOOR_GAIN_DB };
		case 'room': {
			const area = absorptionM2(settings);
			return {
				least: fieldDb(distanceM, DIRECTIVITY.narrow, area),
				most: fieldDb(distanceM, DIRECTIVITY.wide, area)
			};
		}
		case 'unknown':
			return {
				least: free,
				most: fieldDb(distanceM, DIRECTIVITY.wide, absorptionM2({ ...WORST_ROOM, reverbSec: 0 }))
			};
	}
}
