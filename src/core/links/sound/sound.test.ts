import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { assess } from '../../engines/assess';
import { derive } from '../../engines/derive';
import { contextFor } from '../../engines/context';
import type { Plan } from '../../plan/plan';
import { noFacts } from '../../probe';
import { amplifierFigures, loadOf } from '../../parts/amplifier';
import { computeDigitalVolume, computeGainChain } from './gainChain';
import { minutesADay, shareInWords } from './dose';
import { absorptionM2, fieldDb, fieldOf } from './room';
import { computeJoints } from '../parts/joints';
import { computeLevels } from './levels';
import { calmSound } from './settings';
import { computeMeetings } from './meetings';
import { treat, type Route } from './treatment';

const pcm = (sampleRateHz: number, bitDepth = 16, channels = 2) => ({
	sampleRateHz,
	bitDepth,
	channels,
	codec: 'pcm',
	lossless: true
});
const route: Route = {
	playback: { ratesHz: [44_100, 48_000, 96_000], formats: ['S16_LE', 'S24_3LE'], channels: [2] },
	door: 'hw',
	forcedRateHz: null,
	gainDb: 0
};

describe('what is put between converter and ear', () => {
	const { id, plan } = demoWorkshop.endpoints[0]!;
	const at = (parts: Partial<Plan['parts']>, sound: Partial<Plan['sound']> = {}) => {
		const tried = { ...plan, parts: { ...plan.parts, ...parts }, sound: { ...plan.sound, ...sound } };
		const here = derive(chain, tried, contextFor(chain, demoWorkshop, id));
		return { levels: computeLevels(tried.sound, here.context)!, joints: computeJoints(tried.parts, here.context) };
	};
	const also = (...parts: string[]) => parts.map((part) => ({ part, count: 1 }));
	it('an isolator takes what it loses, and is joined in the way', () => {
		const [without, withIt] = [at({ also: [] }), at({ also: also('isolator-line') })];
		expect(without.levels.average.splDb - withIt.levels.average.splDb).toBeCloseTo(1, 6);
		const sound = withIt.joints.filter(({ cargo }) => cargo === 'sound').map(({ from, to }) => [from.id, to.id]);
		expect(sound.slice(0, 2)).toEqual([
			[plan.parts.converter, 'isolator-line'],
			['isolator-line', plan.parts.amplifier]
		]);
	});
	it('headphones are as loud in any room, and reckoned by their own rating', () => {
		const phones = { amplifier: 'amp-phones', speakers: 'phones-32' };
		const [bath, field] = [at(phones, { place: 'unknown' }), at(phones, { place: 'outdoors', distanceM: 20 })];
		expect(bath.levels.average.splDb).toBe(field.levels.average.splDb);
		expect(bath.levels.uncertainDb).toBe(0);
		// Full scale clips at 0.1 W into 32 ohms: 20 dB above 1 mW, so 100 + 20 dB.
		expect(at(phones, { volumeAt: 'fixed' }).levels.peak.splDb).toBeCloseTo(120, 0);
	});
});

describe('what a source meets', () => {
	it.each([
		['untouched', pcm(44_100), route, 44_100, 16],
		['resampled', pcm(192_000, 24), route, 96_000, 24],
		['resampled', pcm(44_100), { ...route, forcedRateHz: 48_000 }, 48_000, 16],
		['narrowed', pcm(48_000, 32), route, 48_000, 24],
		['mixed', pcm(48_000, 24, 6), route, 48_000, 24],
		['mixed', pcm(48_000, 16, 1), route, 48_000, 16],
		['scaled', pcm(48_000), { ...route, gainDb: -6 }, 48_000, 16],
		['decoded', { ...pcm(48_000, 24), codec: 'aac', lossless: false }, route, 48_000, 24],
		['unknown', null, route, 0, 0],
		['refused', pcm(48_000), { ...route, playback: { ...route.playback, formats: ['IEC958_SUBFRAME_LE'] } }, 0, 0],
		[
			'untouched',
			pcm(48_000),
			{ ...route, door: 'iec958', playback: { ...route.playback, formats: ['IEC958_SUBFRAME_LE'] } },
			48_000,
			16
		]
	] as const)('is %s', (verdict, shape, way, sampleRateHz, bitDepth) =>
		expect(treat(shape, way as Route)).toMatchObject({ verdict, sampleRateHz, bitDepth })
	);

	it('is never a rate, width or channel count that the converter does not have', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 4000, max: 800_000 }),
				fc.constantFrom(8, 16, 24, 32),
				fc.integer({ min: 1, max: 8 }),
				(rate, bits, channels) => {
					const got = treat(pcm(rate, bits, channels), route);
					expect(route.playback.ratesHz).toContain(got.sampleRateHz);
					expect(got.bitDepth).toBeLessThanOrEqual(24);
					expect(got.channels).toBe(2);
				}
			)
		);
	});
});

// Expected values: exact arithmetic of Ohm's law and IEC 60268-5, worked independently to 40 digits.
describe('levels', () => {
	it('stop at the amplifier\u2019s clipping point', () => {
		const { gainDb } = amplifierFigures({ ratedW: 10, ratedOhm: 4, sensitivityVrms: 0.5 });
		const chain = {
			dacFullScaleVrms: 2,
			signalDbfs: 0,
			digitalVolumeDb: -10,
			ampGainDb: gainDb,
			ampClipVrms: Math.sqrt(100 * 8),
			speakerOhm: 8,
			sensitivityDb: 86,
			sensitivityUnit: 'dB/2.83V/1m',
			fieldDb: fieldDb(12, 1, Infinity),
			speakers: 2,
			summing: 'power'
		} as const;
		const got = computeGainChain(chain);
		expect(got).toMatchObject({ clipped: false });
		expect(got.ampInputVrms).toBeCloseTo(0.632456, 5);
		expect(got.ampOutputVrms).toBeCloseTo(8, 6);
		expect(computeGainChain({ ...chain, digitalVolumeDb: 6 }).ampOutputVrms).toBeCloseTo(28.284, 2);
	});
	it('fall by 6.02 dB when the distance doubles', () => {
		const at = (distanceM: number): number =>
			computeGainChain({
				dacFullScaleVrms: 1,
				signalDbfs: 0,
				digitalVolumeDb: 0,
				ampGainDb: 20,
				ampClipVrms: 20,
				speakerOhm: 8,
				sensitivityDb: 88,
				sensitivityUnit: 'dB/2.83V/1m',
				fieldDb: fieldDb(distanceM, 1, Infinity),
				speakers: 1,
				summing: 'power'
			}).splDb;
		expect(at(1) - at(2)).toBeCloseTo(6.0206, 3);
	});
	it('cost bits only where the word has none to spare', () => {
		expect(computeDigitalVolume({ volumeDb: -30, sourceBits: 16, wordBits: 16 })).toMatchObject({
			lostBits: expect.closeTo(4.9829, 3),
			dynamicRangeDb: expect.closeTo(66.33, 1)
		});
		expect(computeDigitalVolume({ volumeDb: -30, sourceBits: 16, wordBits: 24 }).lostBits).toBe(0);
	});
});

describe('findings of the sound', () => {
	const foghorn = demoWorkshop.endpoints.find((endpoint) => endpoint.id === 'fog-horn-room')!;
	const lounge = demoWorkshop.endpoints.find((endpoint) => endpoint.id === 'bunkhouse-lounge')!;
	const findings = (id: string, plan: Plan) =>
		assess(judges, plan, contextFor(chain, demoWorkshop, id)).links.find((link) => link.id === 'sound')!.findings;
	const has = (id: string, plan: Plan, finding: string) => findings(id, plan).some((f) => f.id === finding);
	const sound = (part: Partial<Plan['sound']>): Plan => ({ ...lounge.plan, sound: { ...lounge.plan.sound, ...part } });

	const through = (door: 'hw' | 'iec958' | 'hdmi', converter: string): Plan => ({
		...foghorn.plan,
		parts: { ...foghorn.plan.parts, converter },
		sound: { ...foghorn.plan.sound, door }
	});
	it.each([
		['a display output that takes frames only, opened plainly', 'sound.framed-only', 'hw', 'conv-display', 'hdmi'],
		['a way that alsa-lib has not for a card on the header', 'sound.no-way', 'iec958', 'conv-optical', 'hw'],
		['a display\u2019s way to a converter on USB', 'sound.no-way', 'hdmi', 'conv-usb-96', 'hw']
	] as const)('%s is a stop, and the fix ends it', (_, id, door, converter, mended) => {
		const plan = through(door, converter);
		const finding = findings(foghorn.id, plan).find((f) => f.id === id)!;
		expect(finding.level).toBe('stop');
		const after = finding.fixes[0]!.apply(plan);
		expect(after.sound.door).toBe(mended);
		expect(findings(foghorn.id, after).filter((f) => /framed-only|no-way/.test(f.id))).toEqual([]);
	});
	it('plain samples suit the optical output of a card on the header: its transmitter frames them', () =>
		expect(findings(foghorn.id, through('hw', 'conv-optical')).filter((f) => /framed-only|no-way/.test(f.id))).toEqual(
			[]
		));
	it('a control that the class has not is a stop, and a card that nobody has seen is said to be assumed', () => {
		expect(has(lounge.id, sound({ mixerName: 'Speaker' }), 'sound.no-mixer')).toBe(true);
		expect(findings(lounge.id, lounge.plan).find((f) => f.id === 'sound.card-assumed')?.why).toContain('probe');
	});
	it.each([
		['sound.no-card', { cardId: '' }],
		['sound.card-number', { cardId: '1' }],
		['sound.no-mixer', { mixerName: '' }],
		['sound.resampled-by-choice', { travel: 'fixed' }],
		['sound.too-loud', { volumeDb: 0 }],
		['sound.volume-costs', { volumeAt: 'player', volumeDb: -60 }]
	] as const)('%s', (id, part) => expect(has(lounge.id, sound(part), id)).toBe(true));
	it('every fix of every finding gives a plan in which that finding is gone or milder', () => {
		const order = ['note', 'caution', 'stop'];
		let tried = 0;
		for (const endpoint of demoWorkshop.endpoints) {
			const context = contextFor(chain, demoWorkshop, endpoint.id);
			for (const finding of assess(judges, endpoint.plan, context).findings)
				for (const fix of finding.fixes) {
					tried++;
					const after = assess(judges, fix.apply(endpoint.plan), context).findings.find((f) => f.id === finding.id);
					if (after && finding.id !== 'sound.resampled-by-need')
						expect(order.indexOf(after.level), `${finding.id}: ${fix.label}`).toBeLessThan(
							order.indexOf(finding.level)
						);
				}
		}
		expect(tried).toBeGreaterThan(8);
	});
	it('all fixes together make the room with mistakes ready to write', () => {
		let plan = foghorn.plan;
		const context = contextFor(chain, demoWorkshop, foghorn.id);
		for (let n = 0; n < 20; n++) {
			const next = assess(judges, plan, context).findings.find((f) => f.level === 'stop' && f.fixes.length);
			if (!next) break;
			plan = next.fixes[0]!.apply(plan);
		}
		expect(assess(judges, plan, context).worst).not.toBe('stop');
	});
	it('measured abilities replace typical ones', () => {
		const probed = {
			...demoWorkshop,
			endpoints: demoWorkshop.endpoints.map((e) =>
				e.id === lounge.id
					? {
							...e,
							probe: {
								...noFacts(),
								soundDevices: [
									{
										cardId: 'Field24',
										cardName: 'x',
										deviceNumber: 0,
										deviceName: 'x',
										usbSpeed: null,
										playback: { ratesHz: [48_000], formats: ['S16_LE' as const], channels: [2] },
										mixers: [],
										doors: []
									}
								]
							}
						}
					: e
			)
		};
		const context = contextFor(chain, probed, lounge.id);
		const here = derive(chain, lounge.plan, context);
		const meetings = computeMeetings(lounge.plan.sound, here.context, here.claims);
		expect(meetings[0]!.treatment).toMatchObject({ verdict: 'resampled', sampleRateHz: 48_000 });
	});
});

describe('a room', () => {
	const settings = { ...calmSound, distanceM: 3, place: 'room' as const, roomM3: 60 };
	it('adds what its absorption leaves of the sound: 10 log (1/r² + 16π/QA)', () => {
		// By hand: 60 m³ at RT60 0.5 s is 19.32 m² (Sabine); Q 2: 1/9 + 50.265/38.64 = 1.412, 1.50 dB above 1 m.
		const measured = { ...settings, furnishing: 'measured' as const, reverbSec: 0.5 };
		expect(absorptionM2(measured)).toBeCloseTo(19.32, 2);
		expect(fieldOf(measured).most).toBeCloseTo(1.498, 2);
		expect(fieldOf(measured).least).toBeCloseTo(-1.997, 2);
	});
	it('is never quieter than the open air, and an unknown one bounds all others', () =>
		fc.assert(
			fc.property(
				fc.double({ min: 0.2, max: 50, noNaN: true }),
				fc.double({ min: 20, max: 100_000, noNaN: true }),
				fc.constantFrom('hard' as const, 'ordinary' as const, 'soft' as const),
				(distanceM, roomM3, furnishing) => {
					const at = (place: 'unknown' | 'room' | 'outdoors') =>
						fieldOf({ ...settings, distanceM, roomM3, furnishing, place });
					expect(at('room').least).toBeGreaterThan(at('outdoors').least);
					expect(at('room').most).toBeGreaterThan(at('room').least);
					expect(at('unknown').least).toBe(at('outdoors').least);
					expect(at('unknown').most).toBeGreaterThanOrEqual(at('room').most - 1e-9);
				}
			)
		));
	it('gives a day\u2019s share of sound: 8 h at 85 dB, half a minute at 115', () => {
		expect(minutesADay(85)).toBe(480);
		expect(minutesADay(94)).toBeCloseTo(60, 6);
		expect(minutesADay(115) * 60).toBeCloseTo(28.125, 3);
		expect([70, 85, 94, 115].map(shareInWords)).toEqual(['all day', '8\u2009h', '60\u2009min', '28\u2009s']);
	});
});

describe('speakers on an amplifier', () => {
	const speakers = { ohm: 8, leastOhm: null, count: 4 };
	it('share out among the channels: four of 8 Ω on two are 4 Ω in parallel, 16 Ω in series', () => {
		expect(loadOf(speakers, 2, 'parallel')).toMatchObject({ onOneChannel: 2, ratedOhm: 4, leastOhm: 3.2, inSeries: 1 });
		expect(loadOf(speakers, 2, 'series')).toMatchObject({ ratedOhm: 16, leastOhm: 12.8, inSeries: 2 });
		expect(loadOf({ ...speakers, count: 3, leastOhm: 5 }, 2, 'parallel')).toMatchObject({ ratedOhm: 4, leastOhm: 2.5 });
	});
	const soundFindings = (change: (plan: Plan) => Plan) => {
		const { plan } = lounge;
		const changed = change(plan);
		return assess(judges, changed, contextFor(chain, demoWorkshop, lounge.id)).findings.filter(({ id }) =>
			/^sound\.|no-feed/.test(id)
		);
	};
	const lounge = demoWorkshop.endpoints.find(({ id }) => id === 'bunkhouse-lounge')!;
	const parts = (change: Partial<Plan['parts']>) => (plan: Plan) => ({ ...plan, parts: { ...plan.parts, ...change } });
	it('that are too little for it are a stop, which wiring them in series cures', () => {
		const surroundings = contextFor(chain, demoWorkshop, lounge.id);
		const low = {
			...demoWorkshop,
			parts: [
				...demoWorkshop.parts,
				{ ...surroundings.find('sp-ceiling')!, id: 'own-low', ohm: 4 } as (typeof demoWorkshop.parts)[number]
			]
		};
		const plan = parts({ speakers: 'own-low' })(lounge.plan);
		const around = contextFor(chain, low, lounge.id);
		const found = assess(judges, plan, around).findings.find(({ id }) => id === 'sound.load')!;
		expect(found).toMatchObject({ level: 'stop', title: expect.stringMatching(/^2\.0\sΩ/) });
		const mended = found.fixes[0]!.apply(plan);
		expect(mended.sound.wiring).toBe('series');
		expect(assess(judges, mended, around).findings.some(({ id }) => id === 'sound.load')).toBe(false);
	});
	it('that take less than a full-scale passage gives are cautioned about, and the fix keeps within it', () => {
		const loud = (plan: Plan): Plan => ({
			...parts({ speakers: 'sp-ceiling' })(plan),
			sound: { ...plan.sound, volumeDb: 0, loudestDb: 115 }
		});
		const [found] = soundFindings(loud).filter(({ id }) => id === 'sound.speaker-power');
		expect(found?.title).toMatch(/^Up to 30\sW for a speaker that takes 20\sW$/);
		const mended = found!.fixes[0]!.apply(loud(lounge.plan));
		expect(soundFindings(() => mended).some(({ id }) => id === 'sound.speaker-power')).toBe(false);
	});
	it('can hang on the converter\u2019s own amplifier, which needs a supply and bears no second amplifier', () => {
		const own = parts({ converter: 'conv-header-amp', amplifier: null });
		const ids = (change: (plan: Plan) => Plan) => soundFindings(change).map(({ id }) => id);
		expect(ids(own)).toContain('parts.no-feed.converter');
		const [feed] = soundFindings(own).filter(({ id }) => id === 'parts.no-feed.converter');
		expect(feed!.level).toBe('stop');
		for (const fix of feed!.fixes) expect(ids((plan) => fix.apply(own(plan)))).not.toContain('parts.no-feed.converter');
		expect(ids(parts({ converter: 'conv-header-amp' }))).toContain('sound.two-amplifiers');
		const figures = assess(judges, own(lounge.plan), contextFor(chain, demoWorkshop, lounge.id)).links.find(
			({ id }) => id === 'sound'
		)!.figures;
		expect(figures.find(({ id }) => id === 'loudest')?.value).toBeGreaterThan(60);
	});
	it('at a level that harms are a stop, not a caution', () => {
		const horn = (plan: Plan): Plan => ({
			...parts({ speakers: 'sp-horn' })(plan),
			sound: { ...plan.sound, volumeDb: 0 }
		});
		const found = soundFindings(horn).find(({ id }) => id === 'sound.harmful');
		expect(found?.level).toBe('stop');
		const mended = found!.fixes[0]!.apply(horn(lounge.plan));
		expect(soundFindings(() => mended).filter(({ id }) => /harmful|too-loud/.test(id))).toEqual([]);
	});
});
