import type { Bench } from '../../engines/machine';
import type { Context } from '../../link';
import { placeKind, placesIn } from '../../mediaPlace';
import type { Plan } from '../../plan/plan';

/** The stream server, which plays, and the media on the endpoint's disks. */
export function sourcesBench(plan: Plan, context: Context): Partial<Bench> {
	const placeOf = placesIn(plan.sources.items);
	const locations = [...new Set(plan.sources.items.map((item) => item.location))];
	return {
		streams: locations
			.filter((location) => placeKind(location) === 'stream')
			.map((url) => ({ url, state: 'plays', media: context.media(url) })),
		media: locations.flatMap((location) => {
			const media = context.media(location);
			return media && placeKind(location) !== 'stream' ? [{ ...media, location: placeOf(location).inPlaylist }] : [];
		})
	};
}
