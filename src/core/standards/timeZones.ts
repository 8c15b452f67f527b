import { ZONES_BY_REGION } from './timeZoneTable';

/** Every name, spelt as the tz database spells it. */
export const TIME_ZONES: readonly string[] = Object.entries(ZONES_BY_REGION)
	.flatMap(([region, names]) => names.split(' ').map((name) => (region ? `${region}/${name}` : name)))
	.sort();

const bySmallLetters = new Map(TIME_ZONES.map((name) => [name.toLowerCase(), name]));

/** The database's own spelling of a zone, however its letters were typed; null when there is no such zone. Files are found by it. */
export const canonicalTimeZone = (text: string): string | null =>
	bySmallLetters.get(text.trim().toLowerCase().replace(/ /g, '_')) ?? null;
