import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../demo/media';
import { plainHatchWorkshop as demoWorkshop } from '../../../../demo/plainHatch';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { writers } from '../../writers';
import { rehearsed } from '../../rehearsals';
import { assess } from '../../engines/assess';
import { benchFor } from '../../engines/benchFor';
import { contextFor } from '../../engines/context';
import { cardTree, type Bench } from '../../engines/machine';
import { rehearse, type PlannedFault } from '../../engines/rehearse';
import { inWords } from '../../engines/say';
import { speaking } from '../../speaking';
import { write } from '../../engines/write';
import { readVideoArgument } from '../../formats/boot/kernelLine';
import type { Plan } from '../../plan/plan';
import { hungEdges, type Edges } from '../../standards/edges';
import { kernelVideo, SIDES } from './edges/overscan';
import { placed, type Seen } from './seen';
import type { PictureSettings } from './settings';
import { TURNS } from './edges/touch';

const film = demoWorkshop.endpoints.find(({ id }) => id === 'lamp-room')!;
const hatch = demoWorkshop.endpoints.find(({ id }) => id === 'ticket-hatch')!;

/** What is seen of a plan, on a bench of its own. */
function run(
	id: string,
	plan: Plan,
	{
		screen = {},
		decoding,
		faults = [],
		kernelWord = ''
	}: {
		screen?: Partial<NonNullable<Bench['screen']>>;
		decoding?: Bench['decoding'];
		faults?: PlannedFault[];
		kernelWord?: string;
	} = {}
) {
	const context = contextFor(chain, demoWorkshop, id);
	const bench = benchFor(writers, plan, context);
	const mediaBytes = demoMediaOf(plan.sources.items);
	const card = cardTree(write(writers, plan, context, { mediaBytes }));
	const line = card.get('boot/cmdline.txt')!;
	const result = rehearse({
		links: rehearsed,
		card: kernelWord
			? new Map([...card, ['boot/cmdline.txt', { ...line, text: `${line.text.trim()} ${kernelWord}\n` }]])
			: card,
		bench: {
			...bench,
			screen: { ...bench.screen!, ...screen },
			...(decoding === undefined ? {} : { decoding })
		},
		startUtcMs: Date.UTC(2026, 10, 26, 9),
		forMs: 150_000,
		faults
	});
	const eye = result.tracks.find((track) => track.id === 'eye')!;
	return {
		eye,
		words: result.words,
		texts: inWords(speaking, result.events).map(({ text }) => text),
		seen: eye.marks[0]?.data as Seen | undefined
	};
}
const withPicture = (from: Plan, change: Partial<PictureSettings>, more: Partial<Plan> = {}): Plan => ({
	...from,
	...more,
	card: { ...from.card, bootStyle: 'cmdline', bootText: 'console=tty1 root=/dev/x rootwait' },
	picture: { ...from.picture, hours: null, ...change }
});
/** The film on a good way: an ordinary television at the digital output, which shows the whole picture and takes 50 Hz. */
const goodFilm = (change: Partial<PictureSettings> = {}): Plan =>
	withPicture(
		{ ...film.plan, programme: { ...film.plan.programme, rules: [], otherwise: 'all' } },
		{ connector: 'HDMI-A-1', mode: null, ranges: null, controls: [], writesEdid: true, wholePicture: 'on', ...change },
		{
			parts: {
				...film.plan.parts,
				screen: 'screen-1080-cuts',
				converter: null,
				amplifier: null,
				speakers: null,
				also: []
			},
			sound: { ...film.plan.sound, used: false }
		}
	);
const mode = (milliHz: number): PictureSettings['mode'] => ({
	widthPx: 1920,
	heightPx: 1080,
	milliHz,
	interlaced: false
});

describe('a film in the rehearsal', () => {
	it('of 25 frames is whole on 50 Hz, and stutters on 60 by as many slips as the eye counts', () => {
		expect(run('lamp-room', goodFilm({ mode: mode(50_000) })).eye.verdict?.good).toBe(true);
		const { eye, seen } = run('lamp-room', goodFilm({ mode: mode(60_000) }));
		expect(eye.verdict?.good).toBe(false);
		// 25 frames on 60 refreshes: of each five frames three stand for two and two for three.
		let slips = 0;
		for (let frame = 1; frame < 25; frame++) {
			const stands = (n: number): number => Math.floor(((n + 1) * 60) / 25) - Math.floor((n * 60) / 25);
			if (stands(frame) !== stands(frame - 1)) slips++;
		}
		expect(seen!.slipsPerSec).toBeGreaterThan(0);
		expect(seen!.slipsPerSec).toBeLessThanOrEqual(slips + 1);
	});
	it('that the processor could not manage is decoded by circuit, however it is drawn', () => {
		const decoders = [
			{ codec: 'h264' as const, widthPx: 1920, heightPx: 1080, framesPerSec: 60, bitDepth: 8 as const }
		];
		for (const draws of ['gpu', 'plain'] as const) {
			const good = goodFilm({ mode: mode(50_000), draws });
			const video = { ...good.brief.video!, codec: 'h264' as const };
			const plan = { ...good, brief: { ...good.brief, video } };
			const { seen, words } = run('lamp-room', plan, { decoding: { decoders, softwareMpixPerSec: 5 } });
			expect(seen?.shownFps, draws).toBe(25);
			expect(words.join()).toContain('use the circuit that decodes films');
		}
	});
	it('that the board decodes too slowly drops frames, by as many as it lacks', () => {
		const plan = goodFilm({ mode: mode(50_000) });
		const { seen, texts } = run('lamp-room', plan, { decoding: { decoders: [], softwareMpixPerSec: 1 } });
		expect(seen!.shownFps!).toBeLessThan(25);
		expect(texts.some((text) => /Only \d+ of 25 frames a second/.test(text))).toBe(true);
		expect(run('lamp-room', plan, { decoding: { decoders: [], softwareMpixPerSec: 1000 } }).seen!.shownFps).toBe(25);
	});
	it('leaves a gap at its seam, the smaller where the file stays open', () => {
		const context = contextFor(chain, demoWorkshop, 'lamp-room');
		const [first] = film.plan.sources.items;
		const gap = (loop: 'list' | 'one' | 'once', listed: number): number | null => {
			const items = Array.from({ length: listed }, (_, n) => ({ ...first!, id: `s${n}` }));
			const plan = { ...goodFilm(), programme: { ...film.plan.programme, loop } };
			const { links } = assess(judges, { ...plan, sources: { ...plan.sources, items } }, context);
			const figures = links.find(({ id }) => id === 'picture')!.figures;
			return figures.find(({ id }) => id === 'gap')?.value ?? null;
		};
		expect(gap('once', 1)).toBeNull();
		expect(gap('list', 0)).toBeNull();
		expect(gap('one', 1)!).toBeLessThan(gap('list', 3)!);
		expect(gap('list', 3)!).toBeLessThan(gap('list', 1)!);
	});
});

describe('faults of a screen', () => {
	const states = (plan: Plan, name: string, lastsMs: number): string[] => [
		...new Set(run('ticket-hatch', plan, { faults: [{ name, atMs: 0, lastsMs }] }).eye.spans.map(({ state }) => state))
	];
	it('an EDID that comes late costs the picture where the card brings none', () => {
		const bare = withPicture(hatch.plan, { writesEdid: false, mode: mode(50_000) });
		const late = run('ticket-hatch', bare, { faults: [{ name: 'edid-late', atMs: 0, lastsMs: 150_000 }] });
		expect(late.texts.some((text) => text.startsWith('The screen says nothing of itself'))).toBe(true);
		expect(states(withPicture(hatch.plan, {}), 'edid-late', 150_000)).toContain('picture');
	});
	it('another screen does not take the mode of the first, and the first shows it again', () => {
		const { eye, texts } = run('ticket-hatch', withPicture(hatch.plan, {}), {
			faults: [{ name: 'other-screen', atMs: 90_000, lastsMs: 20_000 }]
		});
		expect(texts.some((text) => text.startsWith('The screen does not take 1920 × 1080'))).toBe(true);
		expect(eye.spans.find(({ fromMs, toMs }) => fromMs <= 100_000 && toMs > 100_000)?.state).toBe('wrong');
		expect(eye.spans.at(-1)?.state).toBe('picture');
	});
	it('margins that the kernel keeps beside those of the player are seen', () => {
		const kernelWord = 'video=HDMI-A-1:1920x1080@60D,margin_left=40';
		const { eye, texts } = run('ticket-hatch', withPicture(hatch.plan, {}), { kernelWord });
		expect(eye.verdict).toMatchObject({ good: false });
		expect(texts.join()).toContain('left free twice');
	});
	it('margins that the kernel keeps are taken on trust, and that is said', () => {
		const { words, seen } = run('ticket-hatch', withPicture(hatch.plan, { edgesBy: 'kernel' }));
		expect(words.join()).toContain('driver knows margins');
		expect(seen!.cutPercent).toBeLessThan(0.05);
	});
});

describe('edges and turns', () => {
	const px = fc.integer({ min: 0, max: 400 });
	const edges: fc.Arbitrary<Edges> = fc.record({ left: px, right: px, top: px, bottom: px });
	it('of a set that hangs turned are those that a turned rectangle has', () => {
		fc.assert(
			fc.property(edges, fc.constantFrom(...TURNS), (cut, turn) => {
				const [w, h] = [1920, 1080];
				const corners = [
					[cut.left, cut.top],
					[w - cut.right, h - cut.bottom]
				] as const;
				// A picture turned clockwise on its panel is upright where the panel hangs turned back by as much.
				const hung = corners.map(([x, y]) => {
					switch (turn) {
						case 0:
							return [x, y];
						case 90:
							return [y, w - x];
						case 180:
							return [w - x, h - y];
						case 270:
							return [h - y, x];
					}
				}) as [number, number][];
				const [W, H] = turn % 180 === 0 ? [w, h] : [h, w];
				const xs = hung.map(([x]) => x);
				const ys = hung.map(([, y]) => y);
				expect(hungEdges(cut, turn)).toEqual({
					left: Math.min(...xs),
					right: W - Math.max(...xs),
					top: Math.min(...ys),
					bottom: H - Math.max(...ys)
				});
			})
		);
	});
	it('go through the kernel\u2019s own argument and back', () => {
		fc.assert(
			fc.property(
				edges,
				fc.boolean(),
				fc.boolean(),
				fc.integer({ min: 24, max: 120 }),
				(cut, forced, interlaced, hz) => {
					const size = { widthPx: 1920, heightPx: 1080 };
					const written = kernelVideo({
						connector: 'HDMI-A-2',
						mode: { ...size, refreshHz: hz, interlaced },
						edges: cut,
						forced
					});
					const read = readVideoArgument(`video=${written}`);
					expect(read).toMatchObject({ connector: 'HDMI-A-2', mode: { ...size, refreshHz: hz, interlaced }, forced });
					for (const side of SIDES) expect(read!.margins[side]).toBe(cut[side]);
				}
			)
		);
	});
	it('a picture keeps its shape within any margins, touches two of them, and is in the middle of the rest', () => {
		const part = fc.double({ min: 0, max: 0.3, noNaN: true });
		fc.assert(
			fc.property(part, part, part, part, fc.constantFrom(...TURNS), (left, right, top, bottom, turnDeg) => {
				const screen = { widthPx: 1920, heightPx: 1080 };
				const picture = { widthPx: 1280, heightPx: 720 };
				const area = placed(picture, screen, { turnDeg, margins: { left, right, top, bottom }, stretches: false });
				const width = (area.right - area.left) * 1920;
				const height = (area.bottom - area.top) * 1080;
				const shape = turnDeg % 180 === 0 ? 16 / 9 : 9 / 16;
				expect(width / height).toBeCloseTo(shape, 1);
				const spare = [area.left - left, 1 - right - area.right, area.top - top, 1 - bottom - area.bottom];
				for (const one of spare) expect(one).toBeGreaterThan(-0.002);
				expect(Math.min(spare[0]! + spare[1]!, spare[2]! + spare[3]!)).toBeLessThan(0.004);
				expect(Math.abs(spare[0]! - spare[1]!)).toBeLessThan(0.004);
			})
		);
	});
});
