import { readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { expect, it } from 'vitest';
import { commandsFor } from './commands';
import { found } from './found';
import { settingCommands } from './settingCommands';
import { fields } from '$core/fields';
import { demoWorkshop } from '../../../demo/workshop';

/** What the worktops' components name, without what stands below another field. */
const folder = resolve(import.meta.dirname, '../worktops');
const named = new Set(
	readdirSync(folder, { recursive: true, encoding: 'utf8' })
		.filter((path) => path.endsWith('.svelte'))
		.flatMap((path) =>
			[
				...readFileSync(join(folder, path), 'utf8').matchAll(/(?:\bpath=|id=)"(?:setting-)?([a-z]+\.[A-Za-z0-9]+)/g)
			].map((m) => m[1]!)
		)
);

it('has every field of the worktops, and none that is not there', () => {
	const listed = fields.map(([path]) => path as string);
	expect(new Set(listed).size).toBe(listed.length);
	expect([...named].filter((path) => !listed.includes(path)).sort()).toEqual([]);
	expect(listed.filter((path) => !named.has(path))).toEqual([]);
});

it('is found by the words that people use', () => {
	const all = (id?: string) => [...commandsFor(demoWorkshop, id), ...settingCommands(demoWorkshop, id)];
	const commands = all(demoWorkshop.endpoints[0]!.id);
	const first = (wanted: string): string[] =>
		found(commands, wanted)
			.map(({ title }) => title)
			.slice(0, 4);
	for (const [wanted, title] of [
		['new', 'New endpoint'],
		['export', 'Export the workshop'],
		['password', 'Sign-in'],
		['volume', 'Volume'],
		['country', 'Country'],
		['wifi', 'Wi-Fi name'],
		['Wi-Fi', 'Wi-Fi name'],
		['dac', 'Output'],
		['quiet', 'Quiet hours'],
		['download card set', 'Download card set'],
		['time zone', 'Time zone'],
		['playlist', 'The list']
	] as const)
		expect(first(wanted).join(' | '), wanted).toContain(title);
	expect(found(commands, 'qqq')).toEqual([]);
	expect(found(all(), 'volume')).toEqual([]);
});
