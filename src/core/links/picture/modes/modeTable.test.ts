import { describe, expect, it } from 'vitest';
import { plainHatchWorkshop as demoWorkshop } from '../../../../../demo/plainHatch';
import { demoWorkshop as withPages } from '../../../../../demo/workshop';
import { chain } from '../../../chain';
import { writers } from '../../../writers';
import { judges } from '../../../judges';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { derive } from '../../../engines/derive';
import { toBase64, writeEdid, type Edid } from '../../../formats/edid';
import { catalogue } from '../../../parts/catalogue';
import type { Plan } from '../../../plan/plan';
import { vicTiming } from '../../../standards/vicTable';
import { refreshHzOf } from '../../../standards/videoTiming';
import { DRIVERS_TV, kernelModes, playerChoice, videoArgumentFor, whyNotTaken } from './display';
import type { PictureSettings } from '../settings';
import { edidOf, pictureWay } from '../way';

const { plan: lamp } = demoWorkshop.endpoints.find(({ id }) => id === 'lamp-room')!;
const surroundings = contextFor(chain, demoWorkshop, 'lamp-room');
const screens = catalogue.filter(({ kind }) => kind === 'screen').map(({ id }) => id);
/** It takes the ladder that the plan has; the others a cable. */
const isOld = (screen: string): boolean => screen === 'screen-43-analogue';
const RATES = [23.976, 24, 25, 29.97, 30, 50, 60];

/** A film for a screen; its EDID unknown, or read: then the one that it really has. */
function planned(screen: string, framesPerSec: number, knows: boolean, change: Partial<PictureSettings> = {}): Plan {
	const plan: Plan = {
		...lamp,
		brief: { ...lamp.brief, video: { codec: 'h264', widthPx: 1280, heightPx: 720, framesPerSec, bitDepth: 8 } },
		parts: {
			...lamp.parts,
			screen,
			also: lamp.parts.also.filter(({ part }) => isOld(screen) || !part.startsWith('ladder'))
		},
		picture: { ...lamp.picture, edid: '', ranges: null, mode: null, writesEdid: false, ...change }
	};
	const { edid } = benchFor(writers, plan, surroundings).screen!;
	return knows ? { ...plan, picture: { ...plan.picture, edid } } : plan;
}
const stopsOf = (plan: Plan): readonly string[] =>
	assess(judges, plan, surroundings)
		.findings.filter(({ id, level }) => id.startsWith('picture.') && level === 'stop')
		.map(({ id }) => id);

/** What comes out of the connector by the words that are written for the kernel and the player, and why the screen refuses it. */
function shown(plan: Plan): { readonly hz: number; readonly why: string | null } | string {
	const { claims } = derive(chain, plan, surroundings);
	const screen = benchFor(writers, plan, surroundings).screen!;
	const words = claims.flatMap((claim) => (claim.on === 'kernel' ? [claim.argument] : []));
	const wish = claims.flatMap((claim) => (claim.on === 'player' && claim.option === 'drm-mode' ? [claim.value] : []));
	const ownWord = words.some((word) => word.startsWith('drm.edid_firmware=')) ? null : edidOf(screen.edid);
	const only = screen.connector.startsWith('Composite-') ? DRIVERS_TV : screen.fixed;
	const modes = only
		? { modes: [only], preferred: only, console: only }
		: kernelModes(ownWord, videoArgumentFor(words, screen.connector), screen.outputMhz);
	const timing = playerChoice(wish[0] ?? '', modes);
	return typeof timing === 'string' ? timing : { hz: refreshHzOf(timing), why: whyNotTaken(screen, timing) };
}

describe.each(screens)('on %s', (screen) => {
	it.each([false, true])('a film of any rate has a picture where nothing stops it; EDID read: %s', (knows) => {
		for (const rate of RATES) {
			const plan = planned(screen, rate, knows);
			const stops = stopsOf(plan);
			const said = `${rate} ${stops.join()}`;
			if (stops.length === 0) expect(shown(plan), said).toMatchObject({ why: null });
			// Nothing of the drawer is beyond the board of this plan but by another plug.
			else expect(stops.join(), said).toMatch(/none-goes|composite|tv-standard|connector/);
		}
	});

	it('every mode that may be chosen by hand without its EDID is there, or is stopped with a fix that cures', () => {
		const open = planned(screen, 25, false);
		const { candidates } = pictureWay(open.picture, derive(chain, open, surroundings).context);
		for (const { timing, refused } of candidates.filter((one) => one.refused.length === 0)) {
			expect(refused).toEqual([]);
			const mode = {
				widthPx: timing.widthPx,
				heightPx: timing.heightPx,
				interlaced: timing.interlaced,
				milliHz: Math.round(refreshHzOf(timing) * 1000)
			};
			const plan = planned(screen, 25, false, { mode });
			const finding = assess(judges, plan, surroundings).findings.find(({ id }) => id === 'picture.mode-uncertain');
			if (!finding && stopsOf(plan).length === 0)
				expect(shown(plan), JSON.stringify(mode)).toMatchObject({ why: null });
			if (finding) expect(stopsOf(finding.fixes.at(-1)!.apply(plan))).toEqual([]);
		}
	});
});

it('without its EDID a monitor lacks the 50 Hz that a television has, and the screen itself is left to say so', () => {
	const mode = { widthPx: 1920, heightPx: 1080, interlaced: false, milliHz: 50_000 };
	for (const screen of ['screen-1080', 'screen-1080-cuts'])
		expect(stopsOf(planned(screen, 25, false, { mode }))).toEqual(['picture.mode-uncertain']);
	expect(shown(planned('screen-1080', 25, false, { mode }))).toContain('no mode');
	expect(shown(planned('screen-1080-cuts', 25, false, { mode }))).toMatchObject({ hz: 50, why: null });
});

it('an EDID of our own, for a screen that nobody has asked, only ever says what a table has', () => {
	for (const screen of screens) {
		const stops = stopsOf(planned(screen, 25, false, { writesEdid: true }));
		const isOdd = ['screen-bar', 'screen-portrait'].includes(screen);
		expect(stops.includes('picture.mode-uncertain'), screen).toBe(isOdd);
	}
});

const edidWith = (...vics: number[]): string => {
	const modes = vics.map((vic) => vicTiming(vic)!.timing);
	const bytes = writeEdid({ name: 'SET', widthMm: 700, heightMm: 390, modes, sound: null, year: 2020 });
	return toBase64(bytes.ok ? bytes.value : new Uint8Array());
};

it('a mode that is sent twice as wide is called by what is drawn, as the kernel calls it', () => {
	const edid = edidOf(edidWith(16, 4, 21))!;
	const plan = planned('screen-1080-cuts', 25, false, {
		edid: edidWith(16, 4, 21),
		mode: { widthPx: 720, heightPx: 576, interlaced: true, milliHz: 50_000 }
	});
	expect(stopsOf(plan)).toEqual([]);
	expect(shown(plan)).toMatchObject({ hz: 50, why: null });
	const named = kernelModes(edid, null).modes.filter(({ heightPx }) => heightPx === 576);
	// The other is the same once more in 18 bytes of its own, which the kernel takes as it stands.
	expect(named).toMatchObject([{ widthPx: 1440 }, { widthPx: 720, pixelClockKhz: 13_500, hTotal: 864 }]);
});

it('an interlaced mode is refused where the list has the same without: the player would take that', () => {
	const edid = edidOf(edidWith(31, 20, 16))!;
	const interlaced = { widthPx: 1920, heightPx: 1080, interlaced: true, milliHz: 50_000 };
	const plan = planned('screen-1080-cuts', 25, false, { edid: edidWith(31, 16), mode: interlaced });
	expect(stopsOf(plan)).toEqual(['picture.mode-unknown']);
	const both = {
		modes: [31, 20].map((vic) => ({ timing: vicTiming(vic)!.timing, from: 'detailed' }))
	} as unknown as Edid;
	expect(playerChoice('1920x1080@50.00', kernelModes(both, null))).toMatchObject({ interlaced: false });
	expect(kernelModes(edid, null, 80).modes.every(({ pixelClockKhz }) => pixelClockKhz <= 80_000)).toBe(true);
	const { candidates } = pictureWay(
		{ ...plan.picture, edid: edidWith(16, 31, 20), mode: null },
		derive(chain, plan, surroundings).context
	);
	const twin = candidates.find(({ timing }) => timing.interlaced && timing.heightPx === 1080);
	expect(twin?.refused.join()).toContain('not interlaced');
});

describe('pages, whose compositor takes what the screen prefers', () => {
	const { plan: hatch } = withPages.endpoints.find(({ id }) => id === 'ticket-hatch')!;
	const around = contextFor(chain, withPages, 'ticket-hatch');
	const pages = (change: Partial<PictureSettings>, also = hatch.parts.also): Plan => ({
		...hatch,
		parts: { ...hatch.parts, board: 'board-desk-8', also },
		picture: { ...hatch.picture, writesEdid: false, mode: null, ...change }
	});
	const found = (plan: Plan) =>
		assess(judges, plan, around).findings.find(({ id }) => id === 'picture.compositor-mode');
	const hd = { widthPx: 1280, heightPx: 720, interlaced: false, milliHz: 60_000 };

	it('are laid out for that', () => {
		const { context } = derive(chain, pages({ edid: edidWith(4, 16) }), around);
		expect(context.facts.picture!.screen(context)).toMatchObject({ widthPx: 720, heightPx: 1280 });
	});
	it('stop where the way there does not pass it, and an EDID of our own cures that', () => {
		const thin = [
			...hatch.parts.also.filter(({ part }) => !part.includes('display')),
			{ part: 'lead-display-10', count: 1 }
		];
		const bad = pages({ edid: edidWith(95, 16) }, thin);
		expect(found(bad)).toMatchObject({ level: 'stop' });
		const cured = found(bad)!.fixes[0]!.apply(bad);
		expect(cured.picture.writesEdid).toBe(true);
		expect(found(cured)).toBeUndefined();
		expect(found(pages({ edid: edidWith(16, 95) }, thin))).toBeUndefined();
	});
	it('are warned of where another mode is chosen, with two ways out', () => {
		const plan = pages({ edid: edidWith(16, 4), mode: hd });
		expect(found(plan)).toMatchObject({ level: 'caution' });
		for (const fix of found(plan)!.fixes) expect(found(fix.apply(plan))).toBeUndefined();
	});
	it('leave no edges of their own where the kernel does', () => {
		for (const [edgesBy, left] of [
			['kernel', 0],
			['player', 26]
		] as const) {
			const { context } = derive(chain, pages({ edgesBy }), around);
			expect(Math.max(...Object.values(context.facts.picture!.screen(context).edges)), edgesBy).toBe(left ? 48 : 0);
		}
	});
});
