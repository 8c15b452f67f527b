import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { assess } from '../../engines/assess';
import { derive } from '../../engines/derive';
import { contextFor } from '../../engines/context';
import type { Plan } from '../../plan/plan';
import { noFacts } from '../../probe';
import { amplifierFigures } from '../../parts/amplifier';
import { computeDigitalVolume, computeGainChain } from './gainChain';
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
			distanceM: 12,
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
				distanceM,
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
		assess(chain, plan, contextFor(chain, demoWorkshop, id)).links.find((link) => link.id === 'sound')!.findings;
	const has = (id: string, plan: Plan, finding: string) => findings(id, plan).some((f) => f.id === finding);
	const sound = (part: Partial<Plan['sound']>): Plan => ({ ...lounge.plan, sound: { ...lounge.plan.sound, ...part } });

	it('a framed output opened plainly is a stop, and the fix ends it', () => {
		const finding = findings(foghorn.id, foghorn.plan).find((f) => f.id === 'sound.framed-only')!;
		expect(finding.level).toBe('stop');
		expect(has(foghorn.id, finding.fixes[0]!.apply(foghorn.plan), 'sound.framed-only')).toBe(false);
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
			for (const finding of assess(chain, endpoint.plan, context).findings)
				for (const fix of finding.fixes) {
					tried++;
					const after = assess(chain, fix.apply(endpoint.plan), context).findings.find((f) => f.id === finding.id);
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
			const next = assess(chain, plan, context).findings.find((f) => f.level === 'stop' && f.fixes.length);
			if (!next) break;
			plan = next.fixes[0]!.apply(plan);
		}
		expect(assess(chain, plan, context).worst).not.toBe('stop');
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
