import { claimsOn, type Claim } from '../../claims';
import type { Context } from '../../link/context';
import { onceFor } from '../../basics/onceFor';
import { chosenParts } from '../../parts/chosen';
import { playLoad, type PlayLoad } from '../../parts/playLoad';
import type { PartOf } from '../../parts/schema';
import { fitThermal, type Fitted } from './fit';
import type { HeatSettings, PLACES } from './settings';
import { dutyWatts, runHeat, settledAfterSec, type Duty, type HeatRun, type ThermalModel } from './thermal';

/**
 * How much warmer the air around the case is than the room: by a fixed amount, and for each watt inside. Typical:
 * a hand's width behind a lit screen; a closed cupboard of half a cubic metre; sun through a window on a dark case.
 */
export const PLACE_AIR: Readonly<Record<(typeof PLACES)[number], { words: string; k: number; kPerW: number }>> = {
	room: { words: 'standing free in the room', k: 0, kPerW: 0 },
	behind: { words: 'behind a screen', k: 7, kPerW: 0.4 },
	cupboard: { words: 'in a closed cupboard', k: 3, kPerW: 0.9 },
	sun: { words: 'behind glass in the sun', k: 16, kPerW: 0.2 }
};

/** All that is reckoned of one plan's warmth. */
export interface Heat {
	readonly board: PartOf<'board'>;
	readonly load: PlayLoad;
	readonly duty: Duty;
	readonly model: ThermalModel;
	readonly run: HeatRun;
	/** In the case: chip and what is beside it. */
	readonly watts: number;
	/** What the readings gave, when they are used. */
	readonly fitted: Fitted | null;
	readonly fan: PartOf<'fan'> | null;
}

/** The first fan among the chosen parts, or null. */
export const fanOf = (context: Context): PartOf<'fan'> | null =>
	chosenParts(context).flatMap(({ part }) => (part.kind === 'fan' ? [part] : []))[0] ?? null;

/** Null until a board is chosen. */
export const computeHeat = onceFor((settings: HeatSettings, context, claims) => findHeat(settings, context, claims));

/** The same with few steps, which suffice to see whether it stays cool; a curve takes more. */
export function findHeat(
	settings: HeatSettings,
	context: Context,
	claims: readonly Claim[],
	steps?: number
): Heat | null {
	const board = context.part('board', context.facts.parts.board);
	if (!board) return null;
	const load = playLoad(board, context.facts.film);
	const besideW = claimsOn(claims, 'power')
		.filter(({ via, part }) => (via === 'header' || via === 'board') && part !== board.id)
		.reduce((sum, { typicalW, count }) => sum + typicalW * count, 0);
	const duty: Duty = { idleW: board.idleW, peakW: board.peakW, share: load.share };
	const watts = dutyWatts(duty);
	const fitted = fittedOf(settings, watts);
	const typical = typicalModel(settings, context, board);
	// What sits on the header warms the air in the case, not the chip; readings have it in them already.
	const model = fitted
		? { ...typical, ...measured(fitted) }
		: { ...typical, airC: typical.airC + besideW * typical.caseKPerW };
	return {
		board,
		load,
		duty,
		model,
		run: runHeat(model, duty, settledAfterSec(model), steps),
		watts: watts + besideW,
		fitted,
		fan: fanOf(context)
	};
}

function typicalModel(heat: HeatSettings, context: Context, board: PartOf<'board'>): ThermalModel {
	const box = context.part('case', context.facts.parts.case);
	const cooler = context.part('cooler', context.facts.parts.cooler);
	const fan = fanOf(context);
	const place = PLACE_AIR[heat.place];
	return {
		airC: heat.roomC + place.k,
		// Chip and heatsink side by side, each with its own way into the air.
		chipKPerW: cooler ? 1 / (1 / board.bareKPerW + 1 / cooler.kPerW) : board.bareKPerW,
		caseKPerW: (box?.kPerW ?? 0) + place.kPerW,
		jPerK: board.heatJPerK + (cooler?.jPerK ?? 0),
		throttleC: board.throttleC,
		fan: fan
			? {
					airFactor: fan.airFactor,
					control: fan.control,
					onC: heat.fanOnC,
					offC: Math.min(heat.fanOffC, heat.fanOnC - 1)
				}
			: null
	};
}

/** Readings are of the whole as it stands, fan included; so all of it is one resistance. */
const measured = ({ kPerW, jPerK }: Fitted): Partial<ThermalModel> => ({
	chipKPerW: kPerW,
	caseKPerW: 0,
	jPerK,
	fan: null
});

function fittedOf(heat: HeatSettings, watts: number): Fitted | null {
	if (!heat.useReadings) return null;
	const fitted = fitThermal(heat.readings, heat.roomC + PLACE_AIR[heat.place].k, watts);
	return fitted.ok ? fitted.value : null;
}
