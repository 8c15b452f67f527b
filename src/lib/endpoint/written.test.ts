import { spawnSync } from 'node:child_process';
import { unzipSync } from 'fflate';
import fc from 'fast-check';
import { archiveOf, openArchive } from '$core/plan/archive';
import { expect, it } from 'vitest';
import { cardDigest, cardText } from '$core/files/cardBytes';
import { lines, textFile } from '$core/files/cardFile';
import { chain } from '$core/chain';
import { writers } from '$core/writers';
import { contextFor } from '$core/engines/context';
import { write } from '$core/engines/write';
import type { CardFile } from '$core/link/file';
import { demoWorkshop } from '../../../demo/workshop';
import { compareWritten, rememberWritten } from './written';
import { unzipFiles, zipFiles } from '$core/formats/zip/zip';

const file = (path: string, ...texts: string[]): CardFile => textFile(path, 'why', lines('sound', ...texts));
const secret: CardFile = {
	...file('boot/a.nmconnection'),
	mode: '0600',
	lines: [
		{ text: '[wifi-security]', setting: 'network' },
		{ text: 'key-mgmt=wpa-psk', setting: 'network' },
		{ text: 'psk=0123abcd', setting: 'network', secret: true }
	]
};

it('remembers no secret, and does not take its absence for a change', () => {
	const written = rememberWritten([secret], '2026-11-24T10:00:00Z');
	expect(JSON.stringify(written)).not.toContain('0123abcd');
	expect(compareWritten([{ ...secret, lines: [] } as CardFile], written)?.get('boot/a.nmconnection')).toBe('same');
});

it('remembers no digest of a file with a key in it either, by which keys could be tried', () => {
	const endpoint = structuredClone(demoWorkshop.endpoints[0]!);
	Object.assign(endpoint.plan.network, { way: 'radio', ssid: 'Skerrin', countryCode: 'FO' });
	const context = contextFor(chain, demoWorkshop, endpoint.id);
	const kept = (radioPskHex: string): string =>
		JSON.stringify(rememberWritten(write(writers, endpoint.plan, context, { radioPskHex }), '2026-11-24T10:00:00Z'));
	const files = write(writers, endpoint.plan, context, { radioPskHex: 'a'.repeat(64) });
	const profile = files.find(({ path }) => path.endsWith('.nmconnection'))!;
	expect(kept('a'.repeat(64))).not.toContain(cardDigest(profile));
	expect(kept('a'.repeat(64))).toBe(kept('b'.repeat(64)));
	// It stands beside apply.sh, or nothing could be checked there.
	expect(cardText(files.find(({ path }) => path.endsWith('secrets.txt')) as never)).toContain(cardDigest(profile));
	expect(cardText(files.find(({ path }) => path.endsWith('apply.sh')) as never)).not.toContain(cardDigest(profile));
});

it('tells new, changed, gone and unchanged files apart', () => {
	const written = rememberWritten([file('a', '1'), file('b', '1'), file('c', '1')], 'x');
	expect([...compareWritten([file('a', '1'), file('b', '2'), file('d', '1')], written)!]).toEqual([
		['a', 'same'],
		['b', 'changed'],
		['d', 'new'],
		['c', 'gone']
	]);
	expect(compareWritten([], null)).toBeNull();
});

const packed = async (...args: Parameters<typeof zipFiles>): Promise<Buffer> =>
	Buffer.from(await new Response(zipFiles(...args) as BodyInit).arrayBuffer());

it('packs every file with its bytes, and the same archive for the same set', async () => {
	const set = [
		{ path: 'boot/x.sh', mode: '0755', bytes: new TextEncoder().encode('#!/bin/sh\n') },
		{ path: 'm.wav', mode: '0644', bytes: new Blob([new Uint8Array(2_500_000).fill(7)]) },
		{ path: 'empty', mode: '0600', bytes: new Uint8Array() }
	];
	const parts: number[] = [];
	const zip = await packed(set, (part) => parts.push(part));
	expect(await packed(set)).toEqual(zip);
	// Whoever unpacks it takes up the modes.
	const central = zip.indexOf(Buffer.from('PK\x01\x02'));
	expect(zip.readUInt8(central + 5)).toBe(3);
	expect(zip.readUInt16LE(central + 40).toString(8)).toBe('100755');
	expect(Object.entries(unzipSync(zip)).map(([path, bytes]) => [path, bytes.length])).toEqual([
		['boot/x.sh', 10],
		['m.wav', 2_500_000],
		['empty', 0]
	]);
	expect(parts.at(-1)).toBe(1);
	expect(parts).toEqual([...parts].sort((a, b) => a - b));
	expect([...unzipFiles(zip, 3e6)!].map(([path, bytes]) => [path, bytes.length])).toEqual([
		['boot/x.sh', 10],
		['m.wav', 2_500_000],
		['empty', 0]
	]);
	expect(unzipFiles(zip, 2e6)).toBeNull();
	for (const torn of [zip.subarray(0, 40), zip.subarray(9), new Uint8Array(), new TextEncoder().encode('{}')])
		expect(unzipFiles(torn, 3e6)?.get('m.wav')).toBeUndefined();
});

it('an archive is read by another program, with every name and mode', async ({ skip }) => {
	const names = ['boot/yphos/apply.sh', 'M\u00f8\u030crk/\u6ce2.wav', 'a b/\u201cc\u201d.txt'];
	const modes = ['0755', '0644', '0600'];
	const zip = await packed(
		names.map((path, n) => ({ path, mode: modes[n]!, bytes: new Blob([new Uint8Array(70_000 * n).fill(n)]) }))
	);
	const read = spawnSync(
		'python3',
		[
			'-c',
			'import sys,io,json,zipfile\nz=zipfile.ZipFile(io.BytesIO(sys.stdin.buffer.read()))\nprint(json.dumps([z.testzip(),[[i.filename,oct(i.external_attr>>16)[-4:],i.file_size] for i in z.infolist()]]))'
		],
		{ input: zip, encoding: 'utf8' }
	);
	if (read.error) return skip();
	expect(JSON.parse(read.stdout)).toEqual([null, names.map((name, n) => [name, modes[n], 70_000 * n])]);
});

it('an exported workshop with its media comes back whole, and what is no such archive is refused', async () => {
	const media = new Map([
		['Night ferry.wav', Uint8Array.of(1, 2)],
		['a/b: c', Uint8Array.of(3)]
	]);
	const one = { ...demoWorkshop.media[0]!, kept: 'browser' as const };
	const workshop = { ...demoWorkshop, media: [...media.keys()].map((location) => ({ ...one, location })) };
	const zip = await packed(archiveOf(workshop, media));
	const opened = openArchive(zip, 'UTC');
	expect(opened.ok && [opened.value.workshop, [...opened.value.media], opened.value.remarks]).toEqual([
		workshop,
		[...media],
		[]
	]);
	expect(openArchive(await packed([{ path: 'x', mode: '0644', bytes: Uint8Array.of(1) }]), 'UTC')).toMatchObject({
		ok: false
	});
	fc.assert(
		fc.property(fc.nat(zip.length), fc.nat(255), (at, value) => {
			const torn = Uint8Array.from(zip);
			torn[at % torn.length] = value;
			openArchive(torn, 'UTC');
		}),
		{ numRuns: 150 }
	);
});
