import { readdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../demo/workshop';
import { assess } from './engines/assess';
import { contextFor } from './engines/context';
import { askedFor, takeSecrets } from './engines/secrets';
import { chain } from './chain';
import { fields, labelOf } from './fields';
import { judges } from './judges';
import type { Link } from './link';
import { rehearsed } from './rehearsals';
import { speaking } from './speaking';
import { writers } from './writers';

const links: readonly Link[] = chain;
const folders = readdirSync(resolve(import.meta.dirname, 'links'), { withFileTypes: true })
	.filter((entry) => entry.isDirectory())
	.map(({ name }) => name);
const has = (folder: string, file: string): boolean =>
	readdirSync(resolve(import.meta.dirname, 'links', folder)).includes(file);

describe('the manifest of a link', () => {
	it('is its folder, and each folder stands in the chain', () =>
		expect([...folders].sort()).toEqual(links.map(({ id }) => id).sort()));
	it.each(links.map(({ id }) => [id]))('of %s is gathered file by file, and what is not there is not made up', (id) => {
		const of = <T extends { readonly id: string }>(all: readonly T[]): T => all.find((one) => one.id === id)!;
		expect(of(judges).assess).toBeTypeOf('function');
		const { files, steps, bench } = of(writers);
		expect([files, steps, bench].some((part) => part !== undefined)).toBe(has(id, 'writes.ts'));
		expect(of(rehearsed).rehearse !== undefined).toBe(has(id, 'rehearse.ts'));
		expect(speaking.some((one) => one.id === id)).toBe(has(id, 'words.ts'));
		expect(fields.some(([path]) => path.startsWith(`${id}.`))).toBe(has(id, 'fields.ts'));
	});
	it('keeps the order of the chain, and the same links, however much of them is loaded', () => {
		const order = links.map(({ id }) => id);
		for (const gathered of [judges, writers, rehearsed]) expect(gathered.map(({ id }) => id)).toEqual(order);
	});
	it('calls no two fields of a link by the same name', () => {
		for (const { id } of links) {
			const labels = fields.filter(([path]) => path.startsWith(`${id}.`)).map(([, { label }]) => label);
			expect(new Set(labels).size, id).toBe(labels.length);
		}
		expect(labelOf('sound.cardId')).toBe('Card name');
	});
	it('names at the end of a signal a figure that the link works out', () => {
		const known = new Set(
			demoWorkshop.endpoints.flatMap(({ id, plan }) =>
				assess(judges, plan, contextFor(chain, demoWorkshop, id)).links.flatMap((link) =>
					link.figures.map((figure) => `${link.id}.${figure.id}`)
				)
			)
		);
		for (const { id, place } of links) if (place.end) expect(known, id).toContain(`${id}.${place.end.figure}`);
	});
});

describe('what is asked for when a card set is written', () => {
	const hatch = structuredClone(demoWorkshop.endpoints.find(({ id }) => id === 'ticket-hatch')!);
	hatch.plan.picture.phonePassword = hatch.plan.notices.showByPhone = true;
	Object.assign(hatch.plan.network, { way: 'radio', ssid: 'Skerrin', user: 'keeper', login: 'password' });
	const store = { kind: 'smb', server: 'files.local', share: 'media', user: 'reader', version: 'auto', access: 'read' };
	hatch.plan.sources.stores = ['tides', 'attic'].map((name) => ({ ...store, id: name, name }) as never);
	const asked = askedFor(writers, hatch.plan, contextFor(chain, demoWorkshop, hatch.id));
	const typed = {
		password: 'lantern gull harbour',
		passphrase: 'lantern and lens',
		phone: 'eight at the least',
		'share.tides': 'ebb',
		'share.attic': 'dust'
	};
	const zeros = (): Uint8Array => new Uint8Array(16);

	it('comes from the links, each by an id and an option of its own', () => {
		expect(asked.map(({ id }) => id).sort()).toEqual(Object.keys(typed).sort());
		const options = writers.flatMap(({ secrets }) => secrets?.options ?? []);
		expect(new Set(options).size).toBe(options.length);
		for (const { option } of asked) expect(options).toContain(option);
	});
	it('is taken whole, with all shares, and nothing as it was typed where a key or a hash will do', () => {
		const taken = takeSecrets(asked, typed, zeros);
		expect(taken).toMatchObject({
			ok: true,
			value: { sharePasswords: { tides: 'ebb', attic: 'dust' }, radioPskHex: expect.stringMatching(/^[0-9a-f]{64}$/) }
		});
		expect(JSON.stringify(taken)).not.toContain(typed.password);
		expect(JSON.stringify(taken)).not.toContain(typed.passphrase);
	});
	it('says of which one something is wrong, and gives none', () => {
		expect(takeSecrets(asked, { ...typed, passphrase: 'short' }, zeros)).toMatchObject({
			ok: false,
			faults: [{ code: 'psk-length', where: 'passphrase' }]
		});
		expect(takeSecrets(asked, { ...typed, 'share.attic': '' }, zeros)).toMatchObject({
			ok: false,
			faults: [{ where: 'share.attic' }]
		});
	});
	it('is nothing at all on an endpoint that needs none', () => {
		const bare = structuredClone(hatch.plan);
		Object.assign(bare.network, { way: 'cable', login: 'keys' });
		bare.picture.phonePassword = false;
		bare.sources.stores = [];
		expect(askedFor(writers, bare, contextFor(chain, demoWorkshop, hatch.id))).toEqual([]);
	});
});
