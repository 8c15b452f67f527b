import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readFileListing } from '$core/formats/fileListing';
import { readPixelFormat } from '$core/formats/pixelFormat';
import { fromListing } from '$core/links/sources/stores/fromListing';
import { convertCommand, convertFilm, exactRate, isFilm, judgeFilm } from '$core/links/sources/lists/convert';
import type { Media } from '$core/parts/media';
import { lookAt } from './look';

const dir = mkdtempSync(join(tmpdir(), 'yphos-films-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const has = (name: string): boolean => spawnSync(name, ['-version']).status === 0;
const ffmpeg = (words: string): void =>
	void execFileSync('ffmpeg', ['-v', 'error', '-y', ...words.split(' ')], {
		cwd: dir,
		stdio: ['ignore', 'pipe', 'pipe']
	});
const probe = (name: string): string =>
	execFileSync('ffprobe', ['-v', 'error', '-of', 'json=c=1', '-show_format', '-show_streams', name], {
		cwd: dir,
		encoding: 'utf8'
	});

const BOARD = {
	name: 'Board',
	decoders: [{ codec: 'h264', widthPx: 1920, heightPx: 1080, framesPerSec: 60, bitDepth: 8 }],
	softwareMpixPerSec: 400
} as const;
const SEEN = (rate: string) =>
	`-f lavfi -i testsrc2=size=640x360:rate=${rate}:duration=2 -f lavfi -i sine=440:duration=2`;
/** Name, how it is made, and what it is. */
const CLIPS = [
	[
		'field.mp4',
		`${SEEN('25')} -vf setfield=tff -c:v libx264 -flags +ildct+ilme -x264-params tff=1 -pix_fmt yuv420p -c:a aac`,
		{ bitDepth: 8, chroma: '4:2:0', interlaced: true, hdr: undefined, rate: '25' }
	],
	[
		'rows.mkv',
		`${SEEN('30000/1001')} -vf setfield=tff -c:v mpeg2video -flags +ildct+ilme -pix_fmt yuv422p -c:a mp2`,
		{ bitDepth: 8, chroma: '4:2:2', interlaced: true, hdr: undefined, rate: '30000/1001' }
	],
	[
		'bright.mp4',
		`${SEEN('24000/1001')} -c:v libx265 -x265-params log-level=error:colorprim=bt2020:transfer=smpte2084:colormatrix=bt2020nc -pix_fmt yuv420p10le -color_primaries bt2020 -color_trc smpte2084 -colorspace bt2020nc -tag:v hvc1 -ac 6 -c:a aac`,
		{ bitDepth: 10, chroma: '4:2:0', interlaced: undefined, hdr: 'pq', rate: '24000/1001' }
	],
	[
		'fine.mp4',
		`${SEEN('60000/1001')} -c:v libx264 -profile:v high422 -pix_fmt yuv422p10le -c:a aac`,
		{ bitDepth: 10, chroma: '4:2:2', interlaced: undefined, hdr: undefined, rate: '60000/1001' }
	],
	[
		'plain.mp4',
		`${SEEN('25')} -c:v libx264 -profile:v high422 -x264-params profile=high422 -pix_fmt yuv420p -c:a aac`,
		{ bitDepth: 8, chroma: '4:2:0', interlaced: undefined, hdr: undefined, rate: '25' }
	]
] as const;

describe.runIf(has('ffmpeg') && has('ffprobe'))('films as ffmpeg makes them', () => {
	beforeAll(() => {
		for (const [name, made] of CLIPS) ffmpeg(`${made} ${name}`);
	}, 120_000);

	const listed = (name: string): Media => {
		const listing = readFileListing(new TextEncoder().encode(probe(name)));
		if (!listing.ok) throw new Error(name);
		const store = { id: 's', name: 's', kind: 'stick', label: 'S', fileSystem: 'exfat' } as never;
		return fromListing(listing.value, store).media[0]!;
	};

	it.each(CLIPS)('%s says what it is, to its listing and to the page', async (name, _, { rate, ...says }) => {
		const { picture, details } = listed(name);
		expect({ ...says, bitDepth: picture!.bitDepth }).toEqual(says);
		expect(details).toMatchObject(JSON.parse(JSON.stringify({ ...says, bitDepth: undefined })) as object);
		expect([details!.interlaced, details!.hdr]).toEqual([says.interlaced, says.hdr]);
		expect(exactRate(picture!.framesPerSec!)).toBe(rate);
		// MPEG-2 is named by the listing alone.
		const looked = name.endsWith('.mkv') ? null : await lookAt(new Blob([readFileSync(join(dir, name))]));
		if (looked) {
			expect(looked.facts.picture!.bitDepth).toBe(says.bitDepth);
			expect(looked.facts.details).toMatchObject({ chroma: says.chroma });
			expect([looked.facts.details!.interlaced, looked.facts.details!.hdr]).toEqual([says.interlaced, says.hdr]);
		}
	});

	it.each(CLIPS)('%s made anew is plain: whole frames, 8 bits, its own rate, two channels', (name, _, { rate }) => {
		const media = { ...listed(name), location: name };
		if (!isFilm(media)) throw new Error(name);
		const made = convertFilm(BOARD as never, media, { widthPx: 320, heightPx: 180 })!;
		execFileSync('sh', ['-c', convertCommand(made, 'posix')], { cwd: dir, stdio: 'ignore' });
		const { streams } = JSON.parse(probe(made.name)) as { streams: Record<string, unknown>[] };
		const wanted = made.shape.framesPerSec < 31 ? rate : exactRate(made.shape.framesPerSec);
		expect(streams[0]).toMatchObject({
			codec_name: 'h264',
			width: 320,
			height: 180,
			pix_fmt: 'yuv420p',
			avg_frame_rate: wanted.includes('/') ? wanted : `${wanted}/1`,
			field_order: 'progressive'
		});
		if (made.from.hdr) expect(streams[0]).toMatchObject({ color_transfer: 'bt709', color_primaries: 'bt709' });
		expect(streams[1]).toMatchObject({ codec_name: 'aac', channels: Math.min(2, media.channels) });
		const again = { ...listed(made.name), location: made.name };
		expect(isFilm(again) && judgeFilm(BOARD as never, again)).toMatchObject({ plays: true, flaw: null });
	});

	it('what was two fields has no comb, and what was bright is neither pale nor black', () => {
		/** Mean brightness, and how many frames are taken for two fields. Source: ffmpeg-filters(1), signalstats, idet. */
		const measured = (name: string) => {
			const { stderr } = spawnSync('ffmpeg', ['-i', name, '-vf', 'idet', '-an', '-f', 'null', '-'], {
				cwd: dir,
				encoding: 'utf8'
			});
			const stats = execFileSync(
				'ffprobe',
				[
					'-v',
					'error',
					'-f',
					'lavfi',
					`movie=${name},signalstats`,
					'-show_entries',
					'frame_tags=lavfi.signalstats.YAVG',
					'-of',
					'csv=p=0'
				],
				{ cwd: dir, encoding: 'utf8' }
			);
			const values = stats.trim().split('\n').map(Number);
			const [, tff, bff] = /Multi frame detection: TFF:\s*(\d+) BFF:\s*(\d+)/.exec(stderr)!;
			return { fields: Number(tff) + Number(bff), mean: values.reduce((sum, value) => sum + value, 0) / values.length };
		};
		// Two fields of different instants.
		ffmpeg(
			`-f lavfi -i testsrc2=size=640x360:rate=50:duration=2 -vf interlace=scan=tff -c:v libx264 -flags +ildct+ilme -x264-params tff=1 -pix_fmt yuv420p comb.mp4`
		);
		const media = { ...listed('comb.mp4'), location: 'comb.mp4' };
		if (!isFilm(media)) throw new Error('comb');
		// At its own size: scaling would hide it.
		const made = convertFilm(BOARD as never, media, null)!;
		execFileSync('sh', ['-c', convertCommand(made, 'posix')], { cwd: dir, stdio: 'ignore' });
		expect(measured('comb.mp4').fields).toBeGreaterThan(30);
		expect(measured(made.name).fields).toBeLessThan(5);
		const { mean } = measured('bright.mp4.plays.mp4');
		expect(mean).toBeGreaterThan(30);
		expect(mean).toBeLessThan(235);
	});
});

it('names of pixel formats are read as FFmpeg means them', () => {
	expect(
		Object.fromEntries(
			[
				'yuv420p',
				'yuvj420p',
				'yuv422p10le',
				'p010le',
				'p210le',
				'nv12',
				'gray10le',
				'yuv444p12be',
				'gbrp10le',
				'rgb24'
			].map((name) => {
				const { bitDepth, chroma, fullRange } = readPixelFormat(name)!;
				return [name, `${bitDepth} ${chroma}${fullRange ? ' full' : ''}`];
			})
		)
	).toEqual({
		yuv420p: '8 4:2:0',
		yuvj420p: '8 4:2:0 full',
		yuv422p10le: '10 4:2:2',
		p010le: '10 4:2:0',
		p210le: '10 4:2:2',
		nv12: '8 4:2:0',
		gray10le: '10 4:0:0',
		yuv444p12be: '12 4:4:4',
		gbrp10le: '10 4:4:4 full',
		rgb24: '8 4:4:4 full'
	});
	expect(readPixelFormat('vaapi')).toBeNull();
});
