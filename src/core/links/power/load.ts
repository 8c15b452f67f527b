import type { PartOf } from '../../parts/schema';

/** Resistivity of annealed copper at 20 °C. Source: IEC 60028:1925, clause 1. */
const COPPER_OHM_MM2_PER_M = 0.0172414;
/** Two plugs and sockets, both conductors. Typical. */
const CONTACT_OHM = 0.04;

export interface PowerPath {
	readonly typicalW: number;
	readonly peakW: number;
	readonly ratedW: number;
	readonly loopOhm: number;
	/** At the board under peak load; null when the lead cannot carry it at all. */
	readonly voltsAtPeak: number | null;
	readonly voltsTypical: number | null;
}

/** Both conductors of the lead and its contacts. */
export const loopOhm = (lengthM: number, areaMm2: number): number =>
	(COPPER_OHM_MM2_PER_M * 2 * lengthM) / areaMm2 + CONTACT_OHM;

/** A board draws constant power: V = (Vs + √(Vs² − 4·R·P)) / 2. Null when the root is negative. */
export function voltsAtConstantPower(supplyV: number, loopOhms: number, watts: number): number | null {
	const root = supplyV * supplyV - 4 * loopOhms * watts;
	return root < 0 ? null : (supplyV + Math.sqrt(root)) / 2;
}

export function computePowerPath(
	claims: readonly { typicalW: number; peakW: number }[],
	supply: PartOf<'supply'>,
	lead: { leadLengthM: number; leadAreaMm2: number }
): PowerPath {
	const typicalW = claims.reduce((sum, claim) => sum + claim.typicalW, 0);
	const peakW = claims.reduce((sum, claim) => sum + claim.peakW, 0);
	const ohms = loopOhm(lead.leadLengthM, lead.leadAreaMm2);
	return {
		typicalW,
		peakW,
		ratedW: supply.volts * supply.amperes,
		loopOhm: ohms,
		voltsAtPeak: voltsAtConstantPower(supply.volts, ohms, peakW),
		voltsTypical: voltsAtConstantPower(supply.volts, ohms, typicalW)
	};
}
