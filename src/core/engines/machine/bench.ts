import { z } from 'zod';
import { mediaSchema } from '../../parts/media';
import { playbackSchema } from '../../parts/schema';

/** The simulated surroundings of an endpoint: everything that its files do not say. */
export const benchSchema = z.object({
	board: z.object({
		name: z.string(),
		firmwareMs: z.number().min(0),
		kernelMs: z.number().min(0),
		servicesMs: z.number().min(0),
		hasClock: z.boolean(),
		voltsAtBoard: z.number().nullable()
	}),
	soundCards: z.array(
		z.object({
			cardId: z.string(),
			deviceNumber: z.number().int(),
			name: z.string(),
			playback: playbackSchema,
			readyMs: z.number().min(0),
			fullScaleVrms: z.number().positive(),
			volume: z.object({ name: z.string(), lowestDb: z.number(), startDb: z.number() }).nullable()
		})
	),
	amplifier: z
		.object({ name: z.string(), muted: z.boolean(), gainDb: z.number(), clipVrms: z.number().positive() })
		.nullable(),
	speakers: z
		.object({
			name: z.string(),
			sensitivityDb: z.number(),
			ohm: z.number().positive(),
			count: z.number().int().positive()
		})
		.nullable(),
	distanceM: z.number().positive(),
	network: z.object({
		wired: z.boolean(),
		radio: z.object({ ssid: z.string(), pskHex: z.string().nullable() }).nullable(),
		joinMs: z.number().min(0)
	}),
	/** The stand-in stream server, by address. */
	streams: z.array(z.object({ url: z.string(), state: z.enum(['plays', 'refuses']), media: mediaSchema.nullable() })),
	/** What stands on the endpoint's disks besides the card set. */
	media: z.array(mediaSchema)
});
export type Bench = z.infer<typeof benchSchema>;
export type BenchSoundCard = Bench['soundCards'][number];
