import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../../demo/media';
import { demoWorkshop } from '../../../../../demo/workshop';
import { dayFacts, dayOf } from '../../../basics/calendar';
import { chain } from '../../../chain';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { derive } from '../../../engines/derive';
import { cardTree, type CardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { write } from '../../../engines/write';
import { cardText } from '../../../files/cardBytes';
import { readM3u } from '../../../formats/playlist';
import { measureWav, readWav, writeTone } from '../../../formats/wav/wav';
import { programmeBook } from '../../../onAir/book';
import { isOfDay, itemAt } from '../../../onAir/item';
import { itemsOf } from '../../../onAir/items';
import { onAirAt } from '../../../onAir/onAir';
import { heardIn } from '../../sound/track';
import type { Plan } from '../../../plan/plan';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';
import { newList, newRule, type Moment } from '../../../onAir/when';

const ID = 'bunkhouse-lounge';
const lounge = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const around = contextFor(chain, demoWorkshop, ID);
const clock = (time: string): Moment => ({ at: 'clock', time, offsetMin: 0 });
const plan: Plan = {
	...lounge,
	programme: {
		...lounge.programme,
		quiet: [],
		whenGone: 'list',
		lists: [
			{
				...newList('advent', 'Advent'),
				items: ['s1', 's2', 's1'],
				valid: [
					{ item: 's1', from: '2026-12-01', until: '2026-12-24' },
					{ item: 's2', from: '2026-11-29', until: '2026-12-26' }
				]
			},
			{ ...newList('night', 'Night'), items: ['s2'] }
		],
		rules: [
			{ ...newRule('r2', 'night', 'Late'), from: clock('20:00'), until: clock('23:00'), quieterDb: 12 },
			{ ...newRule('r1', 'advent', 'By day'), from: clock('09:00'), until: clock('20:00') }
		],
		otherwise: 'rest'
	}
};
const { context } = derive(chain, plan, around);
const book = programmeBook(plan.programme, context.venue);
const files = write(writers, plan, around, { mediaBytes: demoMediaOf(plan.sources.items) });
const textOf = (ending: string): string => {
	const file = files.find(({ path }) => path.endsWith(ending))!;
	return 'lines' in file ? cardText(file) : '';
};
const HOUR = 3_600_000;
const items = (show: string) => itemsOf(show, plan.programme, context);

describe('entries of some days, and rules that are softer', () => {
	const folder = mkdtempSync(join(tmpdir(), 'yphos-days-'));
	afterAll(() => rmSync(folder, { recursive: true }));
	const at = (name: string): string => join(folder, name);
	it('on-air.sh in a real shell leaves out what is of other days, says how loud, and tells the player only of changes', () => {
		for (const name of ['on-air.sh', 'rules.txt', 'playlist.m3u8', 'list-advent.m3u8', 'list-night.m3u8'])
			writeFileSync(at(name), textOf(`/${name}`));
		const env = { ...process.env, YPHOS_RULES: at('rules.txt'), YPHOS_LISTS: folder, YPHOS_STATE: folder };
		let before = '';
		// Faroe keeps the time of Greenwich in winter.
		for (
			let utcMs = Date.parse('2026-11-27T22:00:00Z');
			utcMs < Date.parse('2026-12-28T12:00:00Z');
			utcMs += 3 * HOUR
		) {
			const run = spawnSync('sh', [at('on-air.sh')], {
				env: { ...env, YPHOS_NOW: `${utcMs / 1000} +0000` },
				encoding: 'utf8'
			});
			expect([run.status, run.stderr]).toEqual([0, '']);
			const { show, line } = onAirAt(book, utcMs);
			const { ymd } = dayFacts(Math.floor(utcMs / 86_400_000));
			const wanted = show === 'rest' ? [] : items(show).filter((item) => isOfDay(item, ymd));
			const now = readFileSync(at('now.m3u8'), 'utf8').trim();
			const list = now === '' ? null : readM3u(readFileSync(now, 'utf8'));
			const day = new Date(utcMs).toISOString();
			expect(list?.ok ? list.value.entries.map(({ title }) => title) : [], day).toEqual(
				wanted.map(({ title }) => title)
			);
			const loud = line?.quieterDb ? `volume=${(100 * 10 ** (-12 / 60)).toFixed(1)}` : '';
			expect(readFileSync(at('volume.conf'), 'utf8').trim(), day).toBe(loud);
			const state = JSON.stringify([wanted.map(({ id }) => id), loud, wanted.length && show]);
			const isChanged = spawnSync('rm', [at('changed')]).status === 0;
			if (before) expect(isChanged, day).toBe(state !== before);
			before = state;
		}
	});
	it('by the clock alone, on a page too: an entry comes at the midnight of its first day, and goes after its last', () => {
		const listed = (utc: string): string[] => {
			const { item, endsUtcMs } = itemAt(book, items, Date.parse(utc));
			return [item?.title ?? '', new Date(endsUtcMs).toISOString().slice(0, 16)];
		};
		expect(listed('2026-11-28T12:00:00Z')).toEqual(['', '2026-11-28T20:00']);
		expect(listed('2026-11-30T12:00:00Z')[0]).toBe('Night ferry');
		const both = new Set(
			[0, 1, 2, 3, 4, 5, 6, 7, 8, 9].map(
				(sec) => itemAt(book, items, Date.parse('2026-12-01T12:00:00Z') + sec * 1000).item?.id
			)
		);
		expect([...both].sort()).toEqual(['s1', 's2']);
		expect(listed('2026-12-27T12:00:00Z')[0]).toBe('');
		expect(dayOf('2026-12-27') - dayOf('2026-11-28')).toBe(29);
	});
	it('the real player takes the file, and is as much softer as it says', () => {
		writeFileSync(
			at('tone.wav'),
			writeTone({ pitchHz: 440, peakDbfs: -6, sampleRateHz: 48_000, bitDepth: 16, channels: 1, durationMs: 500 })
		);
		const rms = (volume: string): number => {
			writeFileSync(at('volume.conf'), `${volume}\n`);
			const run = spawnSync('mpv', [
				...['--no-config', '--ao=pcm', `--ao-pcm-file=${at('out.wav')}`, '--vo=null', '--really-quiet'],
				...[`--include=${at('volume.conf')}`, at('tone.wav')]
			]);
			expect(run.status).toBe(0);
			const bytes = new Uint8Array(readFileSync(at('out.wav')));
			const wav = readWav(bytes);
			return wav.ok ? measureWav(bytes, wav.value).rmsDbfs! : NaN;
		};
		const softer = /volume=[\d.]+/.exec(textOf('/rules.txt'))![0];
		expect(rms('') - rms(softer)).toBeCloseTo(12, 0);
	});
	it('rehearsed, the evening is twelve decibels softer, and without its options as loud as otherwise', () => {
		const hear = (hour: number, tree: CardTree) =>
			rehearse({
				links: rehearsed,
				card: tree,
				bench: benchFor(writers, plan, around),
				startUtcMs: Date.parse(`2026-12-05T${hour}:00:00Z`),
				forMs: HOUR / 4,
				faults: []
			}).tracks.find(({ id }) => id === 'ear')!;
		const levelAt = (hour: number, tree = cardTree(files)): number =>
			heardIn([hear(hour, tree)]).find(({ heard }) => heard.title === 'Night ferry')!.heard.rmsDbfs!;
		expect(levelAt(19) - levelAt(21)).toBeCloseTo(12, 0);
		const tree = new Map(cardTree(files));
		const unit = 'boot/yphos/root/etc/systemd/system/yphos-player.service';
		tree.set(unit, { ...tree.get(unit)!, text: textOf('/yphos-player.service').replace('volume.conf', 'other.conf') });
		const apply = tree.get('boot/yphos/apply.sh')!;
		tree.set('boot/yphos/apply.sh', {
			...apply,
			text: apply.text.replace('|| [[ $(sha256sum', '|| false && [[ $(sha256sum')
		});
		expect(levelAt(21, tree)).toBeCloseTo(levelAt(19), 1);
	});
});
