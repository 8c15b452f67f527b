import { z } from 'zod';
import { mediaSchema } from '../../parts/media';
import { headerUseSchema, playbackSchema } from '../../parts/schema';

/** The simulated surroundings of an endpoint: everything that its files do not say. */
export const benchSchema = z.object({
	board: z.object({
		name: z.string(),
		firmwareMs: z.number().min(0),
		kernelMs: z.number().min(0),
		servicesMs: z.number().min(0),
		hasClock: z.boolean()
	}),
	/** What feeds the board; null: whatever it takes. */
	power: z
		.object({
			supplyVolts: z.number().positive(),
			ratedW: z.number().positive(),
			loopOhm: z.number().min(0),
			idleW: z.number().min(0),
			playingW: z.number().min(0),
			peakW: z.number().min(0),
			brownOutV: z.number().positive()
		})
		.nullable()
		.default(null),
	/** What sits on the header, and the sound card that is missing when it cannot have its pins. */
	header: z
		.object({
			lifts: z.number().int().min(0),
			users: z.array(
				z.object({
					id: z.string(),
					name: z.string(),
					use: headerUseSchema,
					lines: z.array(z.number().int()),
					cardId: z.string().nullable()
				})
			)
		})
		.nullable()
		.default(null),
	/** How the board warms up, and under what load; null: it stays cool. */
	heat: z
		.object({
			duty: z.object({
				idleW: z.number().min(0),
				peakW: z.number().min(0),
				share: z.number().min(0),
				besideW: z.number().min(0)
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
		})
		.nullable()
		.default(null),
	soundCards: z.array(
		z.object({
			cardId: z.string(),
			deviceNumber: z.number().int(),
			name: z.string(),
			/** Nobody has seen that name yet: it is the plan's own. */
			assumed: z.boolean().default(false),
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
		joinMs: z.number().min(0),
		/** Who knocks once it is there, from where, and with what. */
		visitors: z
			.array(z.object({ from: z.string(), port: z.number().int(), with: z.enum(['nothing', 'key', 'password']) }))
			.default([])
	}),
	/** The stand-in stream server, by address. */
	streams: z.array(z.object({ url: z.string(), state: z.enum(['plays', 'refuses']), media: mediaSchema.nullable() })),
	/** What stands on the endpoint's disks besides the card set. */
	media: z.array(mediaSchema)
});
export type Bench = z.infer<typeof benchSchema>;
export type BenchSoundCard = Bench['soundCards'][number];
