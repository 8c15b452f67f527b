import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../demo/media';
import { demoWorkshop } from '../../../demo/workshop';
import { cardBytes, cardText } from '../files/cardBytes';
import { chain } from '../chain';
import { judges } from '../judges';
import { writers } from '../writers';
import { rehearsed } from '../rehearsals';
import { readAlsaConf } from '../formats/alsa/conf';
import { readMpvConf } from '../formats/mpv/conf';
import { readM3u } from '../formats/playlist';
import { readUnit } from '../formats/systemd/unit';
import { targetOf } from '../files/renamed';
import type { CardFile } from '../link/file';
import { planSchema, type Plan } from '../plan/plan';
import { assess } from './assess';
import { benchFor } from './benchFor';
import { contextFor } from './context';
import { derive } from './derive';
import { cardTree, type Bench } from './machine';
import { rehearse, type PlannedFault, type Rehearsal } from './rehearse';
import { write } from './write';
import { soundAtBestSec } from '../links/brief/soundAtBest';
import { heardIn } from '../links/sound/track';
import { inWords } from './say';
import { speaking } from '../speaking';

const START = Date.parse('2026-11-24T18:40:00Z');
const endpoint = (id: string) => demoWorkshop.endpoints.find((known) => known.id === id)!;
const lounge = endpoint('bunkhouse-lounge').plan;
const bench = endpoint('test-bench').plan;
const bytes = (plan: Plan) => demoMediaOf(plan.sources.items);
const filesOf = (id: string, plan: Plan): CardFile[] =>
	write(writers, plan, contextFor(chain, demoWorkshop, id), { mediaBytes: bytes(plan) });
const textOf = (files: readonly CardFile[], path: string): string => {
	const file = files.find((known) => known.path === `boot/yphos/root${path}`);
	if (!file || !('lines' in file)) throw new Error(`no ${path}`);
	return cardText(file);
};

interface Run {
	id?: string;
	plan?: Plan;
	faults?: PlannedFault[];
	forMs?: number;
	startUtcMs?: number;
	change?: (bench: Bench) => void;
}
function run({
	id = 'bunkhouse-lounge',
	plan = endpoint(id).plan,
	faults = [],
	forMs = 120_000,
	startUtcMs = START,
	change
}: Run = {}): Rehearsal {
	const context = contextFor(chain, demoWorkshop, id);
	const surroundings = structuredClone(benchFor(writers, plan, context));
	change?.(surroundings);
	return rehearse({
		links: rehearsed,
		card: cardTree(filesOf(id, plan)),
		bench: surroundings,
		startUtcMs,
		forMs,
		faults
	});
}
const ear = (result: Rehearsal) => result.tracks.find(({ id }) => id === 'ear')!;
const first = (result: Rehearsal) => heardIn(result.tracks)[0] ?? null;
const texts = (result: Rehearsal) => inWords(speaking, result.events).map(({ text }) => text);
const stateAt = (result: Rehearsal, atMs: number) =>
	ear(result).spans.find((span) => span.fromMs <= atMs && atMs < span.toMs)?.state;

describe('a plan that cannot be judged yet', () => {
	it('has its figures, and is not called well', () => {
		const { plan } = endpoint('bunkhouse-lounge');
		const bare = { ...plan, parts: { ...plan.parts, board: 'none' } };
		const context = contextFor(chain, demoWorkshop, 'bunkhouse-lounge');
		const before = assess(chain, bare, context);
		expect(before).toMatchObject({ pending: true, worst: null, findings: [] });
		const after = assess(judges, bare, context);
		expect(after).toMatchObject({ pending: false, worst: 'stop' });
		expect(after.links.map(({ figures }) => figures)).toEqual(before.links.map(({ figures }) => figures));
		// Both know the same of it, worked out once.
		expect(derive(judges, bare, context).claims).toBe(derive(chain, bare, context).claims);
	});
});

describe('the card set', () => {
	it('is the same to the byte for the same plan', () =>
		expect(filesOf('bunkhouse-lounge', lounge).map((f) => ('lines' in f ? cardText(f) : cardBytes(f).length))).toEqual(
			filesOf('bunkhouse-lounge', lounge).map((f) => ('lines' in f ? cardText(f) : cardBytes(f).length))
		));
	it('names for every line a setting that exists', () => {
		for (const { id, plan } of demoWorkshop.endpoints)
			for (const file of filesOf(id, plan))
				for (const setting of 'lines' in file ? file.lines.map((line) => line.setting) : [file.setting]) {
					const [link, key] = setting.split('.') as [keyof Plan, string?];
					expect(Object.keys(planSchema.shape)).toContain(link);
					if (key) expect(Object.keys(plan[link]), `${file.path}: ${setting}`).toContain(key);
				}
	});
	it('lists each placed file in apply.sh and each file in the manifest', () => {
		const files = filesOf('bunkhouse-lounge', lounge);
		const text = (path: string) =>
			cardText(files.find((f) => f.path === path) as Extract<CardFile, { lines: unknown }>);
		const listed = (JSON.parse(text('boot/yphos/manifest.json')) as { files: { path: string }[] }).files.map(
			(f) => `boot/yphos/${f.path}`
		);
		for (const file of files.filter((f) => f.path.startsWith('boot/yphos/') && !f.path.endsWith('manifest.json')))
			expect(listed).toContain(file.path);
		expect(text('boot/yphos/apply.sh').match(/^(?:on_fat \S+ )?place /gm)).toHaveLength(
			files.filter((f) => targetOf(f) !== null).length
		);
	});
	it('carries whatever a person can type exactly, or the plan refuses it', () => {
		const awkward = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 });
		const special = fc.constantFrom(
			'"',
			"'",
			'%',
			'$',
			'\\',
			'#',
			'\n',
			'\u{1f3b5}',
			'-x',
			';',
			'`',
			'%%n',
			'${A}',
			' lead',
			'trail ',
			'[x]',
			'#EXTM3U'
		);
		fc.assert(
			fc.property(
				fc.array(fc.oneof(awkward, special), { minLength: 1, maxLength: 3 }).map((parts) => parts.join('')),
				(typed) => {
					const parsed = planSchema.safeParse({
						...lounge,
						brief: { ...lounge.brief, name: typed },
						sound: { ...lounge.sound, mixerName: typed },
						sources: {
							...lounge.sources,
							items: [{ id: 'x', location: 'Night ferry.wav', title: typed, durationSec: null, extra: [], part: null }]
						}
					});
					if (!parsed.success) return void expect(parsed.error.issues[0]!.message).not.toBe('');
					const files = filesOf('bunkhouse-lounge', parsed.data);
					const list = readM3u(textOf(files, '/opt/yphos/playlist.m3u8'));
					expect(list.ok && list.value.entries.map((e) => e.title ?? '')).toEqual([typed.trim()]);
					const unit = readUnit(textOf(files, '/etc/systemd/system/yphos-player.service'));
					expect(unit.find((e) => e.key === 'Description')!.value.replaceAll('%%', '%')).toBe(
						`Plays for ${typed}`.trimEnd()
					);
					const heard = run({ plan: parsed.data, change: (b) => (b.soundCards[0]!.volume!.name = typed) });
					expect(first(heard)).not.toBeNull();
				}
			),
			{ numRuns: 40 }
		);
	});
	it('says the same in its files as the plan says', () => {
		const files = filesOf('bunkhouse-lounge', lounge);
		expect(readAlsaConf(textOf(files, '/etc/asound.conf'))).toMatchObject({
			ok: true,
			value: { pcm: { default: { type: 'plug', slave: { pcm: 'hw:CARD=Field24,DEV=0' } } } }
		});
		expect(
			Object.fromEntries(readMpvConf(textOf(files, '/etc/mpv/mpv.conf')).map((o) => [o.name, o.value]))
		).toMatchObject({ 'audio-device': 'alsa/hw:CARD=Field24,DEV=0', 'loop-playlist': 'inf', video: 'no' });
	});
});

describe('a rehearsal', () => {
	it('foretells rate, width, level and pitch from the files alone', () => {
		const result = run({ id: 'test-bench' });
		const { verdict } = result;
		// A sine at -12 dBFS peak has -15.05 dBFS RMS after 16 bit rounding; the plan takes 6 dB off.
		expect(first(result)!.heard).toMatchObject({
			sampleRateHz: 48_000,
			bitDepth: 16,
			treatment: 'resampled from 44.1\u2009kHz',
			rmsDbfs: expect.closeTo(-21.01, 1),
			pitchHz: expect.closeTo(440, 1)
		});
		expect(verdict).toBe('Sound after 9.2\u2009s: 48\u2009kHz, 16 bit, resampled from 44.1\u2009kHz');
	});
	it('is the same every time', () =>
		expect(run({ faults: [{ name: 'power-cut', atMs: 30_000 }] })).toEqual(
			run({ faults: [{ name: 'power-cut', atMs: 30_000 }] })
		));
	it.each([
		[
			'the converter has another name',
			(b: Bench) => (b.soundCards[0]!.cardId = 'Other'),
			'the sound card Field24 is not there'
		],
		['there is no converter at all', (b: Bench) => (b.soundCards = []), 'the sound card Field24 is not there'],
		['the amplifier is muted', (b: Bench) => (b.amplifier!.muted = true), 'the amplifier is muted'],
		[
			'its control has another name',
			(b: Bench) => (b.soundCards[0]!.volume!.name = 'PCM'),
			'the converter has no control "Master"'
		]
	])('is silent, and says why, when %s', (_, change, why) => {
		const result = run({ change });
		expect(first(result)).toBeNull();
		expect(result.verdict).toBe(`Silence: ${why}`);
	});
	it('knows that a card on the header has no iec958 way, and that a display output refuses plain samples', () => {
		const foghorn = endpoint('fog-horn-room').plan;
		const started = {
			...foghorn,
			parts: { ...foghorn.parts, supply: 'supply-5-2a5', lead: null },
			programme: { ...foghorn.programme, startAtBoot: true, rules: [], otherwise: 'all' as const },
			network: { ...foghorn.network, way: 'wired' as const }
		};
		const by = (door: 'hw' | 'iec958' | 'hdmi', parts = {}) =>
			run({
				id: 'fog-horn-room',
				plan: { ...started, parts: { ...started.parts, ...parts }, sound: { ...started.sound, cardFor: '', door } }
			});
		expect(by('iec958').verdict).toContain('no way iec958 to the card Opto');
		expect(first(by('hw'))).not.toBeNull();
		const display = { converter: 'conv-display', amplifier: null, speakers: null };
		expect(by('hw', display).verdict).toContain('refused by this output');
		expect(first(by('hdmi', display))).not.toBeNull();
	});
	it('a supply that is too weak browns out under load and restarts on the timeline', () => {
		const result = run({ id: 'fog-horn-room', plan: { ...endpoint('fog-horn-room').plan } });
		expect(first(result)).toBeNull();
		expect(texts(result).filter((text) => text.startsWith('Too little voltage')).length).toBeGreaterThan(2);
		expect(texts(result).filter((text) => text === 'The board tries again').length).toBeGreaterThan(2);
		const once = run({ faults: [{ name: 'supply-weak', atMs: 40_000, lastsMs: 5_000 }] });
		expect([35_000, 42_000, 75_000].map((ms) => stateAt(once, ms) === 'sound')).toEqual([true, false, true]);
	});
	it('two parts on one pin are not there: no sound card, no fan, and so too hot', () => {
		const lamp = endpoint('lamp-room').plan;
		const plan: Plan = { ...lamp, programme: { ...lamp.programme, rules: [], otherwise: 'all' } };
		const result = run({ id: 'lamp-room', plan, forMs: 3_600_000 });
		expect(result.verdict).toContain('Header192');
		expect(result.events.some(({ from, kind }) => from === 'header' && kind === 'bad')).toBe(true);
		expect(texts(result).some((text) => text.startsWith('Too hot: the board slows itself'))).toBe(true);
		expect(texts(result)).not.toContain('The fan begins to turn');
		const apart = {
			...plan,
			parts: { ...plan.parts, also: plan.parts.also.filter(({ part }) => part !== 'ladder-666') }
		};
		const alone = run({ id: 'lamp-room', plan: apart, forMs: 3_600_000 });
		expect(first(alone)).not.toBeNull();
		expect(texts(alone)).toContain('The fan begins to turn');
	});
	it('sound comes when the brief says that it can, on any board, with any converter, from file or stream', () => {
		const { plan } = endpoint('bunkhouse-lounge');
		const [file, stream] = [
			plan.sources.items[0]!,
			plan.sources.items.find(({ location }) => location.startsWith('http'))!
		];
		for (const board of ['board-small-512', 'board-full-1', 'board-full-4', 'board-fast-8'])
			for (const converter of ['conv-usb-96', 'conv-header-192'])
				for (const [items, waitForNetwork] of [
					[[file], false],
					[[stream], true],
					[[stream], false],
					[[file, stream], true]
				] as const) {
					const tried: Plan = {
						...plan,
						parts: { ...plan.parts, board, converter, supply: 'supply-5-5', also: [] },
						network: { ...plan.network, way: 'wired' },
						sources: { ...plan.sources, items: [...items], waitForNetwork },
						sound: { ...plan.sound, cardFor: '', volumeAt: 'player' }
					};
					const foretold = derive(chain, tried, contextFor(chain, demoWorkshop, 'bunkhouse-lounge'));
					const atMs = ear(run({ plan: tried })).spans.find(({ state }) => state === 'sound')?.fromMs;
					expect(
						Math.abs((atMs ?? Infinity) / 1000 - soundAtBestSec(foretold.context)!),
						`${board} ${converter} ${waitForNetwork}`
					).toBeLessThan(1.5);
				}
	});
	it('a hot box drops frames at the moment that the findings foretell', () => {
		const { plan } = endpoint('lamp-room');
		const apart = {
			...plan,
			brief: { ...plan.brief, video: { ...plan.brief.video!, codec: 'h265' as const } },
			parts: { ...plan.parts, also: [{ part: 'fan-5-switched', count: 1 }] },
			heat: { ...plan.heat, roomC: 44 }
		};
		const figure = assess(judges, apart, contextFor(chain, demoWorkshop, 'lamp-room'))
			.links.find(({ id }) => id === 'heat')!
			.figures.find(({ id }) => id === 'throttle')!;
		const slow = inWords(speaking, run({ id: 'lamp-room', plan: apart, forMs: 3_600_000 }).events).find(({ text }) =>
			text.startsWith('Too hot')
		)!;
		expect(slow.text).toMatch(/\d+\u2009% of the frames are dropped/);
		expect(slow.atMs / 1000 - figure.value!).toBeLessThan(30);
		const cool = { ...apart, heat: { ...apart.heat, place: 'room' as const, roomC: 27 } };
		expect(
			texts(run({ id: 'lamp-room', plan: cool, forMs: 3_600_000 })).some((text) => text.startsWith('Too hot'))
		).toBe(false);
		const stopped = run({
			id: 'lamp-room',
			plan: cool,
			forMs: 7_200_000,
			faults: [{ name: 'fan-stops', atMs: 600_000, lastsMs: 7_000_000 }]
		});
		expect(texts(stopped).some((text) => text.startsWith('Too hot'))).toBe(true);
	});
	it('a pulled converter silences it, and it comes back alone', () => {
		const result = run({ faults: [{ name: 'converter-unplugged', atMs: 40_000, lastsMs: 10_000 }] });
		expect([35_000, 45_000, 60_000].map((ms) => stateAt(result, ms))).toEqual(['sound', 'silence', 'sound']);
		expect(result.words[0]).toMatch(/it comes back by itself/);
	});
	it('a unit started before the kernel knows sound cards never gets at them, until it is started again', () => {
		const { plan } = endpoint('bunkhouse-lounge');
		const files = filesOf('bunkhouse-lounge', plan);
		const path = 'boot/yphos/root/etc/systemd/system/yphos-player.service';
		const card = new Map(cardTree(files));
		const text = card.get(path)!.text;
		const without = text.replace(/^(?:After|Wants)=modprobe@snd\.service\n/gm, '');
		expect(without.length).toBeLessThan(text.length);
		const apply = card.get('boot/yphos/apply.sh')!;
		card.set(path, { text: without, bytes: null });
		const digest = (of: string): string => createHash('sha256').update(of).digest('hex');
		card.set('boot/yphos/apply.sh', { ...apply, text: apply.text.replace(digest(text), digest(without)) });
		const bench = benchFor(writers, plan, contextFor(chain, demoWorkshop, 'bunkhouse-lounge'));
		const run = (tree: typeof card) =>
			ear(
				rehearse({
					links: rehearsed,
					card: tree,
					bench,
					startUtcMs: Date.parse('2026-11-24T18:40:00Z'),
					forMs: 120_000,
					faults: []
				})
			).spans.find(({ state }) => state === 'sound')?.fromMs;
		const [early, late] = [run(new Map(cardTree(files))), run(card)];
		// Half a minute of waiting in vain, and a new start.
		expect(late! - early!).toBeGreaterThan(28_000);
		expect(late! - early!).toBeLessThan(40_000);
	});
	it('a power cut starts everything again', () => {
		const result = run({ faults: [{ name: 'power-cut', atMs: 40_000, lastsMs: 5_000 }] });
		expect([39_000, 42_000, 46_000, 70_000].map((ms) => stateAt(result, ms))).toEqual([
			'sound',
			'off',
			'silence',
			'sound'
		]);
	});
	it('a refused stream is passed over, or waited for when there is nothing else', () => {
		const only = (locations: string[]): Plan => ({
			...lounge,
			sources: {
				...lounge.sources,
				items: locations.map((location, n) => ({
					id: String(n),
					location,
					title: location,
					durationSec: null,
					extra: [],
					part: null
				}))
			}
		});
		const stream = 'http://radio.skerrin.example:8000/harbour';
		const refuse = (b: Bench) => b.streams.forEach((s) => (s.state = 'refuses'));
		expect(first(run({ plan: only([stream, 'Night ferry.wav']), change: refuse }))!.heard.title).toBe(
			'Night ferry.wav'
		);
		expect(run({ plan: only([stream]), change: refuse }).verdict).toBe('Silence: none of the sources can be played');
		const later = run({ plan: only([stream]), faults: [{ name: 'stream-refuses', atMs: 0, lastsMs: 50_000 }] });
		expect(first(later)!.atMs).toBeGreaterThan(50_000);
	});
	it('a late network delays what waits for it, and only that', () => {
		const late: PlannedFault[] = [{ name: 'network-late', atMs: 0, lastsMs: 60_000 }];
		const waiting = { ...lounge, sources: { ...lounge.sources, waitForNetwork: true } };
		expect(first(run({ plan: waiting, faults: late }))!.atMs).toBeGreaterThan(60_000);
		expect(first(run({ plan: lounge, faults: late }))!.atMs).toBeLessThan(15_000);
	});
	it('keeps quiet hours over a whole day, through a power cut within them', () => {
		const day = run({ forMs: 86_400_000, faults: [{ name: 'power-cut', atMs: 6 * 3_600_000 }] });
		// 18:40 UTC in November is 18:40 on the Faroes: quiet from 22:00 (3 h 20 min on) to 07:00 (12 h 20 min on).
		const hour = 3_600_000;
		expect([3.2, 3.5, 6.1, 12.2, 12.5].map((h) => stateAt(day, h * hour))).toEqual([
			'sound',
			'quiet',
			'quiet',
			'quiet',
			'sound'
		]);
	});
	it('a plan without a stop always sounds on its own bench', () => {
		const change = fc.record({
			travel: fc.constantFrom('follow', 'fixed', 'shared'),
			volumeAt: fc.constantFrom('fixed', 'player', 'converter'),
			volumeDb: fc.integer({ min: -40, max: 0 }),
			fixedRateHz: fc.constantFrom(44_100, 48_000, 96_000),
			cardId: fc.constantFrom('Field24', 'A-b_9', '')
		});
		fc.assert(
			fc.property(change, fc.boolean(), fc.constantFrom('list', 'one', 'once'), (sound, waitForNetwork, loop) => {
				const plan: Plan = {
					...lounge,
					sound: { ...lounge.sound, ...sound } as Plan['sound'],
					sources: { ...lounge.sources, waitForNetwork },
					programme: { ...lounge.programme, loop: loop as 'list', quiet: [] }
				};
				if (assess(judges, plan, contextFor(chain, demoWorkshop, 'bunkhouse-lounge')).worst === 'stop') return;
				expect(first(run({ plan }))).not.toBeNull();
			}),
			{ numRuns: 60 }
		);
	});
	it('the bench tone plays its list again and again without a gap that is noticed', () =>
		expect(ear(run({ id: 'test-bench', plan: bench })).spans.filter((s) => s.state === 'sound')).toHaveLength(1));
});
