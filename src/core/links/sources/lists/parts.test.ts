import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../../demo/media';
import { demoWorkshop } from '../../../../../demo/workshop';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { cardTree, type CardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { inWords } from '../../../engines/say';
import { write } from '../../../engines/write';
import { cardText } from '../../../files/cardBytes';
import { clockSeconds, clockText, partedPlace, partLastsMs, partText } from '../../../files/entryPart';
import { PARTS } from '../../../files/partsScript';
import { readWav, writeTone } from '../../../formats/wav/wav';
import type { Plan } from '../../../plan/plan';
import { rehearsed } from '../../../rehearsals';
import { heardIn } from '../../sound/track';
import { speaking } from '../../../speaking';
import { writers } from '../../../writers';
import type { SourceItem } from '../settings';

describe('what of an entry is played', () => {
	const milli = fc.integer({ min: 0, max: 80_000_000 }).map((n) => n / 1000);
	it('stands behind its place and is read back, whatever the place', () => {
		fc.assert(
			fc.property(
				fc.string({ minLength: 1 }).filter((place) => !place.includes('#t=')),
				milli,
				fc.option(milli),
				fc.integer({ min: 0, max: 80 }),
				(place, fromSec, longer, halves) => {
					const untilSec = longer === null ? null : Math.round((fromSec + longer) * 1000 + 1) / 1000;
					const part = { fromSec, untilSec, quieterDb: halves / 2 };
					const text = partText(part);
					expect(partedPlace(`${place}${text}`)).toEqual({ location: place, part: text === '' ? null : part });
				}
			)
		);
		for (const place of ['a#t=', 'a#t=5,4', 'a#t=5,5', 'a#t=x', '#t=1', 'a#t=1&gain=6', 'a#t=1.mp3'])
			expect(partedPlace(place)).toEqual({ location: place, part: null });
	});
	it('times are typed as people write them', () => {
		expect(['83.5', '1:23,5', '1:02:03', ' 7 '].map(clockSeconds)).toEqual([83.5, 83.5, 3723, 7]);
		expect(['', 'x', '1:2:3:4', '-1', '1:'].map(clockSeconds)).toEqual([null, null, null, null, null]);
		fc.assert(fc.property(milli, (sec) => void expect(clockSeconds(clockText(sec))).toBeCloseTo(sec, 3)));
	});
	it('is no longer than the whole; a still stands as long as is asked for', () => {
		const part = { fromSec: 2, untilSec: 9, quieterDb: 0 };
		expect(partLastsMs(part, 5000)).toBe(3000);
		expect(partLastsMs(part, 20_000)).toBe(7000);
		expect(partLastsMs(part, null)).toBe(7000);
		expect(partLastsMs({ ...part, fromSec: 8 }, 5000)).toBe(0);
		expect(partLastsMs({ ...part, fromSec: 0, untilSec: 30 }, 12_000, true)).toBe(30_000);
		expect(partLastsMs(null, 5000)).toBe(5000);
	});
});

const ID = 'bunkhouse-lounge';
const around = contextFor(chain, demoWorkshop, ID);
const lounge = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const [bell, ferry] = lounge.sources.items as [SourceItem, SourceItem];
const planOf = (...items: SourceItem[]): Plan => ({
	...lounge,
	sources: { ...lounge.sources, stores: [], items },
	programme: { ...lounge.programme, quiet: [] }
});
const part = { fromSec: 1, untilSec: 2.5, quieterDb: 6 };

const HOUR = 3_600_000;

describe('a part of an entry', () => {
	const plan = planOf({ ...bell, part }, { ...ferry, part: null });
	const files = write(writers, plan, around, { mediaBytes: demoMediaOf(plan.sources.items) });
	const LIST = 'boot/yphos/root/opt/yphos/playlist.m3u8';
	const CONF = 'boot/yphos/root/etc/mpv/mpv.conf';
	const listed = (): string => {
		const file = files.find(({ path }) => path === LIST)!;
		return 'lines' in file ? cardText(file) : '';
	};
	/** What is heard and said in an hour, and when the list begins again. */
	const run = (card: CardTree) => {
		const { tracks, events } = rehearse({
			links: rehearsed,
			card,
			bench: benchFor(writers, plan, around),
			startUtcMs: Date.parse('2026-11-27T12:00:00Z'),
			forMs: HOUR / 6,
			faults: []
		});
		const words = inWords(speaking, events);
		const atMs = (text: string): number => words.find((event) => event.text.startsWith(text))?.atMs ?? NaN;
		return { words: words.map(({ text, reading }) => `${text} ${reading}`).join('\n'), atMs, heard: heardIn(tracks) };
	};
	/** The card with one file changed, and nobody who compares digests. */
	const changed = (path: string, change: (text: string) => string): CardTree => {
		const tree = new Map(cardTree(files));
		const apply = tree.get('boot/yphos/apply.sh')!;
		tree.set('boot/yphos/apply.sh', {
			...apply,
			text: apply.text.replace('|| [[ $(sha256sum', '|| false && [[ $(sha256sum')
		});
		return tree.set(path, { ...tree.get(path)!, text: change(tree.get(path)!.text) });
	};
	const levelOf = (of: ReturnType<typeof run>, title: string): number =>
		of.heard.find(({ heard }) => heard.title === title)?.heard.rmsDbfs ?? NaN;

	it('is written behind its place, and the player loads what reads it', () => {
		expect(listed()).toMatch(/\/media\/Harbour bell in A\.wav#t=1,2\.5&gain=-6\n/);
		expect(listed()).toMatch(/\/media\/Night ferry\.wav\n/);
		const whole = write(writers, planOf({ ...bell, part: null }), around, {});
		expect(whole.some(({ path }) => path.endsWith('parts.lua'))).toBe(false);
	});
	it('rehearsed, it is as long and as much softer as it is to be', () => {
		const played = run(cardTree(files));
		expect(played.words).toContain('from 0:01 until 0:02.5, 6\u2009dB softer');
		const loud = run(changed(LIST, (text) => text.replace('&gain=-6', '')));
		expect(levelOf(loud, bell.title) - levelOf(played, bell.title)).toBeCloseTo(6, 1);
		const took = (of: typeof played): number => of.atMs(`Begins: ${ferry.title}`) - of.atMs(`Begins: ${bell.title}`);
		const whole = run(changed(LIST, (text) => text.replace('#t=1,2.5', '#t=0')));
		expect(took(whole) - took(played)).toBe(4000 - 1500);
	});
	it('without its script, or begun behind its end, it fails, and that is said', () => {
		const without = run(changed(CONF, (text) => text.replace('script=/opt/yphos/player/parts.lua\n', '')));
		expect(without.words).toContain(`${bell.title}: there is no such file`);
		const beyond = run(changed(LIST, (text) => text.replace('#t=1,2.5', '#t=60')));
		expect(beyond.words).toContain(`${bell.title}: it begins behind its end`);
		const other = run(changed('boot/yphos/root/opt/yphos/player/parts.lua', (text) => text.replace('start', 'end')));
		expect(other.words).toContain('the player\u2019s script'.replace('\u2019', "'"));
	});
	it('what cannot be is told, and cured without another fault', () => {
		const idsOf = (one: Plan) => assess(judges, one, around).findings.map(({ id }) => id);
		const stream = lounge.sources.items.find(({ id }) => id === 's4')!;
		for (const [id, item] of [
			['sources.part-of-stream', { ...stream, part }],
			['sources.part-beyond', { ...bell, part: { ...part, fromSec: 60, untilSec: 70 } }],
			['sources.part-long', { ...bell, part: { ...part, untilSec: 70 } }]
		] as const) {
			const wrong = planOf(item);
			const finding = assess(judges, wrong, around).findings.find((known) => known.id === id)!;
			expect(finding, id).toBeDefined();
			const cured = finding.fixes[0]!.apply(wrong);
			expect(idsOf(cured), id).not.toContain(id);
			expect(cured.sources.items[0]!.part!.quieterDb, id).toBe(6);
		}
		expect(idsOf(planOf({ ...bell, part })).filter((id) => id.startsWith('sources.part'))).toEqual([]);
	});
});

/** The judge of what the script does; the card sets' own judge asks for the same program. */
const hasMpv = spawnSync('mpv', ['--version']).status === 0;
it.skipIf(!hasMpv)('the real player plays the part alone, as much softer, and the next one as it is', () => {
	const folder = mkdtempSync(join(tmpdir(), 'yphos-parts-'));
	const at = (name: string): string => join(folder, name);
	try {
		writeFileSync(at('parts.lua'), PARTS.join('\n'));
		writeFileSync(
			at('tone #1.wav'),
			writeTone({ pitchHz: 440, peakDbfs: -6, sampleRateHz: 48_000, bitDepth: 16, channels: 1, durationMs: 2000 })
		);
		// A name that only looks like it is a name.
		writeFileSync(at('tea#t=1.wav'), readFileSync(at('tone #1.wav')));
		const place = at('tone #1.wav');
		const first = `${place}${partText({ fromSec: 0.5, untilSec: 1.25, quieterDb: 12 })}`;
		writeFileSync(
			at('list.m3u8'),
			`#EXTM3U\n${first}\n${place}${partText({ ...part, fromSec: 1, untilSec: null })}\n${place}\n${at('tea#t=1.wav')}\n`
		);
		const run = spawnSync('mpv', [
			...['--no-config', '--ao=pcm', `--ao-pcm-file=${at('out.wav')}`, '--vo=null', '--really-quiet'],
			...['--load-scripts=no', `--script=${at('parts.lua')}`, `--playlist=${at('list.m3u8')}`]
		]);
		expect(run.status).toBe(0);
		const bytes = new Uint8Array(readFileSync(at('out.wav')));
		const wav = readWav(bytes);
		if (!wav.ok) throw new Error('no WAV came of it');
		expect(wav.value.durationMs).toBeCloseTo(750 + 1000 + 2000 + 2000, -2);
		const samples = new DataView(bytes.buffer, bytes.length - (wav.value.durationMs! / 1000) * 48_000 * 2);
		const peakDb = (fromMs: number, untilMs: number): number => {
			let most = 1;
			for (let n = fromMs * 48; n < untilMs * 48; n++) most = Math.max(most, Math.abs(samples.getInt16(n * 2, true)));
			return 20 * Math.log10(most / 32_768);
		};
		expect(peakDb(100, 700)).toBeCloseTo(-18, 0);
		expect(peakDb(900, 1700)).toBeCloseTo(-12, 0);
		expect(peakDb(1900, 5600)).toBeCloseTo(-6, 0);
	} finally {
		rmSync(folder, { recursive: true });
	}
});
