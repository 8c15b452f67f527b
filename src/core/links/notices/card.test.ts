import askScript from '../network/ask.sh?raw';
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../demo/media';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { assess } from '../../engines/assess';
import { benchFor } from '../../engines/benchFor';
import { contextFor } from '../../engines/context';
import { cardTree, type CardTree } from '../../engines/machine';
import { rehearse, type PlannedFault } from '../../engines/rehearse';
import { runSheet } from '../../engines/runSheet';
import { inWords } from '../../engines/say';
import { write } from '../../engines/write';
import type { Plan } from '../../plan/plan';
import { rehearsed } from '../../rehearsals';
import { speaking } from '../../speaking';
import { writers } from '../../writers';
import { ALIVE } from './kiosk/alive';
import { FETCH } from './feeds/fetching';
import { HOSTILE } from '../../../lib/server/standInFeeds';
import { pageLines } from './files';
import { showSchema } from './pages/show';
import { CALM_NOTICES, newZone, type NoticesSettings, type Zone } from './settings';

const ID = 'ticket-hatch';
const hatch = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const context = contextFor(chain, demoWorkshop, ID);
const HOUR = 3_600_000;
const mediaBytes = demoMediaOf(hatch.sources.items);
const cardOf = (plan: Plan): CardTree => cardTree(write(writers, plan, context, { mediaBytes }));
const card = cardOf(hatch);
function run(tree: CardTree, at: string, forMs: number, faults: PlannedFault[] = [], plan = hatch) {
	const result = rehearse({
		links: rehearsed,
		card: tree,
		bench: benchFor(writers, plan, context),
		startUtcMs: Date.parse(at),
		forMs,
		faults
	});
	const told = inWords(speaking, result.events);
	return {
		texts: told.map(({ text }) => text).join('\n'),
		on: told
			.filter(({ text }) => /^(?:Shown|Black)/.test(text))
			.map(({ atMs, text, reading }) => [Math.round(atMs / 1000), text, reading] as const),
		eye: result.tracks.find(({ id }) => id === 'eye')!
	};
}
const PAGE = 'boot/yphos/root/opt/yphos/notices/index.html';
const UNIT = 'boot/yphos/root/etc/systemd/system/yphos-player.service';
const damaged = (path: string, edit: (text: string) => string): CardTree => {
	const tree = new Map(card);
	tree.set(path, { ...tree.get(path)!, text: edit(tree.get(path)!.text) });
	const apply = tree.get('boot/yphos/apply.sh')!;
	tree.set('boot/yphos/apply.sh', {
		...apply,
		text: apply.text.replace('|| [[ $(sha256sum', '|| false && [[ $(sha256sum')
	});
	return tree;
};

describe('pages on the card, rehearsed', () => {
	it('are shown by the rules, whole and upright, and again after a power cut', () => {
		const { on, eye, texts } = run(card, '2026-11-27T16:00:00Z', 2 * HOUR, [
			{ name: 'power-cut', atMs: HOUR, lastsMs: 5000 }
		]);
		expect(on[0]).toEqual([22, 'Shown: Tides and times', 'no rule holds']);
		expect(on).toContainEqual([1800, 'Shown: Tides and times', 'rule: Before the ferry']);
		// Half an hour later power comes back within the same rule.
		expect(on.some(([atSec, , why]) => atSec! > 3605 && atSec! < 3640 && why === 'rule: Before the ferry')).toBe(true);
		expect(on.at(-1)).toEqual([4800, expect.stringMatching('Shown:'), 'no rule holds']);
		expect(eye.verdict).toMatchObject({ good: true, words: expect.stringMatching('whole and upright') as string });
		expect(texts).not.toMatch(/Not rehearsed: /);
	});
	it('are shown at once by phone, and again by the rules when that is asked for, or half an hour later', () => {
		const asked = { name: 'phone-shows', atMs: 0.5 * HOUR };
		const back = run(card, '2026-11-27T16:00:00Z', HOUR, [{ ...asked, lastsMs: 300_000 }]);
		const byHand = back.on.findIndex(([, , why]) => why === 'by phone');
		const [at = 0] = back.on[byHand]!;
		expect([at > 1800 && at < 1806, back.on[byHand]![1]]).toEqual([true, 'Shown: Tides and times']);
		expect(back.on[byHand + 1]![0]).toBeLessThan(2110);
		expect(back.on[byHand + 1]![2]).toBe('rule: Before the ferry');
		const left = run(card, '2026-11-27T15:00:00Z', 2 * HOUR, [{ ...asked, lastsMs: 2 * HOUR }]).on;
		const n = left.findIndex(([, , why]) => why === 'by phone');
		expect(left[n + 1]![0]! - left[n]![0]!).toBeGreaterThan(29 * 60);
		expect(left[n + 1]![0]! - left[n]![0]!).toBeLessThan(31 * 60);
		// A power cut ends it: what lies below /run is gone.
		const cut = run(card, '2026-11-27T16:00:00Z', HOUR, [
			{ ...asked, lastsMs: HOUR },
			{ name: 'power-cut', atMs: 0.6 * HOUR, lastsMs: 5000 }
		]).on;
		expect(cut.at(-1)![2]).toBe('rule: Before the ferry');
		const nothing = run(
			damaged('boot/yphos/root/etc/tmpfiles.d/yphos-show.conf', () => ''),
			'2026-11-27T16:00:00Z',
			HOUR,
			[asked]
		);
		expect(nothing.on.some(([, , why]) => why === 'by phone')).toBe(false);
	});
	it('that crash are begun anew within eight minutes, by the timer alone', () => {
		const crash = [{ name: 'page-crashes', atMs: 0.5 * HOUR }];
		const { texts, eye } = run(card, '2026-11-27T12:00:00Z', HOUR, crash);
		const dark = eye.spans.filter(({ fromMs, state }) => fromMs >= 0.5 * HOUR && state !== 'picture');
		expect(dark.length).toBeGreaterThan(0);
		expect(dark.reduce((sum, { fromMs, toMs }) => sum + toMs - fromMs, 0)).toBeLessThan(8 * 60_000);
		expect(eye.spans.at(-1)!.state).toBe('picture');
		expect(texts).toContain('the page has been silent for minutes');
		const timer = 'boot/yphos/root/etc/systemd/system/yphos-page-alive.timer';
		const without = run(
			damaged(timer, () => ''),
			'2026-11-27T12:00:00Z',
			HOUR,
			crash
		).eye;
		expect(without.spans.at(-1)!.state).not.toBe('picture');
	});
	it('are black in quiet hours, and the browser stays', () => {
		const plan: Plan = {
			...hatch,
			programme: { ...hatch.programme, rules: [], quiet: [{ weekdays: [], from: '17:00', until: '18:00' }] }
		};
		const { on, eye } = run(cardOf(plan), '2026-11-27T16:30:00Z', 2 * HOUR, [], plan);
		expect(on.map(([atSec, text]) => [atSec, text.slice(0, 5)])).toEqual([
			[22, 'Shown'],
			[1800, 'Black'],
			[5400, 'Shown']
		]);
		expect(eye.spans.map(({ state }) => state)).toContain('resting');
		expect(cardOf(plan).has('boot/yphos/root/etc/systemd/system/yphos-quiet-begins.timer')).toBe(false);
	});
	it('keep the last good feed while its server refuses, or gives something else', () => {
		const fault = (name: string) => [{ name, atMs: HOUR, lastsMs: 3 * HOUR }];
		const refused = run(card, '2026-11-27T09:00:00Z', 4 * HOUR, fault('feed-refuses')).texts;
		expect(refused).toContain('Not fetched: http://harbour.example/feeds/ferry.csv');
		expect(refused).not.toContain('Tides and times, Ferry');
		const wrong = run(card, '2026-11-27T09:00:00Z', 4 * HOUR, fault('feed-wrong')).texts;
		expect(wrong).toContain('not fetched; the last one stays');
		expect(wrong).not.toContain('Tides and times, Ferry');
	});
	it('say when a feed is old, and when it is well again', () => {
		const plan: Plan = {
			...hatch,
			notices: {
				...hatch.notices,
				pages: hatch.notices.pages.map((page) => ({
					...page,
					zones: page.zones.map((zone) => (zone.feed === 'ferry' ? { ...zone, oldAfterH: 1 } : zone))
				}))
			}
		};
		const { texts } = run(
			cardOf(plan),
			'2026-11-27T09:00:00Z',
			6 * HOUR,
			[{ name: 'feed-refuses', atMs: HOUR, lastsMs: 3 * HOUR }],
			plan
		);
		expect(texts).toMatch(/Tides and times, Ferry: It was fetched 1\u2009h ago[\s\S]*Ferry: as it should be again/);
	});
	it.each([
		['the page is gone', () => new Map([...card].filter(([path]) => path !== PAGE)), /apply\.sh ended with 1/],
		[
			'its script is another',
			() => damaged(PAGE, (text) => text.replace('player.js', 'other.js')),
			/The page lacks .*other\.js/
		],
		['its show is torn', () => damaged(PAGE, (text) => text.replace('],"feeds":[', '],"feeds":')), /cannot be read/],
		[
			'its rules against script are gone',
			() => damaged(PAGE, (text) => text.replace(/<meta http-equiv.*\n/, '')),
			/could run as a program/
		],
		[
			'its rules keep all out',
			() => damaged(PAGE, (text) => text.replace("script-src 'self'", "script-src 'none'")),
			/keep its script from running/
		],
		[
			'the compositor lacks its folder',
			() => damaged(UNIT, (text) => text.replace('RuntimeDirectory=yphos-player\n', '')),
			/Wayland socket/
		],
		['no renderer is named', () => damaged(UNIT, (text) => text.replace('WLR_RENDERER=pixman ', '')), /renderer/],
		[
			'the browser has no display',
			() => damaged(UNIT, (text) => text.replace('--ozone-platform=wayland ', '')),
			/finds no display/
		],
		[
			'a package is not asked for',
			() => damaged('boot/yphos/apply.sh', (text) => text.replace(/^package xwayland.*\n/m, '')),
			/Cannot find Xwayland binary/
		],
		['it is turned the other way', () => damaged(UNIT, (text) => text.replace('-d -r -r -r', '-d -r')), /180/]
	] as const)('say so when %s', (_, tree, said) => {
		const { texts, eye } = run(tree(), '2026-11-27T12:00:00Z', 10 * 60_000);
		expect(`${texts}\n${eye.verdict?.words}`).toMatch(said);
	});
	it('ask a person to read them, to cut the power once, and to look after what ends', () => {
		const sheet = JSON.stringify(runSheet(writers, hatch, context));
		for (const part of [
			'3.5\u2009m away',
			'Take the power away',
			'yphos played',
			'ends on 2026-12-10',
			'collecting societies'
		])
			expect(sheet).toContain(part);
	});
});

describe('the page of a card set', () => {
	it('carries its show whole, whatever is typed', () => {
		const zone = (text: string): Zone =>
			newZone('z', 'text', { x: 0, y: 0, w: 4, h: 4 }, { text, title: text.slice(0, 80) });
		const notices: NoticesSettings = {
			...CALM_NOTICES,
			used: true,
			pages: [
				{
					id: 'page-1',
					title: '</script><script>bad()</script>',
					forSec: 9,
					zones: [zone(`${HOSTILE}\n<!-- <script>`)]
				}
			]
		};
		const file = write(writers, { ...hatch, notices }, context, {}).find(({ path }) => path === PAGE)!;
		const text = 'lines' in file ? file.lines.map((line) => line.text).join('\n') : '';
		expect(text.match(/<script/g)).toHaveLength(2);
		expect(text).not.toContain('<!--');
		const block = text.slice(text.indexOf('id="show">') + 10, text.lastIndexOf('</script>'));
		const show = showSchema.parse(JSON.parse(block));
		expect(show.pages).toEqual(notices.pages);
		expect(pageLines(show).lines).toHaveLength(text.split('\n').length);
	});
});

describe('findings of the notices', () => {
	const withZones = (zones: Zone[], more: Partial<NoticesSettings> = {}): Plan => ({
		...hatch,
		notices: { ...hatch.notices, pages: [{ id: 'page-x', title: 'X', forSec: 9, zones }], ...more }
	});
	const big = newZone('t', 'text', { x: 0, y: 0, w: 12, h: 6 }, { text: 'Well', textPx: 80 });
	const calm = withZones([big], { feeds: [] });
	const feed = { id: 'f', kind: 'table', title: 'F', address: '', text: 'A,B\n1,2\n' } as const;
	const table = newZone('q', 'table', { x: 0, y: 6, w: 12, h: 6 }, { feed: 'f', textPx: 80 });
	const found = (plan: Plan) => assess(judges, plan, context).findings;
	it.each([
		['notices.no-page', withZones([], { pages: [] })],
		['notices.page-empty-page-x', withZones([])],
		['notices.outside-page-x-t', withZones([{ ...big, x: 4 }])],
		['notices.overlap-page-x-t', withZones([big, { ...big, id: 'u', y: 3 }])],
		['notices.no-feed-page-x-q', withZones([big, table], { feeds: [] })],
		['notices.columns-page-x-q', withZones([big, { ...table, columns: ['A', 'C'] }], { feeds: [feed] })],
		['notices.feed-unused-f', withZones([big], { feeds: [feed] })],
		['notices.feed-wrong-f', withZones([big, table], { feeds: [{ ...feed, text: 'A,B\n"1,2\n' }] })],
		['notices.feed-empty-f', withZones([big, table], { feeds: [{ ...feed, text: '' }] })],
		['notices.no-entry-page-x-t', withZones([{ ...big, shows: 'picture' }])],
		['notices.no-entry-page-x-t', withZones([{ ...big, shows: 'photographs', entries: ['s1', 'gone'] }])],
		['notices.no-code-page-x-t', withZones([{ ...big, shows: 'code' }])],
		['notices.small-page-x-t', withZones([{ ...big, textPx: 40 }])],
		['notices.too-much-page-x-t', withZones([{ ...big, text: 'word '.repeat(60) }])],
		[
			'notices.too-much-page-x-q',
			withZones([{ ...table, h: 3, y: 0, rows: 9 }], { feeds: [{ ...feed, text: `A,B\n${'1,2\n'.repeat(9)}` }] })
		],
		['notices.grid-shape', withZones([{ ...big, w: 40 }], { grid: { columns: 48, rows: 8 } })],
		[
			'notices.names',
			withZones([{ ...table, shows: 'calendar' }], {
				feeds: [
					{
						...feed,
						kind: 'calendar',
						text: 'BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:20261201T090000\nSUMMARY:A\nEND:VEVENT\nEND:VCALENDAR\n'
					}
				]
			})
		],
		['notices.memory', { ...calm, parts: { ...calm.parts, board: 'board-small-512' } }],
		['notices.no-picture', { ...calm, picture: { ...calm.picture, used: false } }],
		['notices.no-programme', { ...calm, programme: { ...calm.programme, used: false } }],
		[
			'notices.feed-offline-f',
			{
				...withZones([big, table], { feeds: [{ ...feed, address: 'http://a.example/x' }] }),
				network: { ...hatch.network, way: 'none' as const }
			}
		],
		[
			'notices.streams',
			{
				...calm,
				sources: {
					...calm.sources,
					items: [...calm.sources.items, { ...calm.sources.items[0]!, id: 'st', location: 'http://a.example/live' }]
				}
			}
		]
	] as [string, Plan][])('%s comes only then, and each of its fixes cures it', (id, plan) => {
		expect(found(calm).map((one) => one.id)).not.toContain(id);
		const finding = found(plan).find((one) => one.id === id);
		expect(
			finding,
			found(plan)
				.map((one) => one.id)
				.join(' ')
		).toBeDefined();
		expect(finding!.why.length).toBeGreaterThan(20);
		for (const fix of finding!.fixes) {
			const after = found(fix.apply(plan));
			expect(
				after.map((one) => one.id),
				fix.label
			).not.toContain(id);
			const stops = (all: typeof after) => all.filter(({ level }) => level === 'stop').length;
			// Text that may be read need not have room at once; nothing is stopped by a fix.
			expect(stops(after), fix.label).toBeLessThanOrEqual(stops(found(plan)));
		}
	});
	it('finds the one long entry, however late in its feed it comes', () => {
		const rows = (last: string) =>
			`Day,What\n${Array.from({ length: 20 }, (_, n) => `2027-01-${String(n + 1).padStart(2, '0')},Tour\n`).join('')}2027-02-01,${last}\n`;
		const calendar = (last: string) =>
			['Tour', last]
				.map((title, n) => `BEGIN:VEVENT\nDTSTART:2027010${n + 1}T090000\nSUMMARY:${title}\nEND:VEVENT\n`)
				.join('')
				.replace(/^/, 'BEGIN:VCALENDAR\n') + 'END:VCALENDAR\n';
		const ids = (kind: 'table' | 'calendar', text: string) =>
			found(withZones([{ ...table, shows: kind, rows: 1, y: 0, h: 4 }], { feeds: [{ ...feed, kind, text }] })).map(
				(one) => one.id
			);
		const long = 'A very long name '.repeat(12).trim();
		for (const [kind, make] of [
			['table', rows],
			['calendar', calendar]
		] as const) {
			expect(ids(kind, make('Tour'))).not.toContain('notices.too-much-page-x-q');
			expect(ids(kind, make(long))).toContain('notices.too-much-page-x-q');
		}
	});
	it('offers the larger text with as many rows as then have room', () => {
		const fix = found(hatch).find((one) => one.id === 'notices.small-page-tides-ferry')!.fixes[0]!;
		expect(fix.label).toBe('Set it to 66\u2009px, 2 rows');
		expect(found(fix.apply(hatch)).filter((one) => one.id.includes('page-tides-ferry'))).toEqual([]);
	});
	it('judges the same plan alike twice', () =>
		expect(found(hatch).map(({ why }) => why)).toEqual(found(structuredClone(hatch)).map(({ why }) => why)));
});

describe.skipIf(spawnSync('curl', ['--version']).status !== 0)('fetch-feeds.sh in a real shell', () => {
	const dir = mkdtempSync(join(tmpdir(), 'yphos-feeds-'));
	const answers = new Map<string, string | null>();
	const server = createServer((request, response) => {
		const text = answers.get(request.url!) ?? null;
		if (text === null) response.writeHead(503).end('Sorry');
		else response.end(text);
	});
	afterAll(() => {
		server.close();
		rmSync(dir, { recursive: true });
	});
	const script = join(dir, 'fetch-feeds.sh');
	writeFileSync(script, `${FETCH.join('\n')}\n`);
	writeFileSync(join(dir, 'ask.sh'), askScript, { mode: 0o755 });
	const fetchAll = (): Promise<number> =>
		new Promise((done) => {
			const child = spawn('sh', [script], {
				env: {
					...process.env,
					YPHOS_LIST: join(dir, 'feeds.txt'),
					YPHOS_FEEDS: dir,
					YPHOS_ASK: join(dir, 'ask.sh'),
					YPHOS_NEAR: dir
				},
				stdio: 'ignore'
			});
			child.on('exit', (code) => done(code ?? 1));
		});
	it('takes what is good, and keeps the last good one of what refuses, is wrong, or too large', async () => {
		await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
		const { port } = server.address() as { port: number };
		writeFileSync(
			join(dir, 'feeds.txt'),
			`ferry http://127.0.0.1:${port}/f Leaves\nnews http://127.0.0.1:${port}/n </title>\n`
		);
		answers.set('/f', 'Leaves,For\n09:05,Norvik\n').set('/n', '<rss><title>a</title></rss>');
		expect(await fetchAll()).toBe(0);
		const ferry = () => readFileSync(join(dir, 'ferry'), 'utf8');
		expect(ferry()).toContain('Norvik');
		expect(Math.abs(Number(readFileSync(join(dir, 'ferry.when'), 'utf8')) - Date.now() / 1000)).toBeLessThan(60);
		for (const bad of [null, '<p>Sorry</p>', '', `Leaves${',x'.repeat(300_000)}`]) {
			if (bad === null) answers.delete('/f');
			else answers.set('/f', bad);
			answers.set('/n', '<rss><title>b</title></rss>');
			expect(await fetchAll()).toBe(1);
			expect(ferry()).toContain('Norvik');
			// The others are fetched all the same.
			expect(readFileSync(join(dir, 'news'), 'utf8')).toContain('b</title>');
		}
	});
});

describe('page-alive.sh in a real shell', () => {
	const dir = mkdtempSync(join(tmpdir(), 'yphos-alive-'));
	afterAll(() => rmSync(dir, { recursive: true }));
	const look = (active: boolean, said: string): string => {
		for (const [name, script] of [
			['systemctl', `[ "$1" = is-active ] && exit ${active ? 0 : 3}; echo "$*"`],
			['journalctl', `echo '${said}'`]
		] as const)
			writeFileSync(join(dir, name), `#!/bin/sh\n${script}\n`, { mode: 0o755 });
		const env = { ...process.env, PATH: `${dir}:${process.env.PATH}`, YPHOS_MISSED: join(dir, 'missed') };
		return spawnSync('sh', ['-c', ALIVE.join('\n')], { encoding: 'utf8', env }).stdout;
	};
	const AGAIN = 'restart yphos-player.service\n';

	it('begins it anew at the third silence in a row, and not before', () => {
		expect([look(true, ''), look(true, ''), look(true, ''), look(true, '')]).toEqual(['', '', AGAIN, '']);
		expect([look(true, 'yphos-page alive'), look(true, ''), look(true, '')]).toEqual(['', '', '']);
		expect([look(true, 'yphos-page shows'), look(true, 'a word of another'), look(true, '')]).toEqual(['', '', '']);
		expect([look(false, ''), look(true, ''), look(true, '')]).toEqual(['', '', '']);
		expect(look(true, '')).toBe(AGAIN);
	});
});
