import { goto } from '$app/navigation';
import { chain } from '$core/chain';
import { isUsed, useLink } from '$core/engines/derive';
import type { Link } from '$core/link';
import type { Endpoint, Workshop } from '$core/plan/workshop';
import { store } from '$lib/store/workshop.svelte';
import { newEndpoint } from '$lib/endpoint/newEndpoint';
import { toggleTheme } from './theme';

export interface Command {
	readonly title: string;
	/** Other words by which it is looked for. */
	readonly words?: string;
	readonly keys?: string;
	run(): void;
}

/** Opens a link's worktop; one that the plan does without is added first. */
function linkCommand(link: Link, { id, plan }: Endpoint): Command {
	const open = go(`/endpoint/${id}/plan/${link.id}`);
	const used = isUsed(link, plan);
	return {
		title: `${used ? '' : 'Add '}${link.title} ${used ? 'of' : 'to'} ${plan.brief.name}`,
		keys: `g ${link.key}`,
		run: used
			? open
			: () => {
					store.changePlan(id, `add ${link.title}`, useLink(chain, link.id, true));
					open();
				}
	};
}

const go = (path: string) => (): void => void goto(path);

/** Everything that can be done from the keyboard, the same list for the palette and the shortcuts. */
export function commandsFor(workshop: Workshop | null, endpointId: string | undefined): Command[] {
	const here = workshop?.endpoints.find((endpoint) => endpoint.id === endpointId);
	return [
		{ title: 'Undo', keys: 'Ctrl Z', run: () => store.undo() },
		{ title: 'Redo', keys: 'Ctrl Shift Z', run: () => store.redo() },
		{ title: 'Shelf: all endpoints', keys: 'g s', run: go('/') },
		{ title: 'New endpoint', words: 'add create music player', run: () => newEndpoint('music') },
		...(here
			? [
					...(chain as readonly Link[]).map((link) => linkCommand(link, here)),
					{
						title: 'Write the memory card: image, disk, commands',
						keys: 'g w',
						run: go(`/endpoint/${here.id}/write-card`)
					},
					{
						title: `Download card set of ${here.plan.brief.name}`,
						words: 'write export zip files',
						run: go(`/endpoint/${here.id}/plan/brief#download`)
					},
					{ title: 'Card files', keys: 'g f', run: go(`/endpoint/${here.id}/files`) },
					{ title: 'Rehearsal', keys: 'g r', run: go(`/endpoint/${here.id}/rehearsal`) },
					{ title: 'Run sheet', keys: 'g u', run: go(`/endpoint/${here.id}/run-sheet`) }
				]
			: []),
		...(workshop?.endpoints ?? [])
			.filter((endpoint) => endpoint.id !== endpointId)
			.map((endpoint) => ({
				title: `Go to ${endpoint.plan.brief.name}`,
				run: go(`/endpoint/${endpoint.id}/plan/brief`)
			})),
		{ title: 'Week: what is on where and when', words: 'calendar schedule', keys: 'g y', run: go('/week') },
		{ title: 'Parts drawer', keys: 'g d', run: go('/parts') },
		{ title: 'Shopping list', keys: 'g b', run: go('/shopping') },
		{ title: 'Venue and workshop file', keys: 'g v', run: go('/venue') },
		{ title: 'Daylight or lamplight', keys: 'g l', run: toggleTheme }
	];
}
