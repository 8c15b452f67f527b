import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { expect, it } from 'vitest';

const src = resolve(import.meta.dirname, '..');
const aliases = { $core: join(src, 'core'), $lib: join(src, 'lib') } as const;

/** A folder of the core or of the interface; all links are one. What stands in no folder brings the others together, and so does the shape of a link. */
function roomOf(path: string): string | null {
	const [part, room, inner] = relative(src, path).split('/');
	const isRoom = (part === 'core' || part === 'lib') && inner !== undefined && room !== 'link';
	return isRoom ? `${part}/${room}` : null;
}

function fileOf(from: string, name: string): string | null {
	const alias = Object.entries(aliases).find(([short]) => name.startsWith(`${short}/`));
	const path = alias
		? join(alias[1], name.slice(alias[0].length))
		: name.startsWith('.')
			? resolve(dirname(from), name)
			: null;
	return (
		['', '.ts', '/index.ts']
			.map((end) => `${path}${end}`)
			.find((known) => path && existsSync(known) && statSync(known).isFile()) ?? null
	);
}

it('two rooms that need each other are few: what both need stands lower', () => {
	const needs = new Set<string>();
	for (const name of readdirSync(src, { recursive: true, encoding: 'utf8' })) {
		if (!/\.(?:ts|svelte)$/.test(name) || /(?:\.test|\breads)\.ts$/.test(name)) continue;
		const path = join(src, name);
		for (const [, imported] of readFileSync(path, 'utf8').matchAll(/(?:from|import)\s+'([^']+)'/g)) {
			const target = fileOf(path, imported!);
			const [from, to] = [roomOf(path), target && roomOf(target)];
			if (from && to && from !== to) needs.add(`${from} ${to}`);
		}
	}
	expect(needs.size).toBeGreaterThan(50);
	const both = [...needs].filter((pair) => {
		const [from, to] = pair.split(' ') as [string, string];
		return from < to && needs.has(`${to} ${from}`);
	});
	expect(both.sort()).toEqual(['lib/endpoint lib/pack', 'lib/endpoint lib/shell']);
});
