import { z } from 'zod';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link/context';
import { clockOf } from '../../parts/chosen';
import type { PartsSettings } from './settings';

/** The board's own pace, and whether it knows the time without power. */
const board = z.object({
	name: z.string(),
	firmwareMs: z.number().min(0),
	kernelMs: z.number().min(0),
	servicesMs: z.number().min(0),
	hasClock: z.boolean()
});
const ANY_BOARD = {
	name: 'a board of no particular class',
	firmwareMs: 3000,
	kernelMs: 5000,
	servicesMs: 4000,
	hasClock: false
};

declare module '../../engines/machine/bench' {
	interface Bench {
		board: z.infer<typeof board>;
	}
}
/** What a rehearsal knows of the board: how fast it starts, what it brings. */
export const partsBenchShape = { board: board.default(ANY_BOARD) };

/** The bench's board; a plain one until one is chosen. */
export function partsBench(settings: PartsSettings, context: Context): Partial<Bench> {
	const part = context.part('board', settings.board);
	if (!part) return {};
	return {
		board: {
			name: part.name,
			firmwareMs: part.firmwareSec * 1000,
			kernelMs: part.kernelSec * 1000,
			servicesMs: part.servicesSec * 1000,
			hasClock: part.hasClock || clockOf(context) !== null
		}
	};
}
