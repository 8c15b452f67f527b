/**
 * A video converter of resistors: each bit drives one resistor to the colour's line, which the monitor ends with 75 Ω.
 * Source: superposition; VESA Video Signal Standard 1r2 for 0.7 V and 75 Ω.
 */
export interface Ladder {
	/** Most significant bit first. */
	readonly resistorsOhm: readonly number[];
	readonly logicV: number;
	readonly loadOhm: number;
}

/** What a monitor ends each colour's line with. */
const LOAD_OHM = 75;
/** The ladder of an adapter on a monitor. */
export const ladderOf = ({ resistorsOhm, logicV }: Pick<Ladder, 'resistorsOhm' | 'logicV'>): Ladder => ({
	resistorsOhm,
	logicV,
	loadOhm: LOAD_OHM
});

/** What comes out for each code. */
export interface LadderLevels {
	readonly voltsByCode: readonly number[];
	/** From each code to the next. */
	readonly stepsV: readonly number[];
	readonly fullScaleV: number;
	/** Never darker for a higher code. */
	readonly monotonic: boolean;
	readonly smallestStepV: number;
	readonly largestStepV: number;
}

/** More bits than this no ladder has, and the table would be long. */
export const MOST_BITS = 12;

/** Levels for every code, V. */
export function computeLevels({ resistorsOhm, logicV, loadOhm }: Ladder): LadderLevels {
	const bits = resistorsOhm.length;
	const siemens = 1 / loadOhm + resistorsOhm.reduce((sum, ohm) => sum + 1 / ohm, 0);
	const voltsByCode = Array.from(
		{ length: 2 ** bits },
		(_, code) =>
			resistorsOhm.reduce((sum, ohm, n) => sum + ((code >> (bits - 1 - n)) & 1 ? logicV / ohm : 0), 0) / siemens
	);
	const stepsV = voltsByCode.slice(1).map((volts, n) => volts - voltsByCode[n]!);
	return {
		voltsByCode,
		stepsV,
		fullScaleV: voltsByCode.at(-1)!,
		monotonic: stepsV.every((step) => step >= 0),
		smallestStepV: Math.min(...stepsV),
		largestStepV: Math.max(...stepsV)
	};
}

/** The worst that parts within their tolerance can make of it. */
export interface LadderTolerance {
	readonly worstStepV: number;
	readonly worstStepFromCode: number;
	readonly monotonicGuaranteed: boolean;
}

/**
 * The smallest step over all codes when every resistor may be off by its tolerance on its own. A step is a fraction that rises or
 * falls with each resistor alone, so the worst lies in a corner: the bit that comes is weak, those that go are strong, and the bits
 * that stay shrink a rise most when strong and a fall most when weak.
 */
export function computeTolerance({ resistorsOhm, logicV, loadOhm }: Ladder, tolerancePercent: number): LadderTolerance {
	const bits = resistorsOhm.length;
	const off = tolerancePercent / 100;
	const strong = resistorsOhm.map((ohm) => 1 / (ohm * (1 - off)));
	const weak = resistorsOhm.map((ohm) => 1 / (ohm * (1 + off)));
	let worst = { worstStepV: Infinity, worstStepFromCode: 0 };
	for (let code = 0; code < 2 ** bits - 1; code++)
		for (const stays of [strong, weak]) {
			let rise = 0;
			let siemens = 1 / loadOhm;
			for (let n = 0; n < bits; n++) {
				const bit = 1 << (bits - 1 - n);
				const before = code & bit;
				const after = (code + 1) & bit;
				const own = before === after ? stays[n]! : after ? weak[n]! : strong[n]!;
				siemens += own;
				if (before !== after) rise += after ? own : -own;
			}
			const worstStepV = (logicV * rise) / siemens;
			if (worstStepV < worst.worstStepV) worst = { worstStepV, worstStepFromCode: code };
		}
	return { ...worst, monotonicGuaranteed: worst.worstStepV >= 0 };
}
