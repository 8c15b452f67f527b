/**
 * How far a phone's sound is heard by radio. The phone sends, so its strength and the endpoint's ear count; what the endpoint answers
 * goes the same way back. Sources: ITU-R P.1238-10 (indoor loss), Bluetooth Core 5.3, vol. 2, part A, 3 and 4.
 */

/** At 1 m and 2.44 GHz in free space: 20 lg(4π·1/λ). */
const AT_ONE_METRE_DB = 40.2;
/** Loss by distance is 10 n lg d: free space has n = 2; rooms with people and furniture in them more. */
const DECAY = { room: 2.2, walled: 2.8 } as const;
/** A wall of a house: plasterboard takes less, stone more. Typical. */
const WALL_DB = 6;
/** Phones send as class 2 as a rule. */
const PHONE_DBM = 4;
/** What a usual chip still reads of the faster modulations that sound needs; the standard asks only -70. */
const HEARS_DBM = -86;
/** Between a usual moment and a bad one: people in the way, a phone in a pocket, a trough of the field. */
export const FADING_DB = 15;

/** Loss between the two, dB. */
export const radioLossDb = (distanceM: number, walls: number): number =>
	AT_ONE_METRE_DB +
	10 * (walls > 0 ? DECAY.walled : DECAY.room) * Math.log10(Math.max(0.3, distanceM)) +
	walls * WALL_DB;

/** What is left above the weakest that is still read, dB; the weaker of both directions. */
export const marginDb = (adapterDbm: number, distanceM: number, walls: number): number =>
	Math.min(PHONE_DBM, adapterDbm) - radioLossDb(distanceM, walls) - HEARS_DBM;

/** The farthest at which a margin is left, m. */
export const reachM = (adapterDbm: number, walls: number, wantedDb: number): number =>
	10 **
	((Math.min(PHONE_DBM, adapterDbm) - HEARS_DBM - wantedDb - AT_ONE_METRE_DB - walls * WALL_DB) /
		(10 * (walls > 0 ? DECAY.walled : DECAY.room)));
