import type { Context } from '../link';
import { catalogue } from '../parts/catalogue';
import { measuredBoard } from '../parts/measured';
import type { Part, PartKind, PartOf } from '../parts/schema';
import type { Workshop } from '../plan/workshop';

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

/** The rest of the workshop, seen from one endpoint. */
export function contextFor(workshop: Workshop, endpointId: string): Context {
	const { drawer, byId } = drawerOf(workshop.parts);
	const media = new Map(workshop.media.map((item) => [item.location, item]));
	const endpoint = workshop.endpoints.find((item) => item.id === endpointId);
	const probe = endpoint?.probe ?? null;
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
		probe,
		others: workshop.endpoints
			.filter((item) => item.id !== endpointId)
			.map(({ plan: { brief, network } }) => ({
				name: brief.name,
				hostName: network.hostName,
				address: network.address.kind === 'free' ? '' : network.address.ip
			}))
	};
}
