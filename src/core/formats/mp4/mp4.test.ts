import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { demoMediaBytes } from '../../../../demo/media';
import { demoMedia, FILM } from '../../../../demo/facts';
import { pictureFacts } from '../../links/sources/lists/pictureFacts';
import { readStillSize } from '../picture/size';
import { framesPerSec, readMp4 } from '.';

const film = demoMediaBytes(FILM)!;
const has = (tool: string): boolean => {
	try {
		execFileSync('which', [tool]);
		return true;
	} catch {
		return false;
	}
};

describe('a film file', () => {
	it('says size, rate, length and sound as the demo\u2019s facts have them', () => {
		const read = readMp4(film);
		if (!read.ok) throw new Error(read.faults[0]!.message);
		const [picture, sound] = read.value.tracks;
		expect(picture).toMatchObject({ kind: 'picture', codec: 'h264', widthPx: 1280, heightPx: 720, constantRate: true });
		expect(framesPerSec(picture!)).toBe(25);
		expect(sound).toMatchObject({ kind: 'sound', codec: 'aac', sampleRateHz: 48_000 });
		const known = demoMedia.find(({ location }) => location === FILM)!;
		expect(pictureFacts(film)).toMatchObject({ codec: known.codec, picture: known.picture });
		expect(Math.abs(pictureFacts(film)!.durationMs! - known.durationMs!)).toBeLessThan(50);
	});
	it('that was cut off says so, and one that is none says that', () => {
		const codeOf = (bytes: Uint8Array): string | null => {
			const read = readMp4(bytes);
			return read.ok ? null : read.faults[0]!.code;
		};
		expect(codeOf(film.slice(0, 40))).toBe('mp4-cut');
		expect(codeOf(new Uint8Array(200))).toBe('mp4-no');
		expect(codeOf(demoMediaBytes('Ferry times.png')!)).toBe('mp4-no');
		expect(pictureFacts(new Uint8Array(200))).toBeNull();
	});
	it.runIf(has('ffmpeg') && has('ffprobe'))(
		'of many kinds is read as ffprobe reads it',
		() => {
			const dir = mkdtempSync(join(tmpdir(), 'yphos-mp4-'));
			const kinds: readonly (readonly [string, readonly string[]])[] = [
				['ntsc.mp4', ['-f', 'lavfi', '-i', 'testsrc=s=320x240:r=30000/1001:d=2', '-c:v', 'libx264']],
				['film.mov', ['-f', 'lavfi', '-i', 'testsrc=s=176x144:r=24:d=2', '-c:v', 'libx264', '-movflags', '+faststart']],
				['ten.mp4', ['-f', 'lavfi', '-i', 'testsrc=s=160x120:r=50:d=1', '-c:v', 'libx264', '-pix_fmt', 'yuv420p10le']],
				['old.mp4', ['-f', 'lavfi', '-i', 'testsrc=s=640x480:r=25:d=1', '-c:v', 'mpeg4']],
				['sound.mp4', ['-f', 'lavfi', '-i', 'sine=r=44100:d=2', '-c:a', 'aac', '-ac', '2']]
			];
			for (const [name, options] of kinds) {
				const path = join(dir, name);
				execFileSync('ffmpeg', ['-v', 'error', '-y', ...options, path]);
				const told = JSON.parse(
					execFileSync('ffprobe', ['-v', 'error', '-show_streams', '-show_format', '-of', 'json', path], {
						encoding: 'utf8'
					})
				) as {
					streams: { codec_name: string; width?: number; height?: number; nb_frames: string; avg_frame_rate: string }[];
					format: { duration: string };
				};
				const read = readMp4(new Uint8Array(readFileSync(path)));
				if (!read.ok) throw new Error(`${name}: ${read.faults[0]!.message}`);
				expect(Math.abs(read.value.durationMs - Number(told.format.duration) * 1000), name).toBeLessThan(30);
				read.value.tracks.forEach((track, n) => {
					const stream = told.streams[n]!;
					expect(track.codec, name).toBe(stream.codec_name);
					expect(track.samples, name).toBe(Number(stream.nb_frames));
					expect([track.widthPx, track.heightPx], name).toEqual([stream.width ?? 0, stream.height ?? 0]);
					const [num, den] = stream.avg_frame_rate.split('/').map(Number) as [number, number];
					if (track.kind === 'picture') expect(framesPerSec(track), name).toBeCloseTo(num / den, 2);
				});
				if (name === 'ten.mp4') expect(read.value.tracks[0]!.bitDepth).toBe(10);
			}
		},
		60_000
	);
});

describe('a still picture', () => {
	it('of the demo has the size of its facts', () => {
		for (const { location, picture } of demoMedia)
			if (picture?.codec === 'png')
				expect(readStillSize(demoMediaBytes(location)!)).toMatchObject({
					value: { codec: 'png', widthPx: picture.widthPx, heightPx: picture.heightPx }
				});
	});
	it.runIf(has('ffmpeg'))('as JPEG is read past its other markers, and cut ones are said', () => {
		const path = join(mkdtempSync(join(tmpdir(), 'yphos-still-')), 'one.jpg');
		execFileSync('ffmpeg', [
			...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc=s=333x222:d=1'],
			...['-frames:v', '1', path]
		]);
		const bytes = new Uint8Array(readFileSync(path));
		expect(readStillSize(bytes)).toEqual({
			ok: true,
			value: { codec: 'mjpeg', widthPx: 333, heightPx: 222, bitDepth: 8 }
		});
		const cut = readStillSize(bytes.slice(0, 24));
		expect(!cut.ok && cut.faults[0]!.code).toBe('jpeg-cut');
	});
});
