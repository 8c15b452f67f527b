// Plays the demo's stations by sums of sines, encodes them with ffmpeg, and writes demo/stations.ts: node scripts/stations.mjs
// Each loop ends where it begins; the frames stand alone, so that any of them may follow the last.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { root, run, tool } from './run.mjs';

const SECONDS = 6;
const work = mkdtempSync(join(tmpdir(), 'yphos-stations-'));
const ffmpeg = (...args) => {
	const { status } = spawnSync('ffmpeg', ['-v', 'error', '-y', ...args], { cwd: work, stdio: 'inherit' });
	if (status !== 0) process.exit(status ?? 1);
};
/** A chord whose notes swell in turn; whole numbers of hertz, so that it comes round. */
const chord = (notes) =>
	notes.map((hz, n) => `0.08*sin(2*PI*${hz}*t)*(1+cos(2*PI*(t/${SECONDS}+${n}/${notes.length})))`).join('+');
const sound = (notes, rateHz) => [
	'-f',
	'lavfi',
	'-i',
	`aevalsrc=${chord(notes)}|${chord(notes.map((hz) => hz + 1))}:s=${rateHz}:d=${SECONDS}`
];
const BIT_EXACT = ['-fflags', '+bitexact', '-flags:a', '+bitexact', '-map_metadata', '-1'];

ffmpeg(
	...sound([196, 294, 440, 587], 48_000),
	'-c:a',
	'aac',
	'-b:a',
	'128k',
	...BIT_EXACT,
	'-f',
	'adts',
	'harbour.aac'
);
ffmpeg(
	...sound([147, 220, 330], 44_100),
	'-c:a',
	'libmp3lame',
	'-b:a',
	'192k',
	'-reservoir',
	'0',
	'-write_xing',
	'0',
	'-id3v2_version',
	'0',
	...BIT_EXACT,
	'night.mp3'
);
for (const kbps of [48, 96])
	ffmpeg(
		...sound([262, 392, 523], 48_000),
		'-c:a',
		'aac',
		'-b:a',
		`${kbps}k`,
		...BIT_EXACT,
		'-f',
		'segment',
		'-segment_time',
		'2',
		'-segment_format',
		'mpegts',
		`tide-${kbps}-%d.ts`
	);

// What the encoder adds behind the last whole segment is left out.
const files = readdirSync(work)
	.filter((name) => !name.endsWith('-3.ts'))
	.sort();
const bytes = Object.fromEntries(files.map((name) => [name, readFileSync(join(work, name))]));
rmSync(work, { recursive: true });
const target = resolve(root, 'demo', 'stations.ts');
const lines = Object.entries(bytes).map(
	([name, data]) => `\t${JSON.stringify(name)}: ${JSON.stringify(data.toString('base64'))}`
);
writeFileSync(
	target,
	`/** The demo's stations as base64, ${SECONDS} s of each to be played round and round: made by scripts/stations.mjs. */\nexport const STATION_LOOPS = {\n${lines.join(',\n')}\n} as const;\n`
);
run(tool('prettier'), ['--write', target]);
for (const [name, data] of Object.entries(bytes)) console.log(name, data.length);
