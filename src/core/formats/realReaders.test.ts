import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { alsaString } from './alsa/conf';
import { mpvLine } from './mpv/conf';
import { execLine } from './systemd/unit';

/** What a person may type must arrive at the very program that reads the file. Where that is not installed, the test is skipped by name. */
const AWKWARD = [
	'"',
	"'",
	'%',
	'%n',
	'$HOME',
	'${A}',
	'\\',
	'end\\',
	'#',
	'a#b',
	';',
	'`id`',
	'\u{1f3b5} n\u00f8tt',
	'-x',
	'--',
	'[a]',
	'{b}',
	'a b',
	'%6%x',
	'!',
	',',
	'a=b'
];
const texts = [
	...AWKWARD,
	...fc.sample(
		fc
			.string({ unit: 'grapheme', minLength: 1, maxLength: 20 })
			.filter((text) => !/[\u0000-\u001f\u007f]/.test(text) && text.trim() === text),
		{ numRuns: 15, seed: 11 }
	)
];
const dir = mkdtempSync(join(tmpdir(), 'yphos-readers-'));
const isHere = (program: string): boolean => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0;
const environment = { ...process.env, LC_ALL: 'C.UTF-8', HOME: dir };

describe('real readers give back what was written', () => {
	it.skipIf(!isHere('systemd-analyze'))('systemd, a quoted word with its escapes and percent signs', () => {
		// An environment word without "=" is complained of by name, as systemd read it. Only there a dollar sign is not doubled.
		const words = texts.filter((text) => !text.includes('=')).map((text) => `a ${text}`);
		const units = join(dir, 'etc/systemd/system');
		mkdirSync(units, { recursive: true });
		const unit = join(units, 't.service');
		writeFileSync(
			unit,
			`[Service]\nExecStart=/usr/bin/true\n${words.map((word) => `Environment=${execLine([word]).replaceAll('$$', '$')}\n`).join('')}`
		);
		const said = spawnSync('systemd-analyze', ['--man=no', '--recursive-errors=no', 'verify', unit], {
			env: environment,
			encoding: 'utf8'
		});
		for (const word of words) expect(said.stderr).toContain(`ignoring: ${word}\n`);
	});

	it.skipIf(!isHere('mpv'))('mpv, an option of its configuration', () => {
		const back = texts.map((text, n) => {
			const line = mpvLine('force-media-title', text);
			const file = join(dir, `t${n}.conf`);
			writeFileSync(file, line.ok ? `${line.value}\n` : '');
			return execFileSync(
				'mpv',
				[
					'--no-config',
					`--include=${file}`,
					'--vo=null',
					'--ao=null',
					'--term-playing-msg=<${options/force-media-title}>',
					'av://lavfi:anullsrc=d=0.01'
				],
				{ env: environment, encoding: 'utf8' }
			);
		});
		back.forEach((said, n) => expect(said).toContain(`<${texts[n]}>`));
	});

	it.skipIf(!isHere('aplay'))('libasound, a string of its configuration', () => {
		const conf = join(dir, 'alsa.conf');
		const devices = texts.map(
			(text, n) => `pcm.t${n} {\n\ttype null\n\thint {\n\t\tshow on\n\t\tdescription ${alsaString(text)}\n\t}\n}`
		);
		writeFileSync(conf, `${devices.join('\n')}\nnamehint.pcm [ pcm ]\n`);
		const said = execFileSync('aplay', ['-L'], { env: { ...environment, ALSA_CONFIG_PATH: conf }, encoding: 'utf8' });
		texts.forEach((text, n) => expect(said).toContain(`t${n}\n    ${text}\n`));
	});
});
