// npm test: installs what is missing, then lint, types, unit tests, build, end-to-end tests and the card-set conformance check.
// Ends with one line: N passed, N failed.
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { ensureBuild } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensurePackages } from './ensure.mjs';
import { capture, cli, conformance, has, run, tool } from './run.mjs';

let passed = 0;
let failed = 0;
/** Said again at the end, where a long output has scrolled them away. */
const failures = [];
const work = mkdtempSync(join(tmpdir(), 'yphos-test-'));

function step(name, good) {
	console.log(`${good ? 'passed' : 'FAILED'}: ${name}`);
	if (good) passed++;
	else {
		failed++;
		failures.push(name);
	}
}

function heading(text) {
	console.log(`\n== ${text}`);
}

/** Adds the counts that a runner wrote as JSON; a runner that wrote none has failed. */
function addCounts(name, file, counts, named) {
	try {
		const report = JSON.parse(readFileSync(file, 'utf8'));
		const [good, bad] = counts(report);
		failures.push(...named(report));
		passed += good;
		failed += bad;
		console.log(`${name}: ${good} passed, ${bad} failed`);
		if (good + bad === 0) step(`${name} ran no test`, false);
	} catch {
		step(`${name} did not run to its end`, false);
	}
}

/** A runner's specs, those of inner groups too. */
const specsOf = ({ specs, suites = [] }) => [...specs, ...suites.flatMap(specsOf)];

/**
 * A judge of Debian's that is not part of the project, through apt when that can be done.
 * @param {string} name
 * @param {string} [packageName]
 */
function ensureJudge(name, packageName = name) {
	if (capture(name, ['--version']).code === 0 || process.getuid?.() !== 0) return;
	run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', packageName], {
		env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
	});
}

/** Ids of the demo's endpoints. */
function demoEndpoints() {
	capture(process.execPath, [cli, 'demo', work]);
	const [file] = readdirSync(work).filter((name) => name.endsWith('.yphos.json'));
	return JSON.parse(readFileSync(join(work, file), 'utf8')).endpoints.map(({ id }) => id);
}

ensurePackages();
ensureChromium();
const checkCard = resolve(conformance, 'check-card.sh');
if (has(checkCard) && process.getuid?.() === 0 && run('bash', [resolve(conformance, 'install.sh')]) !== 0)
	step('the conformance judges can be installed', false);

heading('Lint');
step('eslint', run(tool('eslint'), ['.']) === 0);
step('prettier', run(tool('prettier'), ['--check', '--log-level', 'warn', '.']) === 0);

heading('Types');
step(
	'svelte-check',
	run(tool('svelte-kit'), ['sync']) === 0 && run(tool('svelte-check'), ['--fail-on-warnings']) === 0
);

heading('Unit tests');
ensureJudge('shellcheck');
const unit = join(work, 'unit.json');
run(tool('vitest'), ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`]);
addCounts(
	'unit tests',
	unit,
	(report) => [
		report.numPassedTests,
		report.numFailedTests +
			report.testResults.filter((t) => t.status === 'failed' && t.assertionResults.length === 0).length
	],
	({ testResults }) =>
		testResults.flatMap(({ name, status, message, assertionResults }) => {
			const bad = assertionResults.filter((one) => one.status === 'failed');
			if (status === 'failed' && bad.length === 0) return [`${name}: ${message}`];
			return bad.map((one) => `${one.fullName}: ${one.failureMessages[0]?.slice(0, 600)}`);
		})
);

heading('Build');
ensureBuild();
step('build', has(cli));

heading('End to end');
const e2e = join(work, 'e2e.json');
run(tool('playwright'), ['test', '--reporter=list,json'], {
	env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: e2e }
});
addCounts(
	'end-to-end tests',
	e2e,
	({ stats, errors }) => [stats.expected, stats.unexpected + stats.flaky + errors.length],
	({ suites }) =>
		suites
			.flatMap(specsOf)
			.filter(({ ok }) => !ok)
			.map(({ title }) => title)
);

if (has(checkCard)) {
	heading('Conformance of the demo card sets');
	ensureJudge('nft', 'nftables');
	const password = join(work, 'password');
	writeFileSync(password, 'three gulls in a row\n');
	for (const endpoint of demoEndpoints()) {
		const out = join(work, endpoint);
		capture(process.execPath, [
			cli,
			'write',
			'demo',
			'--endpoint',
			endpoint,
			'--out',
			out,
			'--even-so',
			'--password-file',
			password
		]);
		const judged = capture('bash', [checkCard, out]);
		process.stdout.write(
			judged.out
				.split('\n')
				.filter((line) => !line.startsWith('ok') && !line.startsWith('--'))
				.join('\n')
		);
		step(`card set of ${endpoint}`, judged.code === 0);
		const rules = join(out, 'boot/yphos/root/etc/nftables.conf');
		if (has(rules)) step(`nft takes the rules of ${endpoint}`, capture('nft', ['-c', '-f', rules]).code === 0);
	}
}

rmSync(work, { recursive: true, force: true });
for (const failure of failures) console.log(`FAILED: ${failure}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
