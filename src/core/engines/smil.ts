import { placesIn } from '../files/mediaPlace';
import { smilOf } from '../links/programme/smil';
import type { Link, Surroundings } from '../link';
import { programmeBook } from '../onAir/book';
import { itemsOf } from '../onAir/items';
import type { Plan } from '../plan/plan';
import { derive } from './derive';

/** What a plan plays within that time, for open players, beside a folder "media" with the files of its card set. */
export function smilFor(
	chain: readonly Link[],
	plan: Plan,
	surroundings: Surroundings,
	[fromUtcMs, untilUtcMs]: readonly [number, number]
): string {
	const { context } = derive(chain, plan, surroundings);
	const placeOf = placesIn(plan.sources.items);
	return smilOf(
		{
			name: plan.brief.name,
			book: programmeBook(plan.programme, context.venue),
			items: (show) => itemsOf(show, plan.programme, context),
			placeOf({ location }) {
				const { kind, inPlaylist } = placeOf(location);
				if (kind === 'stream') return inPlaylist;
				const escaped = inPlaylist.split('/').map(encodeURIComponent).join('/');
				return kind === 'disk' ? `file://${escaped}` : `media/${escaped.slice(escaped.lastIndexOf('/') + 1)}`;
			}
		},
		fromUtcMs,
		untilUtcMs
	);
}
