import type { PartOf } from './schema';

/** Gain and clipping point from an amplifier's rating: so many watts into so many ohms for its input sensitivity. */
export function amplifierFigures(amplifier: Pick<PartOf<'amplifier'>, 'ratedW' | 'ratedOhm' | 'sensitivityVrms'>): {
	gainDb: number;
	clipVrms: number;
} {
	const clipVrms = Math.sqrt(amplifier.ratedW * amplifier.ratedOhm);
	return { gainDb: 20 * Math.log10(clipVrms / amplifier.sensitivityVrms), clipVrms };
}
