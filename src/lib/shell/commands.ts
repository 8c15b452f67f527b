import { goto } from '$app/navigation';
import { chain } from '$core/chain';
import { isUsed, useLink } from '$core/engines/derive';
import type { Link } from '$core/link';
import type { Endpoint, Workshop } from '$core/plan/workshop';
import { store } from '$lib/store/workshop.svelte';
import { hrefOf } from '$lib/endpoint/field';
import { newEndpoint } from '$lib/endpoint/newEndpoint';
import { SETTING_WORDS } from './settingWords';
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

/** What stands on the page of the venue. */
const VENUE: readonly (readonly [title: string, words: string])[] = [
	['Export the workshop', 'save backup file download json'],
	['Export with media', 'save backup zip files'],
	['Open a workshop file', 'import load restore'],
	['Start your own workshop', 'new empty clear reset'],
	['Time zone', 'clock venue'],
	['Currency and price of energy', 'money kwh'],
	['Mains voltage', 'volts 230 120'],
	['Range of the venue’s network', 'lan ip router dhcp']
];

/** The field itself, on the page of its link. */
const settingCommand = ([path, label, words]: (typeof SETTING_WORDS)[number], { id, plan }: Endpoint): Command => ({
	title: `${label} · ${(chain as readonly Link[]).find((link) => link.id === path.split('.')[0])!.title}`,
	words: `${words ?? ''} ${plan.brief.name}`,
	run: go(hrefOf(id, path))
});

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
		{ title: 'Parts drawer', keys: 'g d', run: go('/parts') },
		{ title: 'Shopping list', keys: 'g b', run: go('/shopping') },
		{ title: 'Venue and workshop file', keys: 'g v', run: go('/venue') },
		...VENUE.map(([title, words]) => ({ title, words, run: go('/venue') })),
		...(here ? SETTING_WORDS.map((setting) => settingCommand(setting, here)) : []),
		{ title: 'Daylight or lamplight', keys: 'g l', run: toggleTheme }
	];
}
