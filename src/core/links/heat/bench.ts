import { z } from 'zod';
import type { Claim } from '../../claims';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link/context';
import { computeHeat } from './model';
import type { HeatSettings } from './settings';

/** How the board warms up, and under what load; null: it stays cool. */
const heat = z.object({
	duty: z.object({
		idleW: z.number().min(0),
		peakW: z.number().min(0),
		share: z.number().min(0)
	}),
	model: z.object({
		airC: z.number(),
		chipKPerW: z.number().positive(),
		caseKPerW: z.number().min(0),
		jPerK: z.number().positive(),
		throttleC: z.number(),
		fan: z
			.object({
				part: z.string(),
				airFactor: z.number().min(1),
				control: z.enum(['always', 'switched', 'pwm']),
				onC: z.number(),
				offC: z.number(),
				/** In the board's own socket, where the kernel turns it. */
				socket: z.boolean()
			})
			.nullable()
	})
});

declare module '../../engines/machine/bench' {
	interface Bench {
		heat: z.infer<typeof heat> | null;
	}
}
/** What a rehearsal knows of warmth: the thermal model and the room. */
export const heatBenchShape = { heat: heat.nullable().default(null) };

/** The bench's heat, as reckoned from the parts; nothing until a board is chosen. */
export function heatBench(settings: HeatSettings, context: Context, claims: readonly Claim[]): Partial<Bench> {
	const found = computeHeat(settings, context, claims);
	if (!found) return {};
	const { fan } = found.model;
	return {
		heat: {
			duty: found.duty,
			model: {
				...found.model,
				fan: fan && found.fan ? { ...fan, part: found.fan.id, socket: found.fan.header === null } : null
			}
		}
	};
}
