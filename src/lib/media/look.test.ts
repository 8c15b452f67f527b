import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { chplChapters, commentChapters, id3Chapters, matroskaChapters } from '$core/formats/chapters';
import { mediaSchema } from '$core/parts/media';
import { lookAt } from './look';

const folder = mkdtempSync(join(tmpdir(), 'yphos-look-'));
const at = (name: string): string => join(folder, name);
afterAll(() => rmSync(folder, { recursive: true }));

const META = `;FFMETADATA1
title=Slow tide
artist=The Skerries
album=Ebb
track=3
date=2024
[CHAPTER]
TIMEBASE=1/1000
START=0
END=1000
title=First light
[CHAPTER]
TIMEBASE=1/1000
START=1000
END=2000
title=Ebb & flow
`;
const SOUND = '-f lavfi -i sine=440:duration=2:sample_rate=48000';
const FILM = `${SOUND} -f lavfi -i testsrc2=size=320x240:rate=25:duration=2`;
const make = (command: string): void => {
	const { status, stderr } = spawnSync('ffmpeg', `-v error -y ${command}`.split(' '), {
		cwd: folder,
		encoding: 'utf8'
	});
	if (status !== 0) throw new Error(stderr);
};
const look = async (name: string) => lookAt(new Blob([readFileSync(at(name))]));
const CHAPTERS = [
	{ startMs: 0, title: 'First light' },
	{ startMs: 1000, title: 'Ebb & flow' }
];

beforeAll(() => {
	writeFileSync(at('meta'), META);
	for (const [name, codec] of [
		['a.mp3', 'libmp3lame'],
		['a.flac', 'flac'],
		['a.opus', 'libopus'],
		['a.m4a', 'alac']
	])
		make(`${SOUND} -i meta -map_metadata 1 -c:a ${codec} ${name}`);
	make(`${SOUND} -c:a pcm_s24le a.wav`);
	make(
		`${FILM} -i meta -map_metadata 2 -c:v libx264 -pix_fmt yuv420p -colorspace bt709 -color_primaries bt709 -color_trc bt709 -c:a aac a.mp4`
	);
	make(
		`${FILM} -i meta -map_metadata 2 -c:v libx265 -x265-params log-level=error -pix_fmt yuv422p10le -c:a flac a.mkv`
	);
	make(`${FILM} -c:v mpeg2video -c:a mp2 a.ts`);
	make('-i a.mp4 -c copy -metadata:s:v rotate=90 turned.mp4');
	make(
		`-f lavfi -i testsrc2=size=64x48:rate=25:duration=2 -vf select=not(mod(n\\,7))+not(mod(n\\,3)) -fps_mode vfr -c:v libx264 vfr.mp4`
	);
	vi.spyOn(console, 'warn').mockImplementation(() => undefined);
	vi.spyOn(console, 'info').mockImplementation(() => undefined);
	vi.spyOn(console, 'error').mockImplementation(() => undefined);
});

describe('what a file says of itself, as ffmpeg made it', () => {
	it.each([
		['a.mp3', { codec: 'mp3', lossless: false, sampleRateHz: 48_000, channels: 1 }, CHAPTERS],
		['a.flac', { codec: 'flac', lossless: true, bitDepth: 16 }, []],
		['a.opus', { codec: 'opus', lossless: false }, CHAPTERS],
		['a.m4a', { codec: 'alac', lossless: true }, CHAPTERS],
		[
			'a.mp4',
			{ codec: 'aac', picture: { codec: 'h264', widthPx: 320, heightPx: 240, framesPerSec: 25, bitDepth: 8 } },
			CHAPTERS
		],
		[
			'a.mkv',
			{ codec: 'flac', picture: { codec: 'h265', widthPx: 320, heightPx: 240, framesPerSec: 25, bitDepth: 10 } },
			CHAPTERS
		]
	])('%s', async (name, facts, chapters) => {
		const found = await look(name);
		expect(found!.facts).toMatchObject(facts);
		expect(found!.facts.details!.chapters).toEqual(chapters);
		if (name !== 'a.mkv')
			expect(found!.facts.details!.tags).toMatchObject({ title: 'Slow tide', artist: 'The Skerries' });
		expect(Math.abs(found!.facts.durationMs! - 2000)).toBeLessThan(60);
		const media = {
			...found!.facts,
			location: name,
			bitRateBps: null,
			sizeBytes: 1,
			sha256: '',
			kept: 'person',
			from: 'file'
		};
		expect(mediaSchema.safeParse(media).error).toBeUndefined();
	});
	it('is to the millisecond where the file is', async () =>
		expect((await look('a.wav'))!.facts).toMatchObject({
			codec: 'pcm',
			bitDepth: 24,
			durationMs: 2000,
			details: { container: 'WAVE' }
		}));
	it('has profile, level, chroma, range and colour', async () => {
		expect((await look('a.mp4'))!.facts.details).toMatchObject({
			pictureProfile: 'High, level 1.3',
			soundProfile: 'LC',
			chroma: '4:2:0',
			colour: 'bt709'
		});
		expect((await look('a.mkv'))!.facts.details).toMatchObject({
			pictureProfile: 'Range extensions, level 2.0',
			chroma: '4:2:2'
		});
	});
	it('tells a turned film and one whose frames are not even', async () => {
		// What this ffmpeg calls 90 is counter-clockwise: so it turns the film itself.
		expect((await look('turned.mp4'))!.facts.details!.turnedDeg).toBe(270);
		expect((await look('a.mp4'))!.facts.details!.rateVaries).toBeUndefined();
		expect((await look('vfr.mp4'))!.facts.details!.rateVaries).toBe(true);
	});
	it('of a FLAC file that is cut and damaged is what its head says', async () => {
		const cut = Uint8Array.from(readFileSync(at('a.flac'))).subarray(0, 9000);
		for (const n of [4500, 5200, 6100]) cut[n] = cut[n]! ^ 0x5a;
		expect((await lookAt(new Blob([cut])))!.facts).toMatchObject({ codec: 'flac', durationMs: 2000 });
	});
	it('does not take a broadcast’s recording for sound alone', async () => expect(await look('a.ts')).toBeNull());
	it('is nothing of what is no medium', async () => expect(await lookAt(new Blob(['no sound at all']))).toBeNull());
});

it('turns a photograph as its camera says', async () => {
	make('-f lavfi -i testsrc2=size=64x48 -frames:v 1 p.jpg');
	const jpeg = readFileSync(at('p.jpg'));
	// Exif of one entry: orientation 6, the right-hand side is the top.
	const exif = Buffer.from('45786966000049492a0008000000010012010300010000000600000000000000', 'hex');
	const turned = Buffer.concat([
		jpeg.subarray(0, 2),
		Buffer.from([0xff, 0xe1, 0, exif.length + 2]),
		exif,
		jpeg.subarray(2)
	]);
	expect((await lookAt(new Blob([jpeg])))!.facts).toMatchObject({
		picture: { codec: 'mjpeg', widthPx: 64, heightPx: 48 }
	});
	expect((await lookAt(new Blob([turned])))!.facts.details!.turnedDeg).toBe(90);
});

describe('damaged files', () => {
	it('of chapters: 10 000 changed inputs give chapters in order, within bounds', () => {
		let state = 3;
		const draw = (below: number): number => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) % below;
		const mp3 = readFileSync(at('a.mp3')).subarray(0, 2000);
		const mkv = readFileSync(at('a.mkv')).subarray(0, 4000);
		const chpl = Buffer.from('010000000000000002' + '0000000000000000' + '0141' + '0000000000989680' + '0142', 'hex');
		expect(chplChapters(chpl)).toEqual([
			{ startMs: 0, title: 'A' },
			{ startMs: 1000, title: 'B' }
		]);
		expect(id3Chapters(mp3)).toEqual(CHAPTERS);
		expect(matroskaChapters(mkv)).toEqual(CHAPTERS);
		for (let n = 0; n < 10_000; n++) {
			const [read, whole] = (
				[
					[id3Chapters, mp3],
					[matroskaChapters, mkv],
					[chplChapters, chpl]
				] as const
			)[n % 3]!;
			const bytes = Uint8Array.from(whole).subarray(0, n % 5 ? whole.length : draw(whole.length));
			for (let k = 0; k < 4 && bytes.length; k++) bytes[draw(bytes.length)] = draw(256);
			const found = read(bytes);
			expect(found.length).toBeLessThanOrEqual(500);
			expect(found.every(({ startMs }, k) => k === 0 || startMs >= found[k - 1]!.startMs)).toBe(true);
		}
		expect(commentChapters({ chapter001: '00:01:02.500', CHAPTER001NAME: 'x', CHAPTER002: 'noon' })).toEqual([
			{ startMs: 62_500, title: 'x' }
		]);
	});
});
