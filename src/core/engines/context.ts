import type { Link } from '../link';
import type { Neighbour, Surroundings } from '../link/context';
import type { Media } from '../parts/media';
import { catalogue } from '../parts/catalogue';
import { measuredBoard } from '../parts/measured';
import type { Part, PartKind, PartOf } from '../parts/schema';
import type { Plan } from '../plan/plan';
import type { Workshop } from '../plan/workshop';
import { factsOf } from './derive';

const drawers = new WeakMap<readonly Part[], { drawer: readonly Part[]; byId: ReadonlyMap<string, Part> }>();

/** Own parts first; one with the id of a shipped part takes its place. Made once for each list of own parts. */
export function drawerOf(own: readonly Part[]): { drawer: readonly Part[]; byId: ReadonlyMap<string, Part> } {
	let made = drawers.get(own);
	if (!made) {
		const ids = new Set(own.map((part) => part.id));
		const drawer = [...own, ...catalogue.filter((part) => !ids.has(part.id))];
		drawers.set(own, (made = { drawer, byId: new Map(drawer.map((part) => [part.id, part])) }));
	}
	return made;
}

const locations = new WeakMap<Workshop['media'], ReadonlyMap<string, Media>>();
function mediaOf(media: Workshop['media']): ReadonlyMap<string, Media> {
	let map = locations.get(media);
	if (!map) locations.set(media, (map = new Map(media.map((item) => [item.location, item]))));
	return map;
}

const below = new WeakMap<Workshop['media'], Map<string, readonly Media[]>>();
function mediaBelow(media: Workshop['media'], folder: string): readonly Media[] {
	let byFolder = below.get(media);
	if (!byFolder) below.set(media, (byFolder = new Map()));
	let found = byFolder.get(folder);
	if (!found) byFolder.set(folder, (found = media.filter(({ location }) => location.startsWith(`${folder}/`))));
	return found;
}

const published = new WeakMap<Plan, Neighbour>();
/** By what they say: a change that others do not see leaves them the same object, so nothing of theirs is judged again. */
const neighbours = new Map<string, Neighbour>();
const MOST_NEIGHBOURS = 5000;
function neighbourOf(chain: readonly Link[], plan: Plan): Neighbour {
	let found = published.get(plan);
	if (!found) {
		const { endpointName, hostName, address, receiving } = factsOf(chain, plan);
		const seen: Neighbour = { endpointName, hostName, address, ...(receiving ? { receiving } : {}) };
		const key = JSON.stringify(seen);
		if (neighbours.size > MOST_NEIGHBOURS) neighbours.clear();
		found = neighbours.get(key) ?? seen;
		neighbours.set(key, found);
		published.set(plan, found);
	}
	return found;
}

interface Seen {
	readonly of: readonly unknown[];
	readonly surroundings: Surroundings;
}
const seen = new WeakMap<Workshop['media'], Map<string, Seen>>();

const NONE: ReadonlySet<string> = new Set();

/** The rest of the workshop, seen from one endpoint; the same object as long as nothing changes that it shows. `absent`: files whose bytes are to be here, and are not. */
export function contextFor(
	chain: readonly Link[],
	workshop: Workshop,
	endpointId: string,
	absent: ReadonlySet<string> = NONE
): Surroundings {
	const probe = workshop.endpoints.find((item) => item.id === endpointId)?.probe ?? null;
	const others = workshop.endpoints
		.filter((item) => item.id !== endpointId)
		.map(({ plan }) => neighbourOf(chain, plan));
	const of = [workshop.venue, workshop.parts, probe, absent, ...others];
	let byEndpoint = seen.get(workshop.media);
	if (!byEndpoint) seen.set(workshop.media, (byEndpoint = new Map()));
	const known = byEndpoint.get(endpointId);
	if (known && known.of.length === of.length && known.of.every((value, n) => value === of[n]))
		return known.surroundings;
	const surroundings = surroundingsOf({ ...workshop, absent }, probe, others);
	byEndpoint.set(endpointId, { of, surroundings });
	return surroundings;
}

/** What all endpoints of a workshop have in common. */
export type Shared = Pick<Workshop, 'venue' | 'parts' | 'media'> & { readonly absent: ReadonlySet<string> };

/** The surroundings of one endpoint, made of what they all share and what it has of its own. */
export function surroundingsOf(
	workshop: Shared,
	probe: Surroundings['probe'],
	others: Surroundings['others']
): Surroundings {
	const { absent } = workshop;
	const { drawer, byId } = drawerOf(workshop.parts);
	const media = mediaOf(workshop.media);
	return {
		venue: workshop.venue,
		part<K extends PartKind>(kind: K, id: string | null): PartOf<K> | null {
			const part = id === null ? undefined : byId.get(id);
			if (part?.kind !== kind) return null;
			return (part.kind === 'board' ? measuredBoard(part, probe) : part) as PartOf<K>;
		},
		find: (id) => byId.get(id) ?? null,
		drawer,
		media: (location) => media.get(location) ?? null,
		mediaBelow: (folder) => mediaBelow(workshop.media, folder),
		isAbsent: (location) => absent.has(location),
		probe,
		others
	};
}
