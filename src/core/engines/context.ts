import type { Context } from '../link';
import type { PartKind, PartOf } from '../parts/schema';
import type { Workshop } from '../plan/workshop';

/** The rest of the workshop, seen from one endpoint. */
export function contextFor(workshop: Workshop, endpointId: string): Context {
	const parts = new Map(workshop.parts.map((part) => [part.id, part]));
	const media = new Map(workshop.media.map((item) => [item.location, item]));
	const endpoint = workshop.endpoints.find((item) => item.id === endpointId);
	return {
		venue: workshop.venue,
		part<K extends PartKind>(kind: K, id: string | null): PartOf<K> | null {
			const part = id === null ? undefined : parts.get(id);
			return part?.kind === kind ? (part as PartOf<K>) : null;
		},
		drawer: workshop.parts,
		media: (location) => media.get(location) ?? null,
		probe: endpoint?.probe ?? null,
		otherHostNames: workshop.endpoints
			.filter((item) => item.id !== endpointId)
			.map(({ plan }) => ({ name: plan.brief.name, hostName: plan.network.hostName }))
	};
}
