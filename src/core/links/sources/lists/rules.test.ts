import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../../demo/workshop';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { cardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { runSheet } from '../../../engines/runSheet';
import { inWords } from '../../../engines/say';
import { speaking } from '../../../speaking';
import { write } from '../../../engines/write';
import { writeTone } from '../../../formats/wav/wav';
import type { Plan } from '../../../plan/plan';
import type { Workshop } from '../../../plan/workshop';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';
import { CHOOSE, TAKE_LISTS } from './ruleFiles';
import { chosenBy, chooseSec, knownFolders, ruleList, type Rule } from './rules';

const ID = 'bunkhouse-lounge';
const rule: Rule = {
	id: 'evenings',
	title: 'Evenings',
	folders: ['/srv/music/Evenings'],
	order: 'name',
	most: null,
	longestMin: null
};
const tide = demoWorkshop.media.find(({ location }) => location.startsWith('/srv/music/'))!;
const workshop: Workshop = {
	...demoWorkshop,
	media: [
		...demoWorkshop.media,
		...['Ebb.flac', 'Neap.mp3', 'notes.txt'].map((name, n) => ({
			...tide,
			location: `/srv/music/Evenings/${name}`,
			durationMs: (n + 1) * 400_000
		})),
		{ ...tide, location: '/srv/music/Morning/Dawn.flac' }
	]
};
const context = contextFor(chain, workshop, ID);
const lounge = workshop.endpoints.find(({ id }) => id === ID)!.plan;
const planWith = (rules: readonly Rule[], more: Partial<Plan['sources']> = {}): Plan => ({
	...lounge,
	programme: { ...lounge.programme, quiet: [] },
	sources: {
		...lounge.sources,
		items: [{ id: 'r', location: ruleList(rule), title: 'Evenings', durationSec: null, extra: [], part: null }],
		rules: [...rules],
		chooseAt: ['09:05'],
		...more
	}
});
const namesOf = (locations: readonly string[]): string[] =>
	locations.map((path) => path.slice(path.lastIndexOf('/') + 1));

describe('a rule chooses, of what is known here', () => {
	it.each([
		[{}, ['Ebb.flac', 'Neap.mp3', 'Slow tide.flac']],
		[{ most: 2 }, ['Ebb.flac', 'Neap.mp3']],
		[{ longestMin: 7 }, ['Ebb.flac', 'Slow tide.flac']],
		[
			{ folders: ['/srv/music/Morning', '/srv/music/Evenings'], most: 4 },
			['Ebb.flac', 'Neap.mp3', 'Slow tide.flac', 'Dawn.flac']
		],
		[{ folders: ['/srv/music/Even'] }, []]
	])('%j: %j', (change, names) =>
		expect(namesOf(chosenBy({ ...rule, ...change }, context).map(({ location }) => location))).toEqual(names)
	);
	it('from folders that are known to hold something, with how much lies in each', () =>
		expect(knownFolders(['/srv/music'], context)).toEqual([
			{ path: '/srv/music', count: 4 },
			{ path: '/srv/music/Evenings', count: 3 },
			{ path: '/srv/music/Morning', count: 1 }
		]));
	it('and the run sheet has it looked at, where there is one', () => {
		const ids = (plan: Plan) =>
			runSheet(writers, plan, context)
				.flatMap(({ steps }) => [...steps])
				.filter(({ id }) => id === 'choose-check');
		expect(ids(planWith([rule]))).toMatchObject([
			{ command: expect.stringContaining('systemctl start yphos-choose') as string }
		]);
		expect(ids(planWith([]))).toEqual([]);
	});
	it('takes longer for more files, on a server, and when each is looked into', () => {
		expect(chooseSec(10_000, 'server', false)).toBeGreaterThan(chooseSec(10_000, 'disk', false));
		expect(chooseSec(10_000, 'server', true)).toBeGreaterThan(20 * chooseSec(10_000, 'server', false));
	});
});

describe('the endpoint chooses by itself', () => {
	const said = (plan: Plan, faults: { name: string; atMs: number; lastsMs: number }[] = [], forMs = 600_000): string =>
		inWords(
			speaking,
			rehearse({
				links: rehearsed,
				card: cardTree(write(writers, plan, context)),
				bench: benchFor(writers, plan, context),
				startUtcMs: Date.UTC(2026, 10, 26, 9),
				forMs,
				faults
			} as never).events
		)
			.map(({ text }) => text)
			.join('\n');
	it('before the player starts, and plays the same that is foretold here', () => {
		const words = said(planWith([rule]), [], 3_600_000);
		const begun = [...words.matchAll(/Begins: .*\/([^/\n]+)$/gm)].map((m) => m[1]);
		expect(begun).toEqual(namesOf(chosenBy(rule, context).map(({ location }) => location)));
		expect(words).not.toContain('notes.txt');
	});
	it('keeps to the longest and to how many', () => {
		const words = said(planWith([{ ...rule, longestMin: 7, most: 1 }]), [], 3_600_000);
		expect([...words.matchAll(/Begins: /g)]).toHaveLength(1);
		expect(words).toContain('Ebb.flac');
	});
	it('plays nothing of it while the server sleeps, and takes the list once it is awake', () => {
		const words = said(planWith([rule]), [{ name: 'server-asleep', atMs: 0, lastsMs: 120_000 }], 900_000);
		expect(words).toMatch(/The file server is awake[\s\S]*Begins: .*Ebb\.flac/);
		expect(words.split('The file server is awake')[0]).not.toContain('Begins: ');
	});
	it('needs an entry, folders that somebody brings, and a quiet hour', () => {
		const found = (plan: Plan) =>
			assess(judges, plan, context).findings.filter(({ id }) => id.startsWith('sources.rule'));
		for (const [plan, id] of [
			[planWith([rule], { items: lounge.sources.items }), 'sources.rule-unplayed'],
			[planWith([{ ...rule, folders: ['/srv/music/Evenings', '/home/x'] }]), 'sources.rule-astray'],
			[{ ...planWith([rule]), programme: lounge.programme }, 'sources.rule-loud']
		] as const) {
			const finding = found(plan).find((one) => one.id === id)!;
			expect(finding, id).toBeDefined();
			expect(finding.fixes.length, id).toBe(1);
			expect(found(finding.fixes[0]!.apply(plan)).map((one) => one.id)).not.toContain(id);
		}
		expect(found(planWith([rule]))).toEqual([]);
	});
});

describe('choose.sh in a real shell, on real files', () => {
	const folder = mkdtempSync(join(tmpdir(), 'yphos-rules-'));
	afterAll(() => rmSync(folder, { recursive: true }));
	const at = (path: string): string => join(folder, path);
	const put = (path: string, seconds: number, changedSec: number): void => {
		mkdirSync(dirname(at(path)), { recursive: true });
		writeFileSync(
			at(path),
			writeTone({
				pitchHz: 440,
				peakDbfs: -20,
				sampleRateHz: 8000,
				bitDepth: 16,
				channels: 1,
				durationMs: seconds * 1000
			})
		);
		utimesSync(at(path), changedSec, changedSec);
	};
	put("music/b 'two' $(x).wav", 70, 1000);
	put('music/sub/a.WAV', 30, 3000);
	put('music/c.wav', 10, 2000);
	put('music/cover.txt', 1, 9000);
	mkdirSync(at('empty'));
	mkdirSync(at('rules'));
	mkdirSync(at('lists'));
	writeFileSync(at('choose.sh'), CHOOSE.join('\n'));
	const choose = (rules: Record<string, string[]>) => {
		rmSync(at('rules'), { recursive: true });
		mkdirSync(at('rules'));
		for (const [name, lines] of Object.entries(rules)) writeFileSync(at(`rules/${name}.rule`), `${lines.join('\n')}\n`);
		const { status, stderr } = spawnSync('sh', [at('choose.sh')], {
			encoding: 'utf8',
			env: { ...process.env, YPHOS_RULES: at('rules'), YPHOS_LISTS: at('lists') }
		});
		return { status, stderr };
	};
	const list = (name: string): string[] =>
		readFileSync(at(`lists/${name}.m3u8`), 'utf8')
			.trim()
			.split('\n');
	const music = (...names: string[]): string[] => names.map((name) => at(`music/${name}`));

	it('by name, newest first, so many, and none that is too long', () => {
		const of = (...more: string[]): string[] => [...more, `folder ${at('music')}`];
		expect(
			choose({
				name: of('title T', 'order name'),
				newest: of('order newest'),
				two: of('order newest', 'most 2'),
				short: of('order name', 'longest 1'),
				any: of('order any')
			})
		).toEqual({ status: 0, stderr: '' });
		expect(list('name')).toEqual(['#EXTM3U', '#PLAYLIST:T', ...music("b 'two' $(x).wav", 'c.wav', 'sub/a.WAV')]);
		expect(list('newest').slice(1)).toEqual(music('sub/a.WAV', 'c.wav', "b 'two' $(x).wav"));
		expect(list('two').slice(1)).toEqual(music('sub/a.WAV', 'c.wav'));
		expect(list('short').slice(1)).toEqual(music('c.wav', 'sub/a.WAV'));
		expect(list('any').slice(1).sort()).toEqual(music("b 'two' $(x).wav", 'c.wav', 'sub/a.WAV'));
	});
	it('says that a list has changed, and only then', () => {
		const rules = { name: ['order name', `folder ${at('music')}`] };
		choose(rules);
		rmSync(at('lists/changed'));
		choose(rules);
		expect(spawnSync('test', ['-e', at('lists/changed')]).status).toBe(1);
		put('music/d.wav', 5, 4000);
		choose(rules);
		expect(spawnSync('test', ['-e', at('lists/changed')]).status).toBe(0);
	});
	it('lets the player begin again when a list has changed, once', () => {
		writeFileSync(at('take-lists.sh'), TAKE_LISTS.join('\n'));
		mkdirSync(at('bin'));
		writeFileSync(at('bin/systemctl'), '#!/bin/sh\necho "$@"\n', { mode: 0o755 });
		const take = (): string =>
			spawnSync('sh', [at('take-lists.sh')], {
				encoding: 'utf8',
				env: { ...process.env, YPHOS_LISTS: at('lists'), PATH: `${at('bin')}:${process.env.PATH}` }
			}).stdout;
		writeFileSync(at('lists/changed'), '');
		expect(take()).toBe('--no-block try-restart yphos-player.service\n');
		expect(take()).toBe('');
	});
	it('keeps the old list where a folder is gone or empty, and fails so that it is tried again', () => {
		choose({ name: ['order name', `folder ${at('music')}`] });
		const before = list('name');
		for (const gone of [at('gone'), at('empty')]) {
			const { status, stderr } = choose({
				name: ['order name', `folder ${gone}`],
				other: ['order name', `folder ${at('music')}`]
			});
			expect(status, gone).toBe(1);
			expect(stderr).toContain('the list stays as it was');
			expect(list('name')).toEqual(before);
			expect(list('other').length).toBeGreaterThan(3);
		}
	});
});
