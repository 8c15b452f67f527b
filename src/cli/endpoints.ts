import type { Surroundings } from '$core/link/context';
import { chain } from '$core/chain';
import { judges } from '$core/judges';
import { assess } from '$core/engines/assess';
import { contextFor } from '$core/engines/context';
import type { Endpoint, Workshop } from '$core/plan/workshop';
import { readMedia, Refusal, absentFrom, type PlanFile } from './files';
import { type Flags, text } from './say';

export function chosen(workshop: Workshop, flags: Flags): Endpoint[] {
	const id = text(flags, 'endpoint');
	const found = workshop.endpoints.filter((endpoint) => id === undefined || endpoint.id === id);
	if (found.length === 0)
		throw new Refusal(
			id === undefined
				? 'The workshop has no endpoint.'
				: `There is no endpoint ${id}. There are: ${workshop.endpoints.map((e) => e.id).join(', ')}.`
		);
	return found;
}

/** The one endpoint that is meant. */
export function onlyOne(workshop: Workshop, flags: Flags): Endpoint {
	const [endpoint, ...others] = chosen(workshop, flags);
	if (!endpoint || others.length > 0) throw new Refusal('Say with --endpoint ID which of the endpoints is meant.');
	return endpoint;
}

/** The workshop as one endpoint sees it, with the media that are really at hand. */
export const seenFrom = (
	workshop: Workshop,
	{ id, plan }: Endpoint,
	flags: Flags,
	media: PlanFile['media']
): Surroundings => contextFor(chain, workshop, id, absentFrom(workshop, readMedia(plan, text(flags, 'media'), media)));

/** One endpoint without a stop, or with one that the person knows of. */
export function oneWithoutStop(workshop: Workshop, flags: Flags, media: PlanFile['media']): [Endpoint, Surroundings] {
	const endpoint = onlyOne(workshop, flags);
	const context = seenFrom(workshop, endpoint, flags, media);
	const { findings, worst } = assess(judges, endpoint.plan, context);
	if (worst === 'stop' && !flags['even-so']) {
		const stops = findings.filter(({ level }) => level === 'stop').map(({ title }) => title);
		throw new Refusal(`${endpoint.id} has a stop: ${stops.join('; ')}. Mend that first, or add --even-so.`);
	}
	return [endpoint, context];
}
