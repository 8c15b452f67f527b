import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { cardText } from '../../files/cardBytes';
import { chain } from '../../chain';
import { contextFor } from '../../engines/context';
import { write } from '../../engines/write';
import { writers } from '../../writers';
import { findControls, findDoor } from './door';

const SYSTEM = '/usr/share/alsa/alsa.conf';
const hasAlsa = spawnSync('aplay', ['--version']).status === 0;
const dir = mkdtempSync(join(tmpdir(), 'yphos-alsa-'));

/** What a damage to one line makes of a file: without it, and with a letter of its first long word changed. */
const damages = (text: string): string[] => {
	const lines = text.trimEnd().split('\n');
	return lines.flatMap((line, n) => {
		if (line.startsWith('#')) return [];
		const words = line.match(/[A-Za-z]\w{3,}/g) ?? [];
		return [
			lines.toSpliced(n, 1).join('\n'),
			...words.map((word) => lines.with(n, line.replace(word, `${word.slice(0, -2)}qx`)).join('\n'))
		];
	});
};

/** Opens the default device through alsa-lib; it gets as far as to ask the kernel for the card, which is not there, or it does not. */
function asked(program: string, args: readonly string[], conf: string): string {
	writeFileSync(join(dir, 'asound.conf'), `${conf}\n`);
	writeFileSync(join(dir, 'both.conf'), `<${SYSTEM}>\n<${join(dir, 'asound.conf')}>\n`);
	const env = { ...process.env, ALSA_CONFIG_PATH: join(dir, 'both.conf'), LC_ALL: 'C' };
	const { stderr } = spawnSync(program, args, { input: Buffer.alloc(2000), env, encoding: 'utf8' });
	return /Cannot get card index for (\w+)/.exec(stderr)?.[1] ?? '';
}

it.skipIf(!hasAlsa).each(['bunkhouse-lounge', 'test-bench'])(
	'a default device of %s leads where alsa-lib itself goes, whatever is damaged',
	(id) => {
		const { plan } = demoWorkshop.endpoints.find((known) => known.id === id)!;
		const files = write(writers, plan, contextFor(chain, demoWorkshop, id));
		const file = files.find(({ path }) => path.endsWith('asound.conf'))!;
		const whole = 'lines' in file ? cardText(file) : '';
		const seen = new Set<string>();
		for (const conf of [whole, ...damages(whole)]) {
			const door = findDoor(conf, 'default');
			const ours = typeof door === 'string' ? '' : door.cardId;
			expect([conf, ours]).toEqual([conf, asked('aplay', ['-q', '-D', 'default', '-f', 'cd', '-'], conf)]);
			expect([conf, findControls(conf)]).toEqual([conf, asked('amixer', ['-D', 'default'], conf)]);
			seen.add(typeof door === 'string' ? door.replaceAll(/".*?"/g, '') : 'leads there');
		}
		expect(seen.size).toBeGreaterThan(5);
	}
);
