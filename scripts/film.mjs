// Draws the demo's short film, encodes it with ffmpeg, and writes it as demo/film.ts: node scripts/film.mjs
// A lens that turns, a bar that moves a step with each frame, and a mark of known colour in each corner.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { root, run, tool } from './run.mjs';

const WIDTH = 1280;
const HEIGHT = 720;
const FRAMES_PER_SEC = 25;
const FRAMES = 8 * FRAMES_PER_SEC;
const MARK = 48;
const INK = [14, 22, 26];
const GLASS = [196, 222, 214];
const LAMP = [250, 226, 150];

/** One frame, red, green and blue in turn. */
function draw(n) {
	const pixels = Buffer.alloc(WIDTH * HEIGHT * 3);
	const box = (x, y, width, height, [r, g, b]) => {
		for (let row = Math.max(0, y); row < Math.min(HEIGHT, y + height); row++)
			for (let at = Math.max(0, x); at < Math.min(WIDTH, x + width); at++) {
				const to = (row * WIDTH + at) * 3;
				pixels[to] = r;
				pixels[to + 1] = g;
				pixels[to + 2] = b;
			}
	};
	const mix = (a, b, part) => a.map((value, k) => Math.round(value + (b[k] - value) * part));
	box(0, 0, WIDTH, HEIGHT, INK);
	// The ribs of the lens go on by one, so that the end meets the beginning; what is near is wide and bright.
	const turn = ((2 * Math.PI) / 12) * (n / FRAMES);
	const ribs = Array.from({ length: 12 }, (_, k) => turn + (2 * Math.PI * k) / 12)
		.map((angle) => ({ x: Math.sin(angle), depth: Math.cos(angle) }))
		.sort((a, b) => a.depth - b.depth);
	for (const { x, depth } of ribs) {
		const half = 200 * Math.sqrt(Math.max(0, 1 - (x * 0.9) ** 2)) + 60;
		const width = Math.round(4 + 5 * (depth + 1));
		box(
			Math.round(640 + x * 250 - width / 2),
			Math.round(330 - half),
			width,
			Math.round(2 * half),
			mix(INK, GLASS, 0.25 + 0.35 * (depth + 1))
		);
	}
	const glow = 0.55 + 0.45 * Math.cos(12 * turn);
	for (let radius = 60; radius > 0; radius -= 6)
		for (let row = -radius; row <= radius; row++) {
			const across = Math.round(Math.sqrt(radius * radius - row * row));
			box(640 - across, 330 + row, 2 * across, 1, mix(INK, LAMP, glow * (1 - radius / 70)));
		}
	box(390, 580, 500, 16, mix(INK, GLASS, 0.5));
	box(430, 596, 420, 60, mix(INK, GLASS, 0.3));
	box(80 + Math.round(((n % (2 * FRAMES_PER_SEC)) / (2 * FRAMES_PER_SEC)) * 1100), 676, 20, 28, LAMP);
	box(0, 0, MARK, MARK, [255, 0, 0]);
	box(WIDTH - MARK, 0, MARK, MARK, [0, 255, 0]);
	box(WIDTH - MARK, HEIGHT - MARK, MARK, MARK, [255, 255, 0]);
	box(0, HEIGHT - MARK, MARK, MARK, [0, 0, 255]);
	return pixels;
}

const work = mkdtempSync(join(tmpdir(), 'yphos-film-'));
const raw = join(work, 'frames.rgb');
writeFileSync(raw, Buffer.concat(Array.from({ length: FRAMES }, (_, n) => draw(n))));
const film = join(work, 'lens.mp4');
const made = spawnSync(
	'ffmpeg',
	[
		...[
			'-v',
			'error',
			'-y',
			'-f',
			'rawvideo',
			'-pix_fmt',
			'rgb24',
			'-s',
			`${WIDTH}x${HEIGHT}`,
			'-r',
			String(FRAMES_PER_SEC),
			'-i',
			raw
		],
		...['-f', 'lavfi', '-i', `sine=frequency=196:sample_rate=48000:duration=${FRAMES / FRAMES_PER_SEC}`],
		...[
			'-af',
			'volume=-12dB',
			'-c:v',
			'libx264',
			'-preset',
			'veryslow',
			'-crf',
			'33',
			'-pix_fmt',
			'yuv420p',
			'-g',
			'50'
		],
		...[
			'-c:a',
			'aac',
			'-b:a',
			'24k',
			'-ac',
			'1',
			'-shortest',
			'-movflags',
			'+faststart',
			'-fflags',
			'+bitexact',
			'-flags:v',
			'+bitexact',
			film
		]
	],
	{ stdio: 'inherit' }
);
if (made.status !== 0) process.exit(made.status ?? 1);
const bytes = readFileSync(film);
rmSync(work, { recursive: true });
const target = resolve(root, 'demo', 'film.ts');
writeFileSync(
	target,
	`/** The demo's film as base64: made by scripts/film.mjs, ${WIDTH} × ${HEIGHT}, ${FRAMES_PER_SEC} frames a second, H.264 and AAC. */\nexport const LENS_FILM = ${JSON.stringify(bytes.toString('base64'))};\n`
);
run(tool('prettier'), ['--write', target]);
console.log(`${bytes.length} bytes`);
