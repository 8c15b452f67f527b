import { z } from 'zod';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link/context';
import { mediaSchema } from '../../parts/media';
import { placeKind, placesIn } from '../../files/mediaPlace';
import { isInSet } from './stores/onCard';
import { receivedAt, receivedMedia } from './streams/receive';
import { typeOf } from './stores/storeFiles';
import { whatOf } from './stores/stores';
import type { SourcesSettings } from './settings';

const stream = z.object({ url: z.string(), state: z.enum(['plays', 'refuses']), media: mediaSchema.nullable() });

/** `user`: who is let in; null: a guest. */
const store = z.object({ what: z.string(), type: z.string(), user: z.string().nullable() });

declare module '../../engines/machine/bench' {
	interface Bench {
		/** The stand-in stream server, by address. */
		streams: z.infer<typeof stream>[];
		/** What stands on the endpoint's disks besides the card set. */
		media: z.infer<typeof mediaSchema>[];
		/** Shares that the file server has, and the sticks that are plugged in. */
		stores: z.infer<typeof store>[];
	}
}
/** What a rehearsal knows of streams and of the media on disks. */
export const sourcesBenchShape = {
	streams: z.array(stream).default([]),
	media: z.array(mediaSchema).default([]),
	stores: z.array(store).default([])
};

/** The stream server, which plays, and the media on the endpoint's disks. */
export function sourcesBench(settings: SourcesSettings, context: Context): Partial<Bench> {
	const placeOf = placesIn(settings.items);
	const locations = [...new Set(settings.items.map((item) => item.location))];
	return {
		streams: locations
			.filter((location) => placeKind(location) === 'stream')
			.map((url) => ({
				url,
				state: 'plays',
				media: context.media(url) ?? (receivedAt(url) === null ? null : receivedMedia(url))
			})),
		stores: settings.stores.map((known) => ({
			what: whatOf(known),
			type: typeOf(known),
			user: known.kind === 'smb' && known.user !== '' ? known.user : null
		})),
		media: [
			...new Map(
				settings.rules
					.flatMap(({ folders }) => folders.flatMap((folder) => context.mediaBelow(folder)))
					.filter(({ location }) => !locations.includes(location))
					.map((media) => [media.location, media])
			).values(),
			...locations.flatMap((location) => {
				const media = context.media(location);
				// What the set carries is there when the set brings it; what the person copies is taken to be.
				const comes = !isInSet(settings, context, location);
				return media && comes && placeKind(location) !== 'stream'
					? [{ ...media, location: placeOf(location).inPlaylist }]
					: [];
			})
		]
	};
}
