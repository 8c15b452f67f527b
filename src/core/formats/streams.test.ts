import { spawnSync } from 'node:child_process';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readHls } from './hls';
import { icyBlock, IcyReader } from './icy';
import { readStreamHead } from './streamHead';

const made = (rate: number, channels: number, ...options: string[]): Uint8Array =>
	spawnSync(
		'ffmpeg',
		[
			'-v',
			'error',
			'-f',
			'lavfi',
			'-i',
			`sine=330:duration=2:sample_rate=${rate}`,
			'-ac',
			String(channels),
			...options,
			'-'
		],
		{ maxBuffer: 1 << 24 }
	).stdout;

describe('the head of a stream, as ffmpeg made it', () => {
	it.each([
		[44_100, 2, ['-b:a', '192k', '-f', 'mp3'], { codec: 'mp3', bitRateBps: 192_000 }],
		[22_050, 1, ['-b:a', '48k', '-f', 'mp3'], { codec: 'mp3', bitRateBps: 48_000 }],
		[48_000, 2, ['-b:a', '256k', '-f', 'mp2'], { codec: 'mp2', bitRateBps: 256_000 }],
		[48_000, 2, ['-c:a', 'aac', '-f', 'adts'], { codec: 'aac', bitRateBps: null }],
		[32_000, 1, ['-c:a', 'aac', '-f', 'adts'], { codec: 'aac', bitRateBps: null }],
		[44_100, 2, ['-c:a', 'libvorbis', '-f', 'ogg'], { codec: 'vorbis' }],
		[48_000, 2, ['-c:a', 'libopus', '-f', 'ogg'], { codec: 'opus', bitRateBps: null }],
		[96_000, 2, ['-c:a', 'flac', '-f', 'flac'], { codec: 'flac', bitRateBps: null }]
	])('%s Hz, %s channels %s', (sampleRateHz, channels, options, head) => {
		const bytes = made(sampleRateHz, channels, ...options);
		expect(readStreamHead(bytes)).toMatchObject({ ...head, sampleRateHz, channels });
		// Whoever joins later hears from the middle of a frame.
		if (/mp[23]|aac/.test(head.codec))
			expect(readStreamHead(bytes.subarray(1777))).toMatchObject({ ...head, sampleRateHz, channels });
	});
	it('is none of noise or of too little, and is found in bounded time', () => {
		expect(readStreamHead(new Uint8Array())).toBeNull();
		expect(readStreamHead(new TextEncoder().encode('<html>'.repeat(20_000)))).toBeNull();
		fc.assert(
			fc.property(fc.uint8Array({ maxLength: 400 }), (bytes) => void readStreamHead(bytes)),
			{ numRuns: 10_000 }
		);
	});
});

describe('titles within a stream', () => {
	it('come out as they went in, and the sound without them, however it is cut', () =>
		fc.assert(
			fc.property(
				fc.array(fc.string({ maxLength: 60 }), { minLength: 1, maxLength: 6 }),
				fc.integer({ min: 1, max: 50 }),
				(titles, piece) => {
					const interval = 20;
					const sound = Uint8Array.from({ length: interval * titles.length }, (_, n) => n % 251);
					const whole = titles.flatMap((title, n) => [
						...sound.subarray(n * interval, (n + 1) * interval),
						...icyBlock(title)
					]);
					const heard: string[] = [];
					const reader = new IcyReader(interval, (title) => heard.push(title));
					const out: number[] = [];
					for (let at = 0; at < whole.length; at += piece)
						out.push(...reader.take(Uint8Array.from(whole.slice(at, at + piece))));
					expect(out).toEqual([...sound]);
					const clean = (text: string): string => text.replaceAll("'", '\u2019');
					expect(heard).toEqual(
						titles
							.filter((title) => title !== '')
							.map(clean)
							.map((title) => title.split("';")[0])
					);
				}
			)
		));
	it('are none where the server sends none', () => {
		const reader = new IcyReader(0, () => expect.unreachable());
		expect(reader.take(Uint8Array.from([1, 2, 3]))).toEqual(Uint8Array.from([1, 2, 3]));
	});
});

describe('an HTTP live stream', () => {
	const read = (...lines: string[]) => readHls(['#EXTM3U', ...lines].join('\n'));
	it('has variants, or segments', () => {
		expect(read('#EXT-X-STREAM-INF:PROGRAM-ID=1,BANDWIDTH=128000,CODECS="mp4a.40.2,avc1.4d401f"', 'a/b.m3u8')).toEqual({
			ok: true,
			value: {
				kind: 'variants',
				variants: [{ bandwidthBps: 128_000, codecs: 'mp4a.40.2,avc1.4d401f', uri: 'a/b.m3u8' }]
			}
		});
		expect(read('#EXT-X-MEDIA-SEQUENCE:7', '#EXTINF:9.009,', '7.ts', '#EXTINF:3,x', '8.ts', '#EXT-X-ENDLIST')).toEqual({
			ok: true,
			value: {
				kind: 'segments',
				firstNumber: 7,
				ended: true,
				segments: [
					{ uri: '7.ts', durationSec: 9.009 },
					{ uri: '8.ts', durationSec: 3 }
				]
			}
		});
	});
	it('is not a playlist of titles, nor an empty one', () => {
		expect(readHls('#EXTM3U\n#EXTINF:3,Title\nsong.mp3\n')).toMatchObject({ ok: false, faults: [{ code: 'hls-no' }] });
		expect(read('#EXT-X-TARGETDURATION:3')).toMatchObject({ ok: false, faults: [{ code: 'hls-empty' }] });
	});
});
