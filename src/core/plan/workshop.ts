import { z } from 'zod';
import { mediaSchema } from '../parts/media';
import { partSchema } from '../parts/schema';
import { probeFactsSchema } from '../probe/facts';
import { planSchema } from './plan';
import { lineText } from './text';
import { venueSchema } from './venue';

export const WORKSHOP_VERSION = 5;

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

export const shippingSchema = z.object({
	label: lineText(60).min(1, 'Say for whom or what.'),
	price: z.number().min(0).max(10_000)
});
export type Shipping = z.infer<typeof shippingSchema>;

/** Everything one person keeps; on export, one file. */
export const workshopSchema = z.object({
	yphos: z.literal('workshop'),
	version: z.literal(WORKSHOP_VERSION),
	venue: venueSchema,
	/** One's own parts; the shipped ones stand beside them, and one's own takes the place of a shipped one with the same id. */
	parts: z.array(partSchema),
	/** How many of each part are there already, by part id. */
	owned: z.record(z.string(), z.number().int().min(1).max(99)),
	/** What the shops add for sending. */
	shipping: z.array(shippingSchema),
	media: z.array(mediaSchema),
	endpoints: z.array(endpointSchema)
});
export type Workshop = z.infer<typeof workshopSchema>;

export const emptyWorkshop = (timeZone: string): Workshop => ({
	yphos: 'workshop',
	version: WORKSHOP_VERSION,
	venue: { name: 'My workshop', timeZone, currency: 'EUR', pricePerKwh: 0.3, mainsV: 230, lan: null },
	parts: [],
	owned: {},
	shipping: [],
	media: [],
	endpoints: []
});
