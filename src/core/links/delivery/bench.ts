import { z } from 'zod';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link/context';
import { fetchedFrom, keyLines, type DeliverySettings } from './settings';

const delivery = z
	.object({
		/** The folder where sets are put. */
		address: z.string(),
		/** In which era they are packed. */
		era: z.number().default(0),
		/** Whose content they are packed for. */
		packedFor: z.string(),
		/** The key of whoever puts them there, as openssl writes it; "": they are not signed. */
		signedBy: z.string()
	})
	.nullable();

declare module '../../engines/machine/bench' {
	interface Bench {
		delivery: z.infer<typeof delivery>;
	}
}
/** What a rehearsal knows of sets of content. */
export const deliveryBenchShape = { delivery: delivery.default(null) };

/** Somebody puts sets where the endpoint looks for them, signed as it asks. */
export const deliveryBench = (settings: DeliverySettings, { facts }: Context): Partial<Bench> => ({
	delivery: settings.from
		? {
				address: fetchedFrom(settings),
				packedFor: facts.hostName,
				era: settings.era,
				signedBy: settings.publicKey
					? keyLines(settings.publicKey)
							.map((line) => `${line}\n`)
							.join('')
					: ''
			}
		: null
});
