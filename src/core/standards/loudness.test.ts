import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { LoudnessMeter, type Loudness } from './loudness';

type Sound = (sec: number, channel: number) => number;

const planesOf = (sound: Sound, seconds: number, rateHz: number, channels: number): Float32Array[] =>
	Array.from({ length: channels }, (_, channel) =>
		Float32Array.from({ length: Math.round(seconds * rateHz) }, (_, n) => sound(n / rateHz, channel))
	);
function measured(planes: readonly Float32Array[], rateHz: number, pieceFrames = 4096): Loudness {
	const meter = new LoudnessMeter(rateHz, planes.length);
	for (let at = 0; at < planes[0]!.length; at += pieceFrames)
		meter.push(planes.map((plane) => plane.subarray(at, at + pieceFrames)));
	return meter.result();
}
const sine =
	(hz: number, dbfs: number): Sound =>
	(sec) =>
		10 ** (dbfs / 20) * Math.sin(2 * Math.PI * hz * sec);
/** The same noise at each run. */
function noise(seed: number): () => number {
	let state = seed;
	return () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 31 - 1;
}

describe('loudness', () => {
	it('of 997 Hz at full scale in one channel is -3.01 LUFS (BS.1770-4, annex 1)', () =>
		expect(measured(planesOf(sine(997, 0), 5, 48_000, 1), 48_000).integratedLufs).toBeCloseTo(-3.01, 1));
	it('of 1000 Hz at -23 dBFS in two channels is -23 LUFS (Tech 3341, test 1)', () =>
		expect(measured(planesOf(sine(1000, -23), 20, 48_000, 2), 48_000).integratedLufs).toBeCloseTo(-23, 1));
	it('leaves out what is quiet by more than 10 LU (Tech 3341, test 3)', () => {
		const steps: Sound = (sec) => sine(1000, sec < 10 || sec >= 70 ? -36 : -23)(sec, 0);
		expect(measured(planesOf(steps, 80, 48_000, 2), 48_000).integratedLufs).toBeCloseTo(-23, 1);
	});
	it.each([
		[-20, -30, 10],
		[-20, -15, 5],
		[-40, -20, 20]
	])('ranges from %s to %s dBFS over %s LU (Tech 3342, tests 1 to 3)', (first, second, rangeLu) => {
		const steps: Sound = (sec) => sine(1000, sec < 20 ? first : second)(sec, 0);
		expect(Math.abs(measured(planesOf(steps, 40, 48_000, 2), 48_000).rangeLu! - rangeLu)).toBeLessThan(1);
	});
	it('finds the peak between two samples (Tech 3341, test 17)', () => {
		const between: Sound = (sec) => Math.SQRT1_2 * Math.sin(2 * Math.PI * 12_000 * sec + Math.PI / 4);
		const { truePeakDbtp } = measured(planesOf(between, 1, 48_000, 1), 48_000);
		expect(truePeakDbtp!).toBeGreaterThan(-3.01 - 0.4);
		expect(truePeakDbtp!).toBeLessThan(-3.01 + 0.2);
		const higher: Sound = (sec) => Math.sin(2 * Math.PI * 12_000 * sec + Math.PI / 4);
		expect(Math.abs(measured(planesOf(higher, 1, 48_000, 1), 48_000).truePeakDbtp!)).toBeLessThan(0.4);
	});
	it.each([
		[2, 1, 0],
		[5, 2, 0],
		[5, 3, 1.5],
		[6, 3, null],
		[6, 4, 1.5],
		[8, 4, 0],
		[8, 6, 1.5]
	])('of %s channels, heard in number %s: %s LU more (BS.1770-4, tables 3 and 4)', (channels, only, more) => {
		const one: Sound = (sec, channel) => (channel === only ? sine(997, -20)(sec, 0) : 0);
		const level = measured(planesOf(one, 1, 48_000, channels), 48_000).integratedLufs;
		if (more === null) expect(level).toBeNull();
		else expect(level! + 23.01).toBeCloseTo(more, 1);
	});
	it('is none of silence and of less than 400 ms', () => {
		expect(
			measured(
				planesOf(() => 0, 5, 48_000, 2),
				48_000
			)
		).toEqual({
			integratedLufs: null,
			rangeLu: null,
			truePeakDbtp: null
		});
		expect(measured(planesOf(sine(440, -6), 0.35, 48_000, 2), 48_000).integratedLufs).toBeNull();
	});
	it('is the same however the samples come', () => {
		const draw = noise(5);
		const planes = planesOf(() => draw() * 0.3, 6, 44_100, 2);
		const whole = measured(planes, 44_100, Infinity);
		for (const frames of [1, 7, 4410, 5000])
			for (const [key, value] of Object.entries(measured(planes, 44_100, frames)))
				expect(value, `${key} at ${frames}`).toBeCloseTo(whole[key as keyof Loudness]!, 9);
	});
});

describe('loudness beside ffmpeg -af ebur128', () => {
	const folder = mkdtempSync(join(tmpdir(), 'yphos-loudness-'));
	afterAll(() => rmSync(folder, { recursive: true }));
	const draw = noise(11);
	let brown = 0;
	const sounds: Record<string, Sound> = {
		'speech-like bursts': (sec) => (Math.sin(2 * Math.PI * 0.7 * sec) > 0.2 ? draw() * 0.2 : draw() * 0.002),
		'deep noise': () => (brown = 0.98 * brown + 0.02 * draw()) * 2,
		'a swelling chord': (sec, channel) =>
			0.02 * (1 + sec) * (sine(220, -6)(sec, 0) + sine(277 + 3 * channel, -9)(sec, 0) + sine(3300, -20)(sec, 0)),
		'clicks over a hum': (sec) => (sec % 1 < 0.002 ? 0.95 : 0) + sine(50, -30)(sec, 0),
		'white noise, nearly full': () => draw() * 0.97
	};
	const RATES_HZ = [48_000, 44_100, 96_000];
	it.each(Object.keys(sounds).map((name, n) => [name, RATES_HZ[n % RATES_HZ.length]!] as const))(
		'%s at %s Hz is within 0.1 LU',
		(name, rateHz) => {
			const planes = planesOf(sounds[name]!, 20, rateHz, 2);
			const samples = new Float32Array(2 * planes[0]!.length);
			for (let n = 0; n < samples.length; n++) samples[n] = planes[n % 2]![n >> 1]!;
			const file = join(folder, 'sound.f32');
			writeFileSync(file, new Uint8Array(samples.buffer));
			const { stderr } = spawnSync(
				'ffmpeg',
				`-hide_banner -nostats -f f32le -ar ${rateHz} -ac 2 -i ${file} -af ebur128=peak=true:dualmono=false -f null -`.split(
					' '
				),
				{ encoding: 'utf8' }
			);
			const said = stderr.slice(stderr.lastIndexOf('Summary:'));
			const number = (pattern: RegExp): number => Number(pattern.exec(said)?.[1]);
			const ours = measured(planes, rateHz);
			expect(Math.abs(ours.integratedLufs! - number(/I:\s+(\S+) LUFS/))).toBeLessThan(0.1);
			expect(Math.abs(ours.rangeLu! - number(/LRA:\s+(\S+) LU/))).toBeLessThan(0.25);
			// Near half the rate a peak is what the interpolating filter makes of it: the standard's is shorter than ffmpeg's.
			const sharp = /bursts|white/.test(name);
			expect(Math.abs(ours.truePeakDbtp! - number(/Peak:\s+(\S+) dBFS/))).toBeLessThan(sharp ? 1.2 : 0.3);
		},
		30_000
	);
});
