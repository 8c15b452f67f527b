import { spawnSync } from 'node:child_process';
import { resolve } from 'node:path';
import { expect, test } from '@playwright/test';

/** The built command line as a process of its own; what its commands say is tried in src/cli. */
const yphos = (args: readonly string[], input = '') =>
	spawnSync(process.execPath, [resolve('build/cli/yphos.mjs'), ...args], { encoding: 'utf8', input });

test('calc reads lines from standard input and answers each, a bad line in its place', () => {
	const { status, stdout } = yphos(['calc', 'shellQuote'], '{"text":"it\'s"}\n{"text":7}\nnot json\n{"text":""}\n');
	expect(status).toBe(1);
	const answers = stdout
		.trim()
		.split('\n')
		.map((line) => JSON.parse(line) as unknown);
	expect(answers).toEqual([
		{ quoted: "'it'\\''s'" },
		{ error: expect.stringContaining('text') },
		{ error: expect.any(String) },
		{ quoted: "''" }
	]);
});

test('a refusal goes to the error output, and the process ends with 2', () => {
	const { status, stdout, stderr } = yphos(['check', 'nowhere.json']);
	expect([status, stdout]).toEqual([2, '']);
	expect(stderr).toContain('cannot be read');
});

test('a reader that closes its end early is no error', () => {
	const piped = spawnSync(
		'bash',
		['-c', `${process.execPath} build/cli/yphos.mjs schema | head -n 1; exit "\${PIPESTATUS[0]}"`],
		{ encoding: 'utf8' }
	);
	expect(piped).toMatchObject({ status: 0, stdout: '{\n', stderr: '' });
});
