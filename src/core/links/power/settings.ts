import { z } from 'zod';

/** How the mains reach the endpoint, for how long each day, and how long it needs to stop cleanly. */
export const powerSettings = z.object({
	/** Both contacts of every plug on the way, together. */
	contactMilliohm: z.number().min(0).max(1000),
	/** Hours a day for which it is switched on. */
	onHoursPerDay: z.number().min(0).max(24),
	/** From the wish to stop to the moment at which power may go. */
	shutdownSec: z.number().min(1).max(600),
	/** A mains inlet built into a box of one's own; null: a ready-made supply in a wall socket. */
	inlet: z
		.object({
			/** Watts drawn through it at the busiest, all together. */
			watts: z.number().min(1).max(2300),
			powerFactor: z.number().min(0.3).max(1),
			marginPercent: z.number().min(0).max(300),
			/** Peak of the first half wave, in amperes, from the supply's sheet. */
			inrushA: z.number().min(0).max(300),
			earthed: z.boolean(),
			strainRelief: z.boolean(),
			touchSafe: z.boolean()
		})
		.nullable()
});
/** The power's slice of a plan. */
export type PowerSettings = z.infer<typeof powerSettings>;
