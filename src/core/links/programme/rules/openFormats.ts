import { placesIn } from '../../../files/mediaPlace';
import { dayPartsOf, type PartFile } from './dayParts';
import { smilOf, type Played } from './smil';
import { pathToUri } from '../../../formats/playlist';
import type { Link } from '../../../link';
import type { Surroundings } from '../../../link/context';
import { programmeBook } from '../../../onAir/book';
import { itemsOf } from '../../../onAir/items';
import type { Plan } from '../../../plan/plan';
import { derive } from '../../../engines/derive';

/** What a plan plays, its files in a folder "media" beside; `name` names a file there as the format does. */
function playedBy(
	chain: readonly Link[],
	plan: Plan,
	surroundings: Surroundings,
	name: (path: string) => string
): Played {
	const { context } = derive(chain, plan, surroundings);
	const placeOf = placesIn(plan.sources.items);
	return {
		name: plan.brief.name,
		book: programmeBook(plan.programme, context.venue),
		items: (show) => itemsOf(show, plan.programme, context),
		placeOf({ location }) {
			const { kind, inPlaylist } = placeOf(location);
			if (kind === 'stream') return inPlaylist;
			return name(kind === 'disk' ? inPlaylist : `media/${inPlaylist.slice(inPlaylist.lastIndexOf('/') + 1)}`);
		}
	};
}

type Span = readonly [fromUtcMs: number, untilUtcMs: number];

/** What a plan plays within that time, for open players, beside a folder "media" with the files of its card set. */
export const smilFor = (chain: readonly Link[], plan: Plan, surroundings: Surroundings, [from, until]: Span): string =>
	smilOf(playedBy(chain, plan, surroundings, pathToUri), from, until);

/** The same as playlists, with timers for the parts of its days. */
export const dayPartsFor = (
	chain: readonly Link[],
	plan: Plan,
	surroundings: Surroundings,
	[from, until]: Span
): PartFile[] =>
	dayPartsOf(
		playedBy(chain, plan, surroundings, (path) => path),
		from,
		until
	);
