import { z } from 'zod';

/** Where an endpoint can stand, from coolest to warmest. */
export const PLACES = ['room', 'behind', 'cupboard', 'sun'] as const;

/** Where it stands, and what the person has read off. */
export const heatSettings = z.object({
	place: z.enum(PLACES),
	/** The warmest the room gets. */
	roomC: z.number().min(-30).max(60),
	/** When a fan that can be switched begins and ends; at `fanOnC` one with PWM runs at full speed. */
	fanOnC: z.number().min(30).max(90),
	fanOffC: z.number().min(20).max(85),
	/** Chip temperatures after a cold start, while it plays, with the fan (if any) as it will be. */
	readings: z.array(z.object({ afterMin: z.number().min(0.5).max(600), chipC: z.number().min(0).max(125) })).max(12),
	/** Use what the readings say in place of typical constants. */
	useReadings: z.boolean()
});
/** The heat's slice of a plan. */
export type HeatSettings = z.infer<typeof heatSettings>;
