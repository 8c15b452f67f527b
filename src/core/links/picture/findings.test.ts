import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { plainHatchWorkshop as demoWorkshop } from '../../../../demo/plainHatch';
import { demoWorkshop as withPages } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { assess } from '../../engines/assess';
import { contextFor } from '../../engines/context';
import { toBase64, writeEdid } from '../../formats/edid';
import type { Finding } from '../../link/finding';
import type { Plan } from '../../plan/plan';
import { vicTiming } from '../../standards/vicTable';
import type { VideoTiming } from '../../standards/videoTiming';
import type { Control } from './controls/controls';
import { NO_EDGES } from './edges/overscan';
import type { PictureSettings } from './settings';

type Change = Partial<PictureSettings>;

const of = (id: string, workshop = demoWorkshop) => {
	const { plan } = workshop.endpoints.find((endpoint) => endpoint.id === id)!;
	const context = contextFor(chain, workshop, id);
	return {
		plan: (change: Change = {}, more: Partial<Plan> = {}): Plan => ({
			...plan,
			...more,
			picture: { ...plan.picture, ...change }
		}),
		findings: (tried: Plan): readonly Finding[] => assess(judges, tried, context).findings
	};
};
const hatch = of('ticket-hatch');
/** The hatch with its pages, which a browser shows. */
const shown = of('ticket-hatch', withPages);
const lamp = of('lamp-room');
const gallery = of('gallery-wall');
const hatchPlan = hatch.plan();
const lampPlan = lamp.plan();

/** A good EDID of a 720p set, the same with one bit turned, and one of 640 × 480 that runs four times as fast as it should. */
const edid = ((): Record<'good' | 'large' | 'both' | 'torn' | 'fast', string> => {
	const written = (...modes: VideoTiming[]): Uint8Array => {
		const bytes = writeEdid({ name: 'OLD SET', widthMm: 700, heightMm: 390, modes, sound: null, year: 2012 });
		if (!bytes.ok) throw new Error(bytes.faults[0]!.message);
		return bytes.value;
	};
	const torn = written(vicTiming(19)!.timing);
	torn[70] = torn[70]! ^ 4;
	const fast = written(vicTiming(1)!.timing);
	// Clock in 10 kHz; the range descriptor's own limit in 10 MHz; then the sum again.
	fast.set([10_800 & 0xff, 10_800 >> 8], 54);
	const range = [72, 90, 108].find((at) => fast[at + 3] === 0xfd)!;
	fast[range + 9] = 20;
	fast[127] = (256 - (fast.subarray(0, 127).reduce((sum, byte) => sum + byte, 0) % 256)) % 256;
	const large = toBase64(written(vicTiming(16)!.timing, vicTiming(97)!.timing));
	return {
		both: toBase64(written(vicTiming(16)!.timing, vicTiming(4)!.timing)),
		large,
		good: toBase64(written(vicTiming(19)!.timing)),
		torn: toBase64(torn),
		fast: toBase64(fast)
	};
})();
const parts = (from: Plan, change: Partial<Plan['parts']>): Partial<Plan> => ({ parts: { ...from.parts, ...change } });
const film = (from: Plan, framesPerSec: number, widthPx = 1280, heightPx = 720): Partial<Plan> => ({
	brief: { ...from.brief, video: { codec: 'h264', widthPx, heightPx, framesPerSec, bitDepth: 8 } }
});
const also = (from: Plan, old: string, part: string): Partial<Plan> =>
	parts(from, { also: from.parts.also.map((one) => (one.part === old ? { part, count: 1 } : one)) });
const mode = (widthPx: number, heightPx: number, milliHz: number): PictureSettings['mode'] => ({
	widthPx,
	heightPx,
	milliHz,
	interlaced: false
});
const key = (action: Control['action'], name: string, more: Partial<Control> = {}): Control => ({
	action,
	by: 'keyboard',
	key: name,
	scancode: '',
	...more
});
const soundOnly = [{ id: 's', location: 'Night ferry.wav', title: '', durationSec: null, extra: [], part: null }];
const calmEdges = { left: 20, right: 20, top: 11, bottom: 11 };

const hours = { from: '08:00', until: '20:00' };
const withSocket = (change: Change): Plan =>
	hatch.plan(
		{ hours, offBy: 'socket', ...change },
		parts(hatchPlan, { also: [...hatchPlan.parts.also, { part: 'socket-switched', count: 1 }] })
	);

/** What brings a finding, and the nearest plan that is without it. */
const CASES: readonly [id: string, on: ReturnType<typeof of>, bad: Plan, good: Plan][] = [
	['picture.no-screen', hatch, hatch.plan({}, parts(hatchPlan, { screen: null })), hatchPlan],
	['picture.no-edid', hatch, hatchPlan, hatch.plan({ edid: edid.good })],
	['picture.edid-unreadable', hatch, hatch.plan({ edid: 'AAAA' }), hatch.plan({ edid: edid.good })],
	['picture.edid-odd', hatch, hatch.plan({ edid: edid.torn }), hatch.plan({ edid: edid.good })],
	[
		'picture.no-label',
		lamp,
		lamp.plan({ ranges: null }),
		lamp.plan({ ranges: { hMinKhz: 30, hMaxKhz: 64, vMinHz: 50, vMaxHz: 75 } })
	],
	['picture.mode-unknown', hatch, hatch.plan({ mode: mode(999, 777, 60_000) }), hatchPlan],
	[
		'picture.compositor-mode',
		shown,
		shown.plan({ writesEdid: false, mode: mode(1280, 720, 60_000), edid: edid.both }),
		shown.plan()
	],
	['picture.circuit-kernel', hatch, hatch.plan({}, film(hatchPlan, 30, 1920, 1080)), hatchPlan],
	['picture.mode-uncertain', hatch, hatch.plan({ mode: mode(1920, 1080, 50_000) }), hatchPlan],
	['picture.mode-refused', hatch, hatch.plan({ edid: edid.large, mode: mode(3840, 2160, 60_000) }), hatchPlan],
	[
		'picture.none-goes',
		lamp,
		lamp.plan({ mode: null, ranges: { hMinKhz: 1, hMaxKhz: 2, vMinHz: 1, vMaxHz: 2 } }),
		lampPlan
	],
	[
		'picture.edid-unwritable',
		hatch,
		hatch.plan({
			edid: edid.fast,
			mode: mode(640, 480, 257_143),
			writesEdid: true,
			ranges: { hMinKhz: 20, hMaxKhz: 300, vMinHz: 40, vMaxHz: 300 }
		}),
		hatch.plan({
			edid: edid.fast,
			mode: mode(640, 480, 257_143),
			writesEdid: false,
			ranges: { hMinKhz: 20, hMaxKhz: 300, vMinHz: 40, vMaxHz: 300 }
		})
	],
	[
		'picture.uneven',
		hatch,
		hatch.plan({ mode: mode(1920, 1080, 60_000) }, film(hatchPlan, 25)),
		hatch.plan({ mode: mode(1920, 1080, 60_000) }, film(hatchPlan, 30))
	],
	['picture.edges-unread', hatch, hatch.plan({ edges: NO_EDGES }), hatch.plan({ edges: NO_EDGES, wholePicture: 'on' })],
	[
		'picture.edges-impossible',
		hatch,
		hatch.plan({ edges: { left: 1900, right: 20, top: 0, bottom: 0 } }),
		hatch.plan({ edges: calmEdges })
	],
	[
		'picture.edges-much',
		hatch,
		hatch.plan({ edges: { ...calmEdges, left: 231 } }),
		hatch.plan({ edges: { ...calmEdges, left: 230 } })
	],
	[
		'picture.edges-uneven',
		hatch,
		hatch.plan({ edges: { ...calmEdges, left: 97 } }),
		hatch.plan({ edges: { ...calmEdges, left: 96 } })
	],
	['picture.edges-shape', hatch, hatch.plan({ edges: { ...NO_EDGES, left: 60, right: 60 } }), hatchPlan],
	['picture.kernel-margins', hatch, hatch.plan({ edgesBy: 'kernel' }), hatchPlan],
	[
		'picture.forced-blind',
		hatch,
		hatch.plan({ writesEdid: false }),
		hatch.plan({ writesEdid: false, whenOff: 'restart' })
	],
	[
		'picture.kernel-by-hand',
		hatch,
		hatch.plan({}, { card: { ...hatchPlan.card, bootStyle: 'none', bootText: '' } }),
		hatchPlan
	],
	[
		'picture.nothing-to-show',
		hatch,
		hatch.plan({}, { sources: { ...hatchPlan.sources, items: soundOnly } }),
		hatchPlan
	],
	['picture.text-small', hatch, hatch.plan({ distanceM: 30 }), hatchPlan],
	[
		'picture.washed-out',
		hatch,
		hatch.plan({ light: 'bright' }, parts(hatchPlan, { screen: 'projector-1080' })),
		hatch.plan({ light: 'dim' }, parts(hatchPlan, { screen: 'projector-1080' }))
	],
	[
		'picture.burn-in',
		hatch,
		hatch.plan({ stillSec: 301 }, parts(hatchPlan, { screen: 'screen-tube' })),
		hatch.plan({ stillSec: 300 }, parts(hatchPlan, { screen: 'screen-tube' }))
	],
	[
		'picture.draws-plain',
		hatch,
		hatch.plan({ draws: 'plain' }, film(hatchPlan, 50, 1920, 1080)),
		hatch.plan({ draws: 'plain' }, film(hatchPlan, 25, 1280, 720))
	],
	[
		'picture.levels-plain',
		hatch,
		hatch.plan({ draws: 'plain', levels: 'full' }),
		hatch.plan({ draws: 'gpu', levels: 'full' })
	],
	[
		'picture.by-radio',
		gallery,
		gallery.plan({}, { network: { ...gallery.plan().network, way: 'radio' } }),
		gallery.plan()
	],
	['picture.delay', gallery, gallery.plan(), hatchPlan],
	[
		'picture.ladder-steps',
		lamp,
		lamp.plan({}, also(lampPlan, 'ladder-666', 'ladder-888')),
		lamp.plan({}, also(lampPlan, 'ladder-666', 'adapter-display-vga'))
	],
	[
		'picture.ladder-flicker',
		lamp,
		lamp.plan({ mode: mode(1280, 1024, 60_020) }),
		lamp.plan({ mode: mode(1024, 768, 60_004) })
	],
	[
		'picture.no-shutdown-key',
		hatch,
		hatch.plan({ controls: [key('next', 'KEY_A')] }, { brief: { ...hatchPlan.brief, comesBackAlone: false } }),
		hatch.plan({ controls: [] }, { brief: { ...hatchPlan.brief, comesBackAlone: false } })
	],
	[
		'picture.clash-KEY_A',
		hatch,
		hatch.plan({ controls: [key('next', 'KEY_A'), key('pause', 'KEY_A')] }),
		hatch.plan({ controls: [key('next', 'KEY_A'), key('pause', 'KEY_B')] })
	],
	[
		'picture.remote-unlearned',
		hatch,
		hatch.plan({ controls: [key('next', 'KEY_A', { by: 'remote' })] }),
		hatch.plan({ controls: [key('next', 'KEY_A', { by: 'remote', scancode: '0x10' })] })
	],
	[
		'picture.no-eye',
		hatch,
		hatch.plan({ controls: [key('next', 'KEY_A', { by: 'remote', scancode: '0x10' })] }),
		hatch.plan({ controls: [key('next', 'KEY_A', { by: 'cec' })] })
	],
	[
		'picture.phone-open',
		hatch,
		hatch.plan({ controls: [key('shut-down', '', { by: 'phone' })] }),
		hatch.plan({ controls: [key('pause', '', { by: 'phone' })] })
	],
	[
		'picture.phone-shows',
		hatch,
		hatch.plan({ controls: [] }, { notices: { ...hatchPlan.notices, used: true } }),
		hatch.plan({ controls: [] }, { notices: { ...hatchPlan.notices, used: true, showByPhone: false } })
	],
	['picture.no-cec', lamp, lamp.plan({ hours, offBy: 'cec' }), lamp.plan({ hours, offBy: 'signal' })],
	[
		'picture.no-socket',
		hatch,
		hatch.plan({ hours, offBy: 'socket', afterCut: 'comes-on' }),
		withSocket({ afterCut: 'comes-on' })
	],
	['picture.socket-stays-off', hatch, withSocket({ afterCut: 'stays-off' }), withSocket({ afterCut: 'comes-on' })],
	[
		'picture.cut-stays-off',
		hatch,
		hatch.plan({ offBy: 'signal', afterCut: 'stays-off' }),
		hatch.plan({ offBy: 'cec', afterCut: 'stays-off' })
	],
	[
		'picture.never-rests',
		hatch,
		hatch.plan({ darkWhileResting: true }, { programme: { ...hatchPlan.programme, rules: [], quiet: [] } }),
		hatchPlan
	],
	['picture.volume-of-nothing', hatch, hatch.plan({ controls: [key('mute', 'KEY_MUTE')] }), hatchPlan]
];

describe('findings of the picture', () => {
	it('are all tried here', () => {
		const written = readdirSync(import.meta.dirname, { recursive: true, encoding: 'utf8' })
			.filter((name) => /(?:^|\/)(?:assess\w+|findings)\.ts$/.test(name))
			.flatMap((name) => [
				...readFileSync(join(import.meta.dirname, name), 'utf8').matchAll(/\bid: ['`](picture\.[\w-]+)/g)
			])
			.map(([, id]) => id!);
		expect(written.length).toBeGreaterThan(25);
		const tried = CASES.map(([id]) => id);
		expect(written.filter((id) => !tried.some((one) => (id.endsWith('-') ? one.startsWith(id) : one === id)))).toEqual(
			[]
		);
	});
	it.each(CASES)('%s comes and goes, and each fix cures it and stops nothing else', (id, on, bad, good) => {
		const before = on.findings(bad);
		const found = before.find((finding) => finding.id === id);
		expect(found, id).toBeDefined();
		expect(on.findings(good).map((finding) => finding.id)).not.toContain(id);
		const known = new Set(before.map((finding) => finding.id));
		for (const fix of found!.fixes) {
			const after = on.findings(fix.apply(structuredClone(bad)));
			expect(
				after.map((finding) => finding.id),
				fix.label
			).not.toContain(id);
			expect(
				after.filter((finding) => finding.level === 'stop' && !known.has(finding.id)).map((finding) => finding.id),
				fix.label
			).toEqual([]);
		}
	});
	it('tolerances decide whether a brighter code may be darker', () => {
		const texts = lamp
			.findings(lamp.plan({}, also(lampPlan, 'ladder-666', 'ladder-888')))
			.find(({ id }) => id.endsWith('ladder-steps'));
		expect(texts!.why).toMatch(/0\.5\s%/);
	});
});
