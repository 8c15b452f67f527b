import { CALM_THEME } from '../standards/pageTheme';
import { z } from 'zod';
import { mediaSchema } from '../parts/media';
import { partSchema } from '../parts/schema';
import { probeFactsSchema } from '../parts/probeFacts';
import { planSchema, sliceVersions } from './plan';
import { idText, lineText, uniqueList } from '../basics/text';
import { venueSchema } from './venue';

/** Which shape the workshop itself has, and each link's settings; a file carries them, so that each part is brought on by itself. */
export const VERSIONS: Readonly<Record<string, number>> = { workshop: 15, ...sliceVersions };
/** Grows with any of them, and with each new link: what has a larger one was written by a later Yphos. */
export const WORKSHOP_VERSION = Object.values(VERSIONS).reduce((sum, version) => sum + version, 0);

const stamp = z.string().max(40);
/** How many of each a workshop holds. */
export const WORKSHOP_LIMITS = { endpoints: 500, parts: 5000, media: 50_000, shipping: 200, steps: 2000 } as const;

/** One board that plays: its plan, what was found out about it, and what was last written for it. */
export const endpointSchema = z.object({
	id: idText,
	plan: planSchema,
	probe: probeFactsSchema.nullable(),
	/** The last card set written, for showing what has changed since. Neither secrets nor digests of what holds one are in it. */
	written: z.object({ atUtc: stamp, files: z.record(z.string().max(1000), z.string().max(4_000_000)) }).nullable(),
	/** Run-sheet steps that are done, with the reading taken, by step id. */
	done: z
		.record(z.string().max(200), z.object({ atUtc: stamp, reading: z.string().max(2000, 'At most 2000 characters.') }))
		.refine((done) => Object.keys(done).length <= WORKSHOP_LIMITS.steps, 'Too many steps.')
});
/** The same, as a type. */
export type Endpoint = z.infer<typeof endpointSchema>;

/** A sum that a shop adds. */
export const shippingSchema = z.object({
	label: lineText(60).min(1, 'Say for whom or what.'),
	price: z.number().min(0).max(10_000)
});
/** The same, as a type. */
export type Shipping = z.infer<typeof shippingSchema>;

/** Everything one person keeps; on export, one file. */
export const workshopSchema = z.object({
	yphos: z.literal('workshop'),
	version: z.literal(WORKSHOP_VERSION),
	/** By part, what its shape was when this was written. */
	links: z.record(z.string().max(40), z.number().int().min(1)),
	venue: venueSchema,
	/** One's own parts; the shipped ones stand beside them, and one's own takes the place of a shipped one with the same id. */
	parts: uniqueList(partSchema, WORKSHOP_LIMITS.parts, ({ id }) => id, 'Another part has the same id.'),
	/** How many of each part are there already, by part id. */
	owned: z.record(idText, z.number().int().min(1).max(99)),
	/** What the shops add for sending. */
	shipping: z.array(shippingSchema).max(WORKSHOP_LIMITS.shipping),
	media: uniqueList(
		mediaSchema,
		WORKSHOP_LIMITS.media,
		({ location }) => location,
		'Something else has the same location.'
	),
	endpoints: uniqueList(endpointSchema, WORKSHOP_LIMITS.endpoints, ({ id }) => id, 'Another endpoint has the same id.')
});
/** The same, as a type. */
export type Workshop = z.infer<typeof workshopSchema>;

/** A workshop to start from; `timeZone` as the tz database spells it. */
export const emptyWorkshop = (timeZone: string): Workshop => ({
	yphos: 'workshop',
	version: WORKSHOP_VERSION,
	links: { ...VERSIONS },
	venue: {
		name: 'My workshop',
		timeZone,
		currency: 'EUR',
		pricePerKwh: 0.3,
		mainsV: 230,
		lan: null,
		opening: [],
		closedOnHolidays: false,
		holidays: [],
		place: null,
		noticeTheme: CALM_THEME
	},
	parts: [],
	owned: {},
	shipping: [],
	media: [],
	endpoints: []
});
