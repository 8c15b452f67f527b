/**
 * Power: what all the parts draw, from the wall through supply and lead to the board and its USB sockets.
 * Ohm's law; IEC 60028 for copper, ASTM B258 for gauges, IEC 60127 for fuses. Start at `powerPath.ts`.
 */
import type { Link } from '../../link';
import { powerFigures } from './figures';
import { assessPower } from './findings';
import { computePath } from './powerPath';
import { rehearsePower } from './rehearse';
import { powerSettings, type PowerSettings } from './settings';
import { powerSteps } from './steps';

export const power: Link<PowerSettings> = {
	id: 'power',
	title: 'Power',
	settings: powerSettings,
	claims: () => [],
	figures: powerFigures,
	assess: assessPower,
	files: () => [],
	steps: powerSteps,
	bench(plan, context, claims) {
		const path = computePath(plan, context, claims);
		const board = context.part('board', plan.parts.board);
		if (!path || !board) return {};
		return {
			power: {
				supplyVolts: path.supply.volts,
				ratedW: path.ratedW,
				loopOhm: path.loopOhm,
				idleW: path.watts.idle,
				playingW: path.watts.typical,
				peakW: path.watts.peak,
				brownOutV: board.brownOutV
			}
		};
	},
	rehearse: rehearsePower
};
