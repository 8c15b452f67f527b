/** Resistivity of annealed copper at 20 °C. Source: IEC 60028:1925, clause 1. */
const COPPER_OHM_MM2_PER_M = 0.0172414;

/** Cross-section of a conductor by its gauge number. Source: ASTM B258, clause 5: 0.127·92^((36−n)/39) mm diameter. */
export const awgAreaMm2 = (gauge: number): number => (Math.PI / 4) * (0.127 * 92 ** ((36 - gauge) / 39)) ** 2;

/** One conductor, one metre. */
export const ohmPerMetre = (areaMm2: number): number => COPPER_OHM_MM2_PER_M / areaMm2;

/** Both conductors of a lead, and the contacts of its plugs together. */
export const loopOhm = (lengthM: number, areaMm2: number, contactOhm: number): number =>
	2 * lengthM * ohmPerMetre(areaMm2) + contactOhm;

/** What a lead leaves of the supply's volts at a current. */
export interface Drop {
	readonly currentA: number;
	readonly boardV: number;
	readonly dropV: number;
	readonly cableLossW: number;
}

/** A load that draws the same current at any voltage. Null when nothing is left for it. */
export function dropAtCurrent(supplyV: number, loopOhms: number, currentA: number): Drop | null {
	const boardV = supplyV - currentA * loopOhms;
	return boardV > 0 ? describe(supplyV, boardV, currentA) : null;
}

/**
 * A load that draws the same power at any voltage, as a board does: V = (Vs + √(Vs² − 4·R·P)) / 2.
 * Null when the root is negative: the lead cannot carry it at all.
 */
export function dropAtPower(supplyV: number, loopOhms: number, watts: number): Drop | null {
	const root = supplyV * supplyV - 4 * loopOhms * watts;
	if (root < 0) return null;
	const boardV = (supplyV + Math.sqrt(root)) / 2;
	return describe(supplyV, boardV, watts / boardV);
}

const describe = (supplyV: number, boardV: number, currentA: number): Drop => ({
	currentA,
	boardV,
	dropV: supplyV - boardV,
	cableLossW: (supplyV - boardV) * currentA
});
