/** Rated currents of miniature fuses in the usual range, in amperes. Source: IEC 60127-2, standard sheets; the R10 series. */
export const FUSE_RATINGS_A = [
	0.1, 0.125, 0.16, 0.2, 0.25, 0.315, 0.4, 0.5, 0.63, 0.8, 1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8, 10
] as const;

interface Fuse {
	readonly currentA: number;
	readonly neededA: number;
	/** The smallest rating that is not below what is needed; null when there is none. */
	readonly fuseA: number | null;
}

/** Mains current of a load, and the next fuse for it with the margin asked for. */
export function computeFuse(load: {
	watts: number;
	mainsV: number;
	powerFactor: number;
	marginPercent: number;
	ratingsA: readonly number[];
}): Fuse {
	const currentA = load.watts / load.mainsV / load.powerFactor;
	const neededA = currentA * (1 + load.marginPercent / 100);
	const fitting = load.ratingsA.filter((rating) => rating >= neededA);
	return { currentA, neededA, fuseA: fitting.length ? Math.min(...fitting) : null };
}

/** A quick fuse may open at ten times its rating within a half wave. Source: IEC 60127-2, sheet 1 (F) and 3 (T), pre-arcing times. */
const QUICK_FUSE_TIMES = 10;

/** T, time-lag, where the inrush would open a quick one; else F. */
export const fuseCharacteristic = (fuseA: number, inrushA: number): 'F' | 'T' =>
	inrushA > QUICK_FUSE_TIMES * fuseA ? 'T' : 'F';
