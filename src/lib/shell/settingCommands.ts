import { goto } from '$app/navigation';
import { chain } from '$core/chain';
import { fields } from '$core/fields';
import type { Link } from '$core/link';
import type { Endpoint, Workshop } from '$core/plan/workshop';
import { hrefOf } from '$lib/endpoint/field';
import type { Command } from './commands';

/** What stands on the page of the venue. */
const VENUE: readonly (readonly [title: string, words: string])[] = [
	['Export the workshop', 'save backup file download json'],
	['Export with media', 'save backup zip files'],
	['Open a workshop file', 'import load restore'],
	['Start your own workshop', 'new empty clear reset'],
	['Time zone', 'clock venue'],
	['Currency and price of energy', 'money kwh'],
	['Mains voltage', 'volts 230 120'],
	['Range of the venue’s network', 'lan ip router dhcp'],
	['Opening hours', 'open closed times season'],
	['Holidays', 'calendar ics closed days'],
	['Where the venue is', 'latitude longitude sunrise sunset']
];

/** The field itself, on the page of its link. */
const settingCommand = ([path, { label, words }]: (typeof fields)[number], { id, plan }: Endpoint): Command => ({
	title: `${label} · ${(chain as readonly Link[]).find((link) => link.id === path.split('.')[0])!.title}`,
	words: `${words ?? ''} ${plan.brief.name}`,
	run: () => void goto(hrefOf(id, path))
});

/** Every field of the endpoint that is open, and of the venue, as commands that lead there. */
export function settingCommands(workshop: Workshop | null, endpointId: string | undefined): Command[] {
	const here = workshop?.endpoints.find((endpoint) => endpoint.id === endpointId);
	return [
		...VENUE.map(([title, words]) => ({ title, words, run: () => void goto('/venue') })),
		...(here ? fields.map((setting) => settingCommand(setting, here)) : [])
	];
}
