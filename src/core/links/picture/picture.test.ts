import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoMediaBytes, demoMediaOf } from '../../../../demo/media';
import { demoMedia } from '../../../../demo/facts';
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
import { paint, writePng, writeSvg } from '../../formats/drawing';
import { writeEdid, toBase64, type Edid } from '../../formats/edid';
import type { CardFile } from '../../link/file';
import type { Plan } from '../../plan/plan';
import { dmtById } from '../../standards/dmtTable';
import { vicTiming } from '../../standards/vicTable';
import { refreshHzOf } from '../../standards/videoTiming';
import { cadenceWords, computeCadence, readRate, repeatsOf, slipsASecond, stutters } from './modes/cadence';
import { TEST_CARDS } from './edges/cards';
import { kernelModes, playerChoice, whyNotTaken } from './modes/display';
import { readVideoArgument } from '../../formats/boot/kernelLine';
import { computeLevels, computeTolerance } from './edges/ladder';
import { heightFor, readableFrom } from '../../standards/legibility';
import { rankModes, type ModeQuestion } from './modes/modes';
import { activeArea, kernelVideo, NO_EDGES, questionEdges } from './edges/overscan';
import { cutPercent, placed, type Seen } from './seen';
import { matrixForContent, touchMatrix, turnPoint, TURNS } from './edges/touch';

const rate = (label: string) => {
	const read = readRate(label);
	if (!read.ok) throw new Error(label);
	return read.value;
};
const hatch = demoWorkshop.endpoints.find(({ id }) => id === 'ticket-hatch')!;
const context = contextFor(chain, demoWorkshop, 'ticket-hatch');
/** With the kernel's line known, so that arguments get there. */
const withPicture = (change: Partial<Plan['picture']> = {}, more: Partial<Plan> = {}): Plan => ({
	...hatch.plan,
	card: { ...hatch.plan.card, bootStyle: 'cmdline', bootText: 'console=tty1 root=/dev/x rootwait' },
	picture: { ...hatch.plan.picture, hours: null, ...change },
	...more
});
const filesOf = (plan: Plan): CardFile[] =>
	write(writers, plan, context, {
		mediaBytes: demoMediaOf(plan.sources.items)
	});
const textOf = (plan: Plan, end: string): string => {
	const file = filesOf(plan).find(({ path }) => path.endsWith(end));
	return file && 'lines' in file ? file.lines.map(({ text }) => text).join('\n') : '';
};
const run = (plan: Plan, { bench = {}, faults = [] }: { bench?: Partial<Bench>; faults?: PlannedFault[] } = {}) => {
	const result = rehearse({
		links: rehearsed,
		card: cardTree(filesOf(plan)),
		bench: { ...benchFor(writers, plan, context), ...bench },
		startUtcMs: Date.UTC(2026, 10, 26, 9),
		forMs: 150_000,
		faults
	});
	const eye = result.tracks.find(({ id }) => id === 'eye')!;
	return {
		eye,
		texts: inWords(speaking, result.events).map(({ text }) => text),
		seen: eye.marks[0]?.data as Seen | undefined
	};
};
const idsOf = (plan: Plan): string[] => assess(judges, plan, context).findings.map(({ id }) => id);

describe('frames on refreshes', () => {
	it.each([
		['25', '50', true, null],
		['24', '60', false, 1 / 12],
		['23.976', '24', false, 41.708],
		['30', '60', true, null],
		['60', '30', false, null]
	])('%s on %s', (content, display, even, seconds) => {
		const cadence = computeCadence(rate(content), rate(display));
		expect(cadence.even).toBe(even);
		if (seconds === null) expect(cadence.irregularSeconds).toBeNull();
		else expect(cadence.irregularSeconds).toBeCloseTo(seconds, 3);
	});
	it('agree with counting refreshes one by one', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 120 }), fc.integer({ min: 1, max: 120 }), (fps, hz) => {
				const counted = Array<number>(fps).fill(0);
				for (let j = 0; j < hz; j++) counted[Math.floor((j * fps) / hz)]!++;
				expect(repeatsOf({ num: fps, den: 1 }, { num: hz, den: 1 }, fps)).toEqual(counted);
			})
		);
	});
	it('names of rates are read exactly, or refused', () => {
		expect(rate('23.976')).toEqual({ num: 24_000, den: 1001 });
		expect(rate('59.94')).toEqual({ num: 60_000, den: 1001 });
		expect(rate('12.5')).toEqual({ num: 25, den: 2 });
		for (const bad of ['', '0', '-5', 'fast', '1e3']) expect(readRate(bad).ok, bad).toBe(false);
	});
});

describe('edges', () => {
	const size = { widthPx: 1920, heightPx: 1080 };
	it('leave what is between them, and keep their order for the kernel', () => {
		const edges = { left: 48, right: 44, top: 26, bottom: 28 };
		expect(activeArea(size, edges)).toMatchObject({ widthPx: 1828, heightPx: 1026, leftPx: 48, topPx: 26 });
		const video = { connector: 'HDMI-A-1', mode: { ...size, refreshHz: 50, interlaced: false }, edges, forced: true };
		const written = kernelVideo(video);
		expect(written).toBe('HDMI-A-1:1920x1080@50D,margin_left=48,margin_right=44,margin_top=26,margin_bottom=28');
		expect(readVideoArgument(`video=${written}`)).toMatchObject({
			connector: 'HDMI-A-1',
			mode: { refreshHz: 50 },
			forced: true,
			margins: edges
		});
		const alone = kernelVideo({ ...video, mode: null });
		expect(alone).toBe('HDMI-A-1:D,margin_left=48,margin_right=44,margin_top=26,margin_bottom=28');
		expect(readVideoArgument(`video=${alone}`)).toMatchObject({ mode: null, forced: true, margins: edges });
		const margins = kernelVideo({ ...video, mode: null, forced: false });
		expect(readVideoArgument(`video=${margins}`)).toMatchObject({ mode: null, forced: false, margins: edges });
		expect(kernelVideo({ connector: 'HDMI-A-1', mode: null })).toBeNull();
		for (const none of ['video=HDMI-A-1:', 'video=vga16fb', 'video=HDMI-A-1:1920', 'vide=1x1'])
			expect(readVideoArgument(none), none).toBeNull();
	});
	it.each([
		['impossible', { left: 1000, right: 1000, top: 0, bottom: 0 }],
		['much', { left: 480, right: 40, top: 20, bottom: 20 }],
		['uneven', { left: 100, right: 4, top: 20, bottom: 22 }],
		['shape', { left: 60, right: 60, top: 0, bottom: 0 }]
	])('a reading that is %s is asked about', (code, edges) => {
		expect(questionEdges(size, edges).map((fault) => fault.code)).toContain(code);
	});
	it('an even reading is not', () =>
		expect(questionEdges(size, { left: 48, right: 46, top: 27, bottom: 26 })).toEqual([]));
});

describe('a resistor ladder', () => {
	it('is no worse than every corner of its tolerance tried, and no better', () => {
		const odd = fc.integer({ min: 100, max: 20_000 });
		fc.assert(
			fc.property(fc.array(odd, { minLength: 1, maxLength: 5 }), fc.integer({ min: 0, max: 10 }), (ohms, percent) => {
				const ladder = { resistorsOhm: ohms, logicV: 3.3, loadOhm: 75 };
				let worst = Infinity;
				for (let corner = 0; corner < 2 ** ohms.length; corner++) {
					const tried = ohms.map((ohm, n) => ohm * (1 + ((corner >> n) & 1 ? percent : -percent) / 100));
					worst = Math.min(worst, computeLevels({ ...ladder, resistorsOhm: tried }).smallestStepV);
				}
				expect(computeTolerance(ladder, percent).worstStepV).toBeCloseTo(worst, 9);
			})
		);
	});
});

describe('what can be read', () => {
	it('is the height of an angle, and the distance is its inverse', () => {
		const panel = { diagonalIn: 40, aspectWidth: 16, aspectHeight: 9 };
		const { heightPx } = heightFor(panel, 1080, 5, 20);
		expect(readableFrom(panel, 1080, heightPx, 20)).toBeCloseTo(5, 9);
	});
	it('touches are turned back by as much as the picture is turned', () => {
		for (const turn of TURNS) {
			const there = turnPoint(touchMatrix(turn), 0.2, 0.7);
			const back = turnPoint(matrixForContent(turn), there.x, there.y);
			expect([back.x, back.y].map((value) => Number(value.toFixed(9)))).toEqual([0.2, 0.7]);
		}
	});
});

describe('modes', () => {
	const question: ModeQuestion = {
		edid: null,
		ranges: null,
		panel: { widthPx: 1920, heightPx: 1080, refreshHz: 60 },
		screen: 'the set',
		hurdles: [{ what: 'a cable', maxPixelClockMhz: 340 }],
		content: rate('25'),
		toldBy: 'screen' as const
	};
	const best = (change: Partial<ModeQuestion>) => rankModes({ ...question, ...change })[0]!;
	const timings = [31, 16, 4].map((vic) => vicTiming(vic)!.timing);
	const edid = {
		modes: timings.map((timing, n) => ({ timing, vic: [31, 16, 4][n]!, from: 'vic' })),
		preferred: timings[1]
	} as unknown as Edid;
	it('fit panel and film first where the screen says what it has', () => {
		expect(best({ edid }).timing).toEqual(vicTiming(31)!.timing);
		expect(best({ edid, content: null }).timing.pixelClockKhz).toBe(148_500);
		expect(best({ edid, content: rate('24') }).timing.widthPx).toBe(1920);
		// A brother of 60 Hz that is in the kernel's list, not in the screen's own.
		expect(refreshHzOf(best({ edid, content: rate('29.97') }).timing)).toBeCloseTo(59.94, 3);
	});
	it('of a screen that nobody has asked are those of its size at 60 Hz and near it, and only its own is certain', () => {
		const ranked = rankModes(question);
		expect(ranked.map(({ timing, certain }) => [Number(refreshHzOf(timing).toFixed(2)), certain])).toEqual([
			[60, true],
			[50, false],
			[59.94, false]
		]);
		const large = rankModes({ ...question, panel: { widthPx: 3840, heightPx: 2160, refreshHz: 60 } });
		expect(large[0]).toMatchObject({ certain: true, timing: { widthPx: 1920 } });
		for (const { timing } of large) expect([3840, 1920]).toContain(timing.widthPx);
	});
	it('that show every second frame only are not even', () => {
		const half = { ...vicTiming(16)!.timing, pixelClockKhz: 74_250 };
		const cadence = computeCadence(rate('60'), { num: 30, den: 1 });
		expect([stutters(cadence), slipsASecond(cadence), cadenceWords(cadence)]).toEqual([
			true,
			30,
			'1 of 2 frames never shown'
		]);
		const both = { modes: [half, vicTiming(4)!.timing].map((timing) => ({ timing, from: 'detailed' })) };
		expect(best({ edid: both as unknown as Edid, content: rate('60') }).reasons.join()).toContain('every frame');
	});
	it('that a part on the way does not pass stand last, with by how much and why', () => {
		const ranked = rankModes({ ...question, edid, hurdles: [{ what: 'a thin cable', maxPixelClockMhz: 80 }] });
		expect(ranked[0]!.timing.pixelClockKhz).toBeLessThanOrEqual(80_000);
		const refused = ranked.find(({ timing }) => timing === vicTiming(31)!.timing)!;
		expect(refused.refused[0]).toContain('a thin cable ends at 80');
		expect(refused.refused[0]).toContain('68.5 too few');
	});
	it('are refused by what they exceed, however little, and by nothing else', () => {
		const all = kernelModes(null, readVideoArgument('video=HDMI-A-1:1920x1080M@50')).modes;
		const many = { modes: [...all, ...timings].map((timing) => ({ timing, from: 'detailed' })) } as unknown as Edid;
		for (const maxPixelClockMhz of [25, 60, 74.25, 80, 135, 148.5])
			for (const { timing, refused } of rankModes({
				...question,
				edid: many,
				hurdles: [{ what: 'a cable', maxPixelClockMhz }]
			}))
				expect([timing.pixelClockKhz, refused.length]).toEqual([
					timing.pixelClockKhz,
					timing.pixelClockKhz / 1000 > maxPixelClockMhz ? 1 : 0
				]);
	});
	it('that are too large in one direction are refused where the screen says nothing of itself', () => {
		const ranges = { hMinKhz: 30, hMaxKhz: 90, vMinHz: 50, vMaxHz: 80 };
		for (const [widthPx, heightPx] of [
			[1280, 960],
			[1366, 1080],
			[1680, 1200],
			[1024, 600]
		] as const)
			for (const { timing, refused } of rankModes({ ...question, ranges, panel: { widthPx, heightPx, refreshHz: 60 } }))
				expect([timing, refused.some((why) => why.includes('pixels'))]).toEqual([
					timing,
					timing.widthPx > widthPx || timing.heightPx > heightPx
				]);
	});
	it('of an old monitor lie within its label', () => {
		const panel = { widthPx: 1024, heightPx: 768, refreshHz: 60 };
		const ranges = { hMinKhz: 30, hMaxKhz: 50, vMinHz: 55, vMaxHz: 76 };
		for (const { timing, refused } of rankModes({ ...question, panel, ranges }))
			if (refused.length === 0) expect(timing.pixelClockKhz / timing.hTotal).toBeLessThanOrEqual(50.5);
	});
});

describe('the kernel and the player', () => {
	const listed = kernelModes(null, readVideoArgument('video=HDMI-A-1:1920x1080M@50'));
	it('add what the argument asks for to a list without it', () => {
		expect(listed.modes).toHaveLength(6);
		expect(listed.console).toMatchObject({ widthPx: 1920, heightPx: 1080 });
		// No screen prefers it: the player’s own "preferred" is then the first of the list.
		expect(listed.preferred).toBeNull();
		expect(playerChoice('preferred', listed)).toBe(listed.modes[0]);
		// Of no list, and with a rate that only the kernel knows: by its size it is found.
		expect(playerChoice('1920x1080', listed)).toMatchObject({ widthPx: 1920 });
		expect(playerChoice('1920x1080@49.93', listed)).toBeTypeOf('string');
	});
	it('the player refuses a rate that differs in its second place', () => {
		expect(playerChoice('1024x768@60.00', listed)).toEqual(dmtById(0x10)!.timing);
		expect(playerChoice('1024x768@60.01', listed)).toBeTypeOf('string');
		expect(playerChoice('1280x720', listed)).toBeTypeOf('string');
	});
});

describe('a picture within margins', () => {
	it('is as large as fits, in the middle: as measured on a real start', () => {
		const margins = { left: 0.05, right: 0.1, top: 0.03, bottom: 0.08 };
		const area = placed(
			{ widthPx: 1280, heightPx: 720 },
			{ widthPx: 1280, heightPx: 720 },
			{ turnDeg: 0, margins, stretches: false }
		);
		expect(Math.round(area.left * 1280)).toBe(64);
		expect(Math.round(area.top * 720)).toBe(36);
		expect(Math.round((area.right - area.left) * 1280)).toBe(1088);
		expect(Math.round((area.bottom - area.top) * 720)).toBe(612);
	});
	it('loses nothing within what the set shows, and a share outside', () => {
		const whole = { left: 0, top: 0, right: 1, bottom: 1 };
		expect(cutPercent({ left: 0.1, top: 0.1, right: 0.9, bottom: 0.9 }, whole)).toBe(0);
		expect(cutPercent(whole, { left: 0.05, top: 0, right: 0.95, bottom: 1 })).toBeCloseTo(10, 9);
	});
});

describe('test cards', () => {
	it('are the same as SVG and PNG, at the mode\u2019s own size', () => {
		for (const card of TEST_CARDS) {
			const drawing = card.draw({ widthPx: 640, heightPx: 360 }, NO_EDGES);
			expect(writeSvg(drawing)).toContain('width="640" height="360"');
			const { pixels, palette } = paint(drawing);
			expect(pixels).toHaveLength(640 * 360);
			expect(palette.length).toBeLessThanOrEqual(256);
			expect([...writePng(drawing).subarray(1, 4)]).toEqual([0x50, 0x4e, 0x47]);
		}
	});
	it('have numbers that begin exactly so many pixels from their edge', () => {
		const { shapes } = TEST_CARDS[0]!.draw({ widthPx: 1920, heightPx: 1080 }, NO_EDGES);
		const boxes = shapes.filter((shape) => shape.kind === 'box' && shape.height > 30 && shape.width > 60);
		const lefts = boxes.flatMap((shape) =>
			shape.kind === 'box' && shape.x < 200 && shape.y > 100 && shape.y < 980 ? [shape.x] : []
		);
		expect(lefts.slice(0, 4)).toEqual([0, 10, 20, 30]);
	});
});

describe('the card set of the hatch', () => {
	it('says the same mode, turn and margins to the kernel and to the player', () => {
		const conf = textOf(withPicture(), 'mpv.conf');
		const kernel = textOf(withPicture(), 'cmdline.txt');
		expect(kernel).toContain('video=HDMI-A-1:1920x1080@60D');
		expect(kernel).toContain('drm.edid_firmware=HDMI-A-1:edid/yphos.bin');
		expect(kernel).toContain('fbcon=rotate:1');
		expect(conf).toContain('drm-mode=1920x1080@60.00');
		expect(conf).toContain('video-rotate=90');
		expect(conf).toContain('video-margin-ratio-left=0.025');
		const byKernel = withPicture({ edgesBy: 'kernel' });
		expect(textOf(byKernel, 'cmdline.txt')).toContain('margin_left=48');
		expect(textOf(byKernel, 'mpv.conf')).not.toContain('video-margin');
	});
	it('turns touches with the picture, and starts the player anew when a screen comes', () => {
		const plan = withPicture({ whenOff: 'restart' }, { parts: { ...hatch.plan.parts, screen: 'screen-touch-10' } });
		expect(textOf(plan, '61-yphos-touch.rules')).toContain('LIBINPUT_CALIBRATION_MATRIX}="0 1 0 -1 0 1"');
		expect(textOf(plan, '60-yphos-screen.rules')).toContain('try-restart yphos-player.service');
	});
	it('is seen whole and upright', () => {
		const { eye, seen } = run(withPicture());
		expect(eye.verdict).toMatchObject({ good: true });
		expect(seen!.turnedDeg).toBe(0);
		expect(seen!.cutPercent).toBeLessThan(0.05);
	});
	it.each([
		['cut where no margins are kept', { edges: NO_EDGES }, {}, /cuts .* of the picture off/],
		['turned where the set hangs another way', {}, { hangsDeg: 0 }, /stands turned by 90°/],
		['dark where the cable ends below the mode', {}, { wayMhz: 100 }, /does not take 1920 × 1080/],
		[
			'dark where the connector is another',
			{ connector: 'HDMI-A-2' },
			{ connector: 'HDMI-A-1' },
			/no connector HDMI-A-2/
		]
	] as const)('is %s', (_, change, screen, said) => {
		const plan = withPicture(change);
		const bench = benchFor(writers, plan, context);
		const cuts = 'edges' in change ? { left: 0.03, right: 0.03, top: 0.03, bottom: 0.03 } : bench.screen!.cuts;
		const { eye, texts } = run(plan, { bench: { screen: { ...bench.screen!, cuts, ...screen } } });
		expect(eye.spans.some(({ state }) => state === 'picture')).toBe(false);
		expect(texts.some((text) => said.test(text))).toBe(true);
	});
});

describe('a screen that is off when the board starts', () => {
	const faults = [{ name: 'screen-late', atMs: 0 }];
	const after = (plan: Plan): string | undefined => run(plan, { faults }).eye.spans.at(-1)?.state;
	it('is lit once it wakes where the connector is forced and its EDID is on the card', () =>
		expect(after(withPicture())).toBe('picture'));
	it('is lit where the player is started anew when it comes', () =>
		expect(after(withPicture({ whenOff: 'restart', writesEdid: false }))).toBe('picture'));
	it('stays without its film where nobody tells the player', () => {
		const plan = withPicture({ whenOff: 'restart', writesEdid: false });
		const files = filesOf(plan).filter(({ path }) => !path.endsWith('60-yphos-screen.rules'));
		const result = rehearse({
			links: rehearsed,
			card: cardTree(files),
			bench: benchFor(writers, plan, context),
			startUtcMs: Date.UTC(2026, 10, 26, 9),
			forMs: 150_000,
			faults
		});
		expect(result.tracks.find(({ id }) => id === 'eye')!.spans.some(({ state }) => state === 'picture')).toBe(false);
	});
	it('a lead that comes out and an input that changes are dark, and only so long', () => {
		const { eye } = run(withPicture(), {
			faults: [
				{ name: 'screen-lead-out', atMs: 60_000 },
				{ name: 'screen-wrong-input', atMs: 100_000 }
			]
		});
		const dark = eye.spans.filter(({ state, fromMs }) => state === 'dark' && fromMs > 50_000);
		expect(dark.length).toBeGreaterThanOrEqual(2);
		expect(eye.spans.at(-1)!.state).toBe('picture');
	});
});

describe('what the screen says', () => {
	it('an EDID decides the modes, and what is wrong with it is said', () => {
		const bytes = writeEdid({
			name: 'OLD SET',
			widthMm: 700,
			heightMm: 390,
			modes: [vicTiming(19)!.timing],
			sound: null,
			year: 2012
		});
		if (!bytes.ok) throw new Error('not written');
		const plan = withPicture({ edid: toBase64(bytes.value), writesEdid: false });
		expect(textOf(plan, 'cmdline.txt')).toContain('1280x720@50');
		expect(run(plan).seen?.mode).toBe('1280 × 720 at 50\u2009Hz');
		const torn = bytes.value.slice();
		torn[70] = torn[70]! ^ 4;
		expect(idsOf(withPicture({ edid: toBase64(torn) }))).toContain('picture.edid-odd');
		const bench = benchFor(writers, plan, context).screen!;
		expect(whyNotTaken(bench, vicTiming(16)!.timing)).not.toBeNull();
		expect(whyNotTaken(bench, vicTiming(19)!.timing)).toBeNull();
	});
	it('the demo\u2019s films and pictures are as large as their facts say', () => {
		for (const { location, sizeBytes, kept } of demoMedia)
			if (kept === 'demo') expect(demoMediaBytes(location)!.length, location).toBe(sizeBytes);
	});
});
