import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readlinkSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../../demo/media';
import { demoWorkshop } from '../../../../../demo/workshop';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { curesOf } from '../../../engines/cure';
import { derive } from '../../../engines/derive';
import { cardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { inWords } from '../../../engines/say';
import { write } from '../../../engines/write';
import { cardText } from '../../../files/cardBytes';
import { readM3u } from '../../../formats/playlist/m3u';
import { readStillSize } from '../../../formats/picture/size';
import type { Plan } from '../../../plan/plan';
import { rehearsed } from '../../../rehearsals';
import { speaking } from '../../../speaking';
import { writers } from '../../../writers';
import { shownIn } from '../pages/content';
import { PAGES_NOW } from './pictureFiles';
import { drawingAt, picturesOf, type Pictures } from './pictures';
import { newZone, type NoticesSettings, type Zone } from '../settings';
import { worldOf } from '../pages/world';

const ID = 'ticket-hatch';
const hatch = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const around = contextFor(chain, demoWorkshop, ID);
const MINUTE = 60_000;
const DAY = 86_400_000;
const withPictures = (more: Partial<NoticesSettings> = {}): Plan => ({
	...hatch,
	notices: { ...hatch.notices, shownBy: 'pictures', picturesFrom: '2027-03-27', picturesDays: 3, ...more }
});
const found = (plan: Plan): Pictures => picturesOf(plan.notices, derive(chain, plan, around).context)!;
const filesOf = (plan: Plan) => write(writers, plan, around, { mediaBytes: demoMediaOf(hatch.sources.items) });
const textOf = (plan: Plan, ending: string): string => {
	const file = filesOf(plan).find(({ path }) => path.endsWith(ending))!;
	return 'lines' in file ? cardText(file) : '';
};
const findingsOf = (plan: Plan) => assess(judges, plan, around).findings;
const nameAt = (all: Pictures, pageId: string, utcMs: number): string => drawingAt(all, pageId, utcMs)!.name;

describe('pictures of pages', () => {
	it('change at the very minute at which what is drawn changes, over the day on which the clock is put forward', () => {
		const plan = withPictures();
		const all = found(plan);
		const page = plan.notices.pages[0]!;
		const said = (utcMs: number): string =>
			JSON.stringify(page.zones.map((zone) => shownIn(zone, worldOf(all.show, utcMs, new Map(), true)).content));
		const from = Date.parse('2027-03-27T00:00:00Z');
		expect(all.endsUtcMs).toBe(from + 3 * DAY - 60 * MINUTE);
		const bySaid = new Map<string, string>();
		for (let utcMs = from; utcMs < all.endsUtcMs; utcMs += MINUTE) {
			const name = nameAt(all, page.id, utcMs);
			const words = said(utcMs);
			expect(bySaid.get(words) ?? name, new Date(utcMs).toISOString()).toBe(name);
			bySaid.set(words, name);
		}
		// Different words have different pictures, and each of them is drawn as it says.
		expect(new Set(bySaid.values()).size).toBe(bySaid.size);
		for (const { name, utcMs, without } of all.drawings)
			if (bySaid.size && without.length === 0 && name.startsWith(page.id)) expect(bySaid.get(said(utcMs))).toBe(name);
	});
	it('before the first day and after the last show only what holds on any day', () => {
		const all = found(withPictures({ picturesFrom: '2026-11-27' }));
		for (const { id, zones } of hatch.notices.pages) {
			const before = nameAt(all, id, 0);
			expect(nameAt(all, id, all.endsUtcMs)).toBe(before);
			const { without } = all.drawings.find(({ name }) => name === before)!;
			const dated = zones.filter(({ shows }) => shows === 'date' || shows === 'hours' || shows === 'curve');
			expect(without).toEqual(expect.arrayContaining(dated.map(({ id: its }) => its)));
			expect(zones.filter(({ shows }) => shows === 'text').some(({ id: its }) => without.includes(its))).toBe(false);
		}
	});
	it('are as few as what changes, however long they are for', () => {
		const zones: Zone[] = [newZone('a', 'text', { x: 0, y: 0, w: 6, h: 6 }, { text: 'Mind the steps' })];
		const pages = [{ id: 'page-a', title: 'Steps', forSec: 12, zones }];
		expect(found(withPictures({ pages, picturesDays: 366 })).drawings).toHaveLength(1);
		const dated = [...zones, newZone('b', 'date', { x: 6, y: 0, w: 6, h: 3 })];
		const daily = found(withPictures({ pages: [{ ...pages[0]!, zones: dated }], picturesDays: 30 }));
		expect(daily.drawings).toHaveLength(31);
		expect(daily.turns.map(({ fromUtcSec }) => fromUtcSec)).toEqual(
			[...daily.turns.map((turn) => turn.fromUtcSec)].sort((a, b) => a - b)
		);
		// What is the same again is not drawn again: opening hours of a week.
		const hours = [newZone('c', 'hours', { x: 0, y: 0, w: 6, h: 6 }, { rows: 7 })];
		const weeks = found(
			withPictures({ pages: [{ ...pages[0]!, zones: hours }], picturesFrom: '2027-05-01', picturesDays: 28 })
		);
		expect(weeks.turns.length).toBe(30);
		expect(weeks.drawings.length).toBeLessThan(9);
	});
	it('are too many where a table changes each minute, and the fix draws fewer days', () => {
		const rows = Array.from({ length: 1440 }, (_, n) => new Date(n * MINUTE).toISOString().slice(11, 16));
		const feed = {
			...hatch.notices.feeds.find(({ kind }) => kind === 'table')!,
			id: 'busy',
			text: `At\n${rows.join('\n')}\n`
		};
		const zones = [newZone('t', 'table', { x: 0, y: 0, w: 6, h: 6 }, { feed: 'busy', rows: 3 })];
		const plan = withPictures({ feeds: [feed], pages: [{ id: 'page-a', title: '', forSec: 12, zones }] });
		expect(found(plan).isCut).toBe(true);
		const finding = findingsOf(plan).find(({ id }) => id === 'notices.pictures-many')!;
		const [fix] = curesOf(judges, plan, around, finding);
		expect(fix!.label).toBe('Draw 1 days'.replace('days', 'day'));
		expect(findingsOf(fix!.apply(plan)).some(({ id }) => id === finding.id)).toBe(false);
	});
	it('each of its cautions is cured by each of its fixes', () => {
		const zones = [
			newZone('a', 'clock', { x: 0, y: 0, w: 6, h: 3 }),
			newZone('b', 'film', { x: 6, y: 0, w: 6, h: 3 }, { entries: ['s1'] }),
			newZone('c', 'photographs', { x: 0, y: 4, w: 6, h: 3 }, { entries: ['s1', 's2'] })
		];
		const plan = withPictures({
			showByPhone: true,
			fadeMs: 500,
			pages: [
				{ id: 'page-a', title: 'All', forSec: 17, zones },
				{ id: 'page-b', title: 'Day', forSec: 12, zones: [newZone('d', 'date', { x: 0, y: 0, w: 6, h: 3 })] }
			]
		});
		const told = findingsOf(plan).filter(({ id }) => id.startsWith('notices.pictures-'));
		expect(told.map(({ id }) => id.replace('notices.pictures-', '')).sort()).toEqual([
			'clock-page-a-a',
			'empty-page-b',
			'fade',
			'feeds',
			'film-page-a-b',
			'phone',
			'time-page-a',
			'turns-page-a-c'
		]);
		for (const finding of told) {
			const fixes = curesOf(judges, plan, around, finding);
			expect(fixes.length, finding.id).toBeGreaterThan(0);
			for (const fix of fixes) expect(findingsOf(fix.apply(plan)).some(({ id }) => id === finding.id)).toBe(false);
		}
		const one = { ...withPictures(), programme: { ...hatch.programme, loop: 'one' as const } };
		const [whole] = curesOf(
			judges,
			one,
			around,
			findingsOf(one).find(({ id }) => id === 'notices.pictures-one')!
		);
		expect(whole!.apply(one).programme.loop).toBe('list');
		expect(
			findingsOf(withPictures({ picturesFrom: '' })).some(
				({ id, level }) => id === 'notices.pictures-from' && level === 'stop'
			)
		).toBe(true);
	});
});

describe('pictures on the card', () => {
	it('each has its file, as large as what the set shows of the screen, and its turns in the playlist', () => {
		const plan = withPictures();
		const all = found(plan);
		const files = filesOf(plan);
		for (const { name } of all.drawings) {
			const file = files.find(({ path }) => path.endsWith(`/pictures/${name}`))!;
			expect(readStillSize('bytes' in file ? file.bytes : new Uint8Array())).toMatchObject({
				ok: true,
				value: { widthPx: 1026, heightPx: 1828 }
			});
		}
		const list = readM3u(textOf(plan, '/playlist.m3u8'));
		const { stillSec } = plan.picture;
		const first = plan.notices.pages[0]!;
		const turns = list.ok ? list.value.entries.filter(({ location }) => location.endsWith(`/${first.id}.png`)) : [];
		expect(turns.length * stillSec).toBe(24);
		expect(files.some(({ path }) => path.endsWith('/index.html') || path.includes('yphos-feeds'))).toBe(false);
		const drawn = Uint8Array.of(1, 2, 3);
		const { name } = all.drawings[0]!;
		const withIt = write(writers, plan, around, { pagePictures: new Map([[name, drawn]]) });
		expect(withIt.find(({ path }) => path.endsWith(name))).toMatchObject({ bytes: drawn });
	});

	const folder = mkdtempSync(join(tmpdir(), 'yphos-pictures-'));
	afterAll(() => rmSync(folder, { recursive: true }));
	it('pages-now.sh in a real shell shows what the turns say, at any instant, and again after it was broken off', () => {
		const plan = withPictures();
		const all = found(plan);
		writeFileSync(join(folder, 'pages-now.sh'), PAGES_NOW.join('\n'));
		writeFileSync(join(folder, 'pictures.txt'), textOf(plan, '/pictures.txt'));
		mkdirSync(join(folder, 'shown'));
		const edges = all.turns.flatMap(({ fromUtcSec }) => [fromUtcSec - 1, fromUtcSec, fromUtcSec + 1]);
		const run = spawnSync(
			'sh',
			[
				'-c',
				`for now in "$@"; do YPHOS_NOW=$now sh "$YPHOS_PAGES/pages-now.sh" || echo failed; for page in ${hatch.notices.pages.map(({ id }) => id).join(' ')}; do readlink "$YPHOS_SHOWN/$page.png"; done; done`,
				'sh',
				...edges.map((sec) => String(Math.max(0, sec)))
			],
			{ env: { ...process.env, YPHOS_PAGES: folder, YPHOS_SHOWN: join(folder, 'shown') }, encoding: 'utf8' }
		);
		expect(run.stderr).toBe('');
		expect(run.stdout.trim().split('\n')).toEqual(
			edges.flatMap((sec) =>
				hatch.notices.pages.map(({ id }) => `${folder}/pictures/${nameAt(all, id, Math.max(0, sec) * 1000)}`)
			)
		);
		// A link that was left half-way is in nobody's way.
		spawnSync('ln', ['-s', 'nowhere', join(folder, 'shown', 'page-tides.new')]);
		spawnSync('sh', [join(folder, 'pages-now.sh')], {
			env: { ...process.env, YPHOS_NOW: '0', YPHOS_PAGES: folder, YPHOS_SHOWN: join(folder, 'shown') }
		});
		expect(readlinkSync(join(folder, 'shown', 'page-tides.png'))).toContain(nameAt(all, 'page-tides', 0));
	});

	const rehearsedWords = (
		plan: Plan,
		at: string,
		forMs: number,
		edit = (text: string) => text,
		damaged = ''
	): string => {
		const card = new Map(cardTree(filesOf(plan)));
		if (damaged) {
			const path = [...card.keys()].find((known) => known.endsWith(damaged))!;
			card.set(path, { ...card.get(path)!, text: edit(card.get(path)!.text) });
			const apply = card.get('boot/yphos/apply.sh')!;
			card.set('boot/yphos/apply.sh', {
				...apply,
				text: apply.text.replace('|| [[ $(sha256sum', '|| false && [[ $(sha256sum')
			});
		}
		const result = rehearse({
			links: rehearsed,
			card,
			bench: benchFor(writers, plan, around),
			startUtcMs: Date.parse(at),
			forMs,
			faults: [{ name: 'power-cut', atMs: forMs / 2, lastsMs: 5000 }]
		});
		return inWords(speaking, result.events)
			.map(({ text, reading }) => `${text} (${reading})`)
			.join('\n');
	};
	it('are shown by the plain player through a power cut, and changed at midnight', () => {
		const texts = rehearsedWords(withPictures(), '2027-03-27T22:00:00Z', 4 * 3_600_000);
		expect(texts).toContain('The picture of page-tides is changed (drawn for 2027-03-28 00:00 UTC and after)');
		expect(texts).toMatch(/Tides and times/);
		expect(texts).not.toMatch(/is no such picture|Not rehearsed: /);
		expect(rehearsedWords(withPictures(), '2027-05-01T10:00:00Z', 3_600_000)).toContain(
			'The picture of page-tides is changed (what of it holds on any day)'
		);
	});
	it.each([
		[
			'/pictures.txt',
			(text: string) => text.replaceAll(/page-tides-[0-9a-f]+/g, 'page-tides-0'),
			'there is no such picture'
		],
		[
			'/yphos-pages.service',
			(text: string) => text.replace(/StateDirectory=.*/, ''),
			'Tides and times: there is no such file'
		],
		[
			'/playlist.m3u8',
			(text: string) => text.replaceAll('/var/lib/yphos-pages/', '/var/lib/yphos-page/'),
			'Tides and times: there is no such file'
		]
	])('with damage in %s the rehearsal tells', (path, edit, words) => {
		const at = '2027-03-27T10:00:00Z';
		const whole = rehearsedWords(withPictures(), at, 3_600_000);
		const broken = rehearsedWords(withPictures(), at, 3_600_000, edit, path);
		expect(broken).not.toBe(whole);
		expect(broken).toContain(words);
	});
});
