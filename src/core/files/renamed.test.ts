import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { contextFor } from '../engines/context';
import { write } from '../engines/write';
import type { CardFile } from '../link/file';
import { planSchema, type Plan } from '../plan/plan';
import { writers } from '../writers';
import { lines, rootPath, textFile } from './cardFile';
import { fitNames, targetOf } from './renamed';

const lounge = demoWorkshop.endpoints[0]!;
const fileOf = (target: string): CardFile => textFile(rootPath(target), '', lines('card', target));

/** What Windows says that a name must not be, written down apart from ours. Source: Microsoft, "Naming Files, Paths, and Namespaces". */
function isRefused(name: string): boolean {
	const device = name.split('.')[0]!.toLowerCase();
	return (
		[...'<>:"/\\|?*'].some((c) => name.includes(c)) ||
		[...name].some((c) => c.charCodeAt(0) < 32) ||
		name.endsWith('.') ||
		name.endsWith(' ') ||
		['con', 'prn', 'aux', 'nul', ...[...'123456789'].flatMap((n) => [`com${n}`, `lpt${n}`])].includes(device)
	);
}

/** A plan with names of every kind that a person or a file may give, as far as the schemas let them in. */
const anyNames = fc
	.record({
		stores: fc.uniqueArray(
			fc.oneof(
				fc.constantFrom('con', 'aux', 'nul', 'music-2', 'a--b', 'lpt1', 'prn'),
				fc.stringMatching(/^[a-z][a-z0-9-]{0,12}$/)
			),
			{ maxLength: 4 }
		),
		ids: fc.uniqueArray(fc.oneof(fc.constantFrom('A', 'a', 'con'), fc.stringMatching(/^[A-Za-z0-9_-]{1,12}$/)), {
			maxLength: 4
		}),
		media: fc.uniqueArray(
			fc.string({ unit: 'grapheme', minLength: 1, maxLength: 20 }).map((name) => name.replace(/^[\s/]+|\p{Cc}/gu, 'x')),
			{ maxLength: 4 }
		)
	})
	.map(({ stores, ids, media }): Plan | null => {
		const read = planSchema.safeParse({
			...lounge.plan,
			sources: {
				...lounge.plan.sources,
				stores: stores.map((name, n) => ({
					id: `s${n}`,
					name,
					kind: 'smb',
					server: 'files.local',
					share: 'media',
					user: 'keeper',
					version: 'auto',
					access: 'write'
				})),
				rules: ids.map((id) => ({
					id,
					title: id,
					folders: ['/srv/music'],
					order: 'name',
					most: null,
					longestMin: null
				})),
				items: media.map((location, n) => ({
					...lounge.plan.sources.items[0]!,
					id: `i${n}`,
					location: `${location}.wav`
				}))
			},
			programme: {
				...lounge.plan.programme,
				lists: ids.map((id) => ({ id, title: id, entries: [] }))
			}
		});
		return read.success ? read.data : null;
	});

function setOf(plan: Plan): CardFile[] {
	const bytes = new Map(plan.sources.items.map(({ location }) => [location, Uint8Array.of(1)]));
	return write(writers, plan, contextFor(chain, demoWorkshop, lounge.id), { mediaBytes: bytes });
}
const folded = (path: string): string => path.normalize('NFC').toUpperCase().toLowerCase();

describe('names of a card set', () => {
	it('are taken by FAT, exFAT, NTFS and macOS, whatever a plan is called by, and no two are one', () => {
		let plans = 0;
		fc.assert(
			fc.property(anyNames, (plan) => {
				if (!plan) return;
				plans++;
				const files = setOf(plan);
				expect(files.flatMap(({ path }) => path.split('/')).filter(isRefused)).toEqual([]);
				expect(new Set(files.map(({ path }) => folded(path))).size).toBe(files.length);
				const targets = files.map(targetOf).filter((target) => target !== null);
				expect(new Set(targets).size).toBe(targets.length);
			}),
			{ numRuns: 40 }
		);
		expect(plans).toBeGreaterThan(5);
	});

	it('gives another name to what differs by capitals or spelling alone, and to a file called as a folder', () => {
		const targets = [
			'/opt/List.txt',
			'/opt/list.txt',
			'/opt/caf\u00e9',
			'/opt/cafe\u0301',
			'/opt/x/y',
			'/opt/X',
			'/opt/a/',
			'/opt/nul.txt'
		];
		const files = fitNames(targets.map(fileOf));
		expect(files.map(({ target }) => target !== undefined)).toEqual([
			false,
			true,
			false,
			true,
			false,
			true,
			true,
			true
		]);
		expect(files.map(targetOf)).toEqual(targets);
	});

	const tools = ['mkfs.vfat', 'mcopy'].every((tool) => spawnSync('sh', ['-c', `command -v ${tool}`]).status === 0);
	it.skipIf(!tools)('lie on a real FAT file system as they are called', () => {
		const dir = mkdtempSync(join(tmpdir(), 'yphos-fat-'));
		const image = join(dir, 'fat.img');
		const card = join(dir, 'card');
		const plan = fc.sample(anyNames, { numRuns: 40, seed: 7 }).find((one) => one && one.sources.stores.length > 2)!;
		const files = setOf(plan).filter(({ path }) => path.startsWith('boot/'));
		for (const { path } of files) {
			mkdirSync(dirname(join(card, path)), { recursive: true });
			writeFileSync(join(card, path), 'x');
		}
		expect(spawnSync('mkfs.vfat', ['-C', image, '65536']).status).toBe(0);
		const env = { ...process.env, MTOOLS_SKIP_CHECK: '1', LC_ALL: 'C.UTF-8' };
		const copied = spawnSync(
			'mcopy',
			['-i', image, '-s', ...readdirSync(join(card, 'boot')).map((name) => join(card, 'boot', name)), '::'],
			{ env }
		);
		expect([copied.status, copied.stderr.toString()]).toEqual([0, '']);
		const back = join(dir, 'back');
		mkdirSync(back);
		spawnSync('mcopy', ['-i', image, '-s', '-n', '::*', back], { env });
		const listed = (
			readdirSync(back, { recursive: true, withFileTypes: true }) as {
				isFile(): boolean;
				parentPath: string;
				name: string;
			}[]
		)
			.filter((entry) => entry.isFile())
			.map((entry) => `boot/${join(entry.parentPath, entry.name).slice(back.length + 1)}`);
		expect(listed.sort()).toEqual(files.map(({ path }) => path).sort());
		rmSync(dir, { recursive: true });
	});
});
