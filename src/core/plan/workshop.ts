import { z } from 'zod';
import { mediaSchema } from '../parts/media';
import { partSchema } from '../parts/schema';
import { probeFactsSchema } from '../probe/facts';
import { planSchema } from './plan';
import { venueSchema } from './venue';

export const WORKSHOP_VERSION = 2;

/** One board that plays: its plan, what was found out about it, and what was last written for it. */
export const endpointSchema = z.object({
	id: z.string().min(1),
	plan: planSchema,
	probe: probeFactsSchema.nullable(),
	/** The last card set written, for showing what has changed since. Lines with secrets are not in it. */
	written: z.object({ atUtc: z.string(), files: z.record(z.string(), z.string()) }).nullable(),
	/** Run-sheet steps that are done, with the reading taken, by step id. */
	done: z.record(z.string(), z.object({ atUtc: z.string(), reading: z.string() }))
});
export type Endpoint = z.infer<typeof endpointSchema>;

/** Everything one person keeps; on export, one file. */
export const workshopSchema = z.object({
	yphos: z.literal('workshop'),
	version: z.literal(WORKSHOP_VERSION),
	venue: venueSchema,
	parts: z.array(partSchema),
	media: z.array(mediaSchema),
	endpoints: z.array(endpointSchema)
});
export type Workshop = z.infer<typeof workshopSchema>;

export const emptyWorkshop = (timeZone: string): Workshop => ({
	yphos: 'workshop',
	version: WORKSHOP_VERSION,
	venue: { name: 'My workshop', timeZone, currency: 'EUR' },
	parts: [],
	media: [],
	endpoints: []
});
