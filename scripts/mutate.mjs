// npm run mutate -- FILE [FILE...]: changes one thing after another in these files and counts which changes the unit tests catch.
// Without files: rooms in which a mistake locks somebody out, lets somebody in, or loses what was typed. Minutes a room.
import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { root, run } from './run.mjs';

const ROOMS = [
	'src/core/links/network/knock.ts',
	'src/core/formats/nftables/nftables.ts',
	'src/core/engines/machine/systemd/access.ts',
	'src/core/plan/migrate.ts',
	'src/core/links/card/services.ts'
];
const files = process.argv.length > 2 ? process.argv.slice(2) : ROOMS;
/** What stands beside them, and what is about safety wherever it stands. */
const tests = [...new Set(files.map((file) => `${dirname(file)}/**/*.test.ts`)), 'src/core/engines/safety.test.ts'];
const config = resolve(root, '.cache', 'stryker.json');
mkdirSync(resolve(root, '.cache'), { recursive: true });
writeFileSync(
	config,
	JSON.stringify({
		testRunner: 'vitest',
		vitest: { configFile: 'vitest.mutate.config.ts', related: false },
		coverageAnalysis: 'off',
		mutate: files,
		reporters: ['clear-text'],
		clearTextReporter: { allowColor: false, logTests: false, reportTests: false, allowEmojis: false },
		tempDirName: '.cache/stryker',
		ignorePatterns: [
			'!.svelte-kit',
			'.cache',
			'build',
			'.svelte-kit/output',
			'.svelte-kit/generated',
			'test-results',
			'docs'
		],
		checkers: [],
		concurrency: 2,
		timeoutMS: 60_000,
		allowConsoleColors: false,
		disableTypeChecks: true
	})
);
const env = { ...process.env, MUTATE_TESTS: tests.join(' ') };
const bin = (name) => resolve(root, 'node_modules', '.bin', name);
// A suite that does not load catches nothing, and the changes that it would have caught would count as missed by all: so it is an error.
if (run(bin('vitest'), ['run', '--config', 'vitest.mutate.config.ts'], { env }) !== 0) {
	console.error('Unchanged, these tests do not all load and pass: mend that first.');
	process.exit(2);
}
process.exit(run(bin('stryker'), ['run', config], { env }));
