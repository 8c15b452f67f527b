import { z } from 'zod';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link/context';
import type { Claim } from '../../claims';
import { computePath } from './powerPath';
import type { PowerSettings } from './settings';

/** What feeds the board; null: whatever it takes. */
const feed = z.object({
	supplyVolts: z.number().positive(),
	ratedW: z.number().positive(),
	loopOhm: z.number().min(0),
	idleW: z.number().min(0),
	playingW: z.number().min(0),
	peakW: z.number().min(0),
	brownOutV: z.number().positive(),
	/** Below it the board complains and slows itself; null: it does not. */
	warnsV: z.number().positive().nullable().default(null)
});

declare module '../../engines/machine/bench' {
	interface Bench {
		power: z.infer<typeof feed> | null;
	}
}
/** What a rehearsal knows of the feed: volts at the board, when it holds up, when it restarts. */
export const powerBenchShape = { power: feed.nullable().default(null) };

/** The bench's feed, as reckoned from supply and lead. */
export function powerBench(settings: PowerSettings, context: Context, claims: readonly Claim[]): Partial<Bench> {
	const path = computePath(settings, context, claims);
	const board = context.part('board', context.facts.parts.board);
	if (!path || !board) return {};
	return {
		power: {
			supplyVolts: path.supply.volts,
			ratedW: path.ratedW,
			loopOhm: path.loopOhm,
			idleW: path.watts.idle,
			playingW: path.watts.typical,
			peakW: path.watts.peak,
			brownOutV: board.brownOutV,
			warnsV: board.warnsV
		}
	};
}
