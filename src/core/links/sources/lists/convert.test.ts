import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../../demo/workshop';
import { demoMedia } from '../../../../../demo/facts';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { derive } from '../../../engines/derive';
import { cardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { runSheet } from '../../../engines/runSheet';
import { write } from '../../../engines/write';
import { MOST_SHARE, playLoad } from '../../../parts/playLoad';
import type { Media } from '../../../parts/media';
import { newRule } from '../../../onAir/when';
import {
	conversionsOf,
	convertCommand,
	convertedName,
	convertFilm,
	exactRate,
	isFilm,
	judgeFilm,
	judgeOnPage
} from './convert';

const LENS = demoMedia.find(({ location }) => location === 'Lens turning.mp4')!;
const film = (picture: Partial<NonNullable<Media['picture']>>, more: Partial<Media> = {}) => {
	const made = { ...LENS, ...more, picture: { ...LENS.picture!, ...picture } };
	if (!isFilm(made)) throw new Error('no film');
	return made;
};
const OLD = {
	name: 'Old board',
	decoders: [{ codec: 'h264', widthPx: 1920, heightPx: 1080, framesPerSec: 30, bitDepth: 8 }],
	softwareMpixPerSec: 45
} as const;
const BARE = { ...OLD, decoders: [] };
const HD = { widthPx: 1920, heightPx: 1080 };

describe('a film against a board', () => {
	it.each([
		['its circuit', {}, OLD, true, 'by circuit'],
		['its processor', { widthPx: 640, heightPx: 360 }, BARE, true, '%'],
		[
			'nothing: too fast',
			{ framesPerSec: 60, widthPx: 1920, heightPx: 1080 },
			OLD,
			false,
			'larger or faster than its circuit'
		],
		['nothing: another codec', { codec: 'h265', widthPx: 1920, heightPx: 1080 }, OLD, false, 'no circuit for h265'],
		[
			'nothing: too deep',
			{ bitDepth: 10, widthPx: 1920, heightPx: 1080 },
			OLD,
			false,
			'8 bits a colour, the film has 10'
		],
		['nothing: unknown', { codec: 'wmv3' }, OLD, false, 'wmv3']
	] as const)('is played by %s', (_, picture, board, plays, why) => {
		const judged = judgeFilm(board as never, film(picture));
		expect(judged.plays).toBe(plays);
		expect(judged.why).toContain(why);
	});
	it('on a page is judged by what the browser decodes, without a circuit', () => {
		const small = { widthPx: 640, heightPx: 360 };
		expect(judgeOnPage(OLD as never, film({ codec: 'h265', ...small }))).toMatchObject({ plays: false });
		expect(judgeOnPage(OLD as never, film({ codec: 'h265', ...small })).why).toContain('decodes no h265');
		expect(judgeOnPage(OLD as never, film(small))).toMatchObject({ plays: true });
		// By its circuit the board itself would.
		expect(judgeFilm(OLD as never, film(HD)).plays).toBe(true);
		expect(judgeOnPage(OLD as never, film(HD)).plays).toBe(false);
	});
	it('rates of television stay the fractions that they are', () =>
		expect([24, 23.976, 29.97, 59.94, 50, 12.5, 23.976023976].map(exactRate)).toEqual([
			'24',
			'24000/1001',
			'30000/1001',
			'60000/1001',
			'50',
			'12.5',
			'24000/1001'
		]));
	it('is made anew as large as screen and board take it, at its own rate', () => {
		expect(convertFilm(OLD as never, film({ codec: 'h265', widthPx: 3840, heightPx: 2160 }), HD)!.shape).toEqual({
			codec: 'h264',
			...HD,
			framesPerSec: 25,
			bitDepth: 8
		});
		expect(
			convertFilm(OLD as never, film({ codec: 'h265', widthPx: 3840, heightPx: 2160 }), {
				widthPx: 1280,
				heightPx: 720
			})!.shape
		).toMatchObject({ widthPx: 1280, heightPx: 720 });
		expect(convertFilm(OLD as never, film({ framesPerSec: 60, ...HD }), HD)!.shape).toMatchObject({
			...HD,
			framesPerSec: 30
		});
		expect(convertFilm({ ...BARE, softwareMpixPerSec: 0.1 }, film({}), HD)).toBeNull();
	});
	it('what is made is always played, is no larger than the film and the screen, and keeps its shape', () => {
		const px = fc.integer({ min: 64, max: 4096 });
		fc.assert(
			fc.property(
				px,
				px,
				fc.constantFrom(24, 25, 30, 50, 60),
				fc.constantFrom('h264', 'h265', 'wmv3'),
				fc.integer({ min: 5, max: 400 }),
				fc.boolean(),
				(widthPx, heightPx, framesPerSec, codec, speed, hasCircuit) => {
					const board = { ...(hasCircuit ? OLD : BARE), softwareMpixPerSec: speed };
					const made = convertFilm(board as never, film({ widthPx, heightPx, framesPerSec, codec }), HD);
					if (!made) return;
					const load = playLoad(board as never, made.shape);
					expect(load.by === 'circuit' || load.share <= MOST_SHARE).toBe(true);
					expect(made.shape.widthPx).toBeLessThanOrEqual(Math.min(HD.widthPx, widthPx) + 2);
					expect(made.shape.heightPx).toBeLessThanOrEqual(Math.min(HD.heightPx, heightPx) + 2);
					expect([made.shape.widthPx % 2, made.shape.heightPx % 2]).toEqual([0, 0]);
					if (made.shape.heightPx > 100 && made.shape.widthPx > 100)
						expect(made.shape.widthPx / made.shape.heightPx / (widthPx / heightPx)).toBeCloseTo(1, 1);
				}
			)
		);
	});
});

describe('the command that makes it', () => {
	const dir = mkdtempSync(join(tmpdir(), 'yphos-convert-'));
	afterAll(() => rmSync(dir, { recursive: true, force: true }));
	const made = (location: string) =>
		convertFilm(OLD as never, film({ codec: 'h265', widthPx: 1920, heightPx: 1080 }, { location }), {
			widthPx: 320,
			heightPx: 180
		})!;
	it('names files as they are, in either shell, options or not', () => {
		expect(convertedName('/srv/films/It\u2019s "a" film.mkv')).toBe('It\u2019s "a" film.mkv.plays.mp4');
		expect(convertCommand(made("a'b.mkv"), 'posix')).toContain(`'a'\\''b.mkv'`);
		expect(convertCommand(made("a'b.mkv"), 'powershell')).toContain(`'a''b.mkv'`);
		expect(convertCommand(made('-y.mkv'), 'posix')).toContain('-i ./-y.mkv ');
	});
	const has = (name: string): boolean => spawnSync(name, ['-version']).status === 0;
	it.runIf(has('ffmpeg') && has('ffprobe'))('makes a film of that codec, size and rate, with its sound', () => {
		const name = "Tide & 'moon'.mkv";
		const shell = (command: string): string =>
			execFileSync('sh', ['-c', command], { cwd: dir, encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] });
		execFileSync(
			'ffmpeg',
			[
				'-v',
				'error',
				'-f',
				'lavfi',
				'-i',
				'testsrc=s=640x360:r=25:d=1',
				'-f',
				'lavfi',
				'-i',
				'sine=d=1',
				'-c:v',
				'libx264',
				'-pix_fmt',
				'yuv420p',
				name
			],
			{ cwd: dir }
		);
		const one = made(name);
		shell(convertCommand(one, 'posix'));
		expect(existsSync(join(dir, one.name))).toBe(true);
		const probed = JSON.parse(
			execFileSync('ffprobe', ['-v', 'error', '-of', 'json', '-show_streams', one.name], { cwd: dir, encoding: 'utf8' })
		) as {
			streams: { codec_name: string; width?: number; height?: number; avg_frame_rate: string; pix_fmt?: string }[];
		};
		expect(probed.streams.map(({ codec_name }) => codec_name)).toEqual(['h264', 'aac']);
		expect(probed.streams[0]).toMatchObject({ width: 320, height: 180, avg_frame_rate: '25/1', pix_fmt: 'yuv420p' });
	});
});

describe('a page with a film', () => {
	const { plan } = demoWorkshop.endpoints.find(({ id }) => id === 'ticket-hatch')!;
	const AT = '/srv/films/Lens.mp4';
	const made = (codec: string) => film({ codec, widthPx: 640, heightPx: 360 }, { location: AT });
	const items = [...plan.sources.items, { ...plan.sources.items[0]!, id: 'film', location: AT, title: 'Lens' }];
	const having = (codec: string) => ({
		...demoWorkshop,
		media: [...demoWorkshop.media, made(codec)]
	});
	const shown = {
		...plan,
		sources: { ...plan.sources, items },
		programme: {
			...plan.programme,
			lists: [{ id: 'films', title: 'Films', items: ['film'], wishes: [], valid: [] }],
			rules: [newRule('r', 'films')]
		}
	};
	const unplayed = (codec: string) => {
		const around = contextFor(judges, having(codec), 'ticket-hatch');
		const bench = benchFor(writers, shown, around);
		return {
			hard: conversionsOf(items, derive(judges, shown, around).context).map(({ made }) => made?.shape.codec),
			said: rehearse({
				links: rehearsed,
				card: cardTree(write(writers, shown, around)),
				bench: { ...bench, media: [made(codec)] },
				startUtcMs: Date.UTC(2026, 10, 26, 9),
				forMs: 400_000
			}).events.filter(({ code }) => code === 'film-unplayed').length
		};
	};
	it('that the browser does not decode stays black, and made anew it does not', () => {
		expect(unplayed('h265')).toMatchObject({ hard: ['h264'], said: 1 });
		expect(unplayed('h264')).toMatchObject({ hard: [], said: 0 });
	});
});

describe('a plan with a film that is too hard', () => {
	const media = demoWorkshop.media.map((one) =>
		one.location === LENS.location
			? film({ codec: 'h265', widthPx: 3840, heightPx: 2160, framesPerSec: 50, bitDepth: 10 })
			: one
	);
	const workshop = { ...demoWorkshop, media };
	const { plan } = workshop.endpoints.find(({ id }) => id === 'lamp-room')!;
	const context = contextFor(chain, workshop, 'lamp-room');
	it('says so, and the sheet and the docs say what to run; a film that plays is left alone', () => {
		const found = assess(judges, plan, context).findings.find(({ id }) => id === 'sources.too-hard');
		expect(found?.title).toContain('Lens turning');
		const step = runSheet(writers, plan, context)
			.flatMap(({ steps }) => steps)
			.find(({ id }) => id.endsWith('convert-media'));
		expect(step?.command).toContain("'Lens turning.mp4.plays.mp4'");
		expect(write(writers, plan, context).map(({ path }) => path)).toContain('docs/convert-media.sh');
		const fine = contextFor(chain, demoWorkshop, 'lamp-room');
		expect(assess(judges, plan, fine).findings.map(({ id }) => id)).not.toContain('sources.too-hard');
	});
});
