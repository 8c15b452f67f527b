// npm test: installs what is missing, then unit tests beside lint, types, build and end-to-end tests, then what must run alone, a short
// run of the bench and the card-set conformance check.
// Ends with one line: N passed, N failed.
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { isStale } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensurePackages } from './ensure.mjs';
import { capture, cli, conformance, finished, has, root, run, tool } from './run.mjs';

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

ensureJudge('shellcheck');

/** Programs that need nothing of each other run side by side; each says what it printed when it has ended. */
async function unitTests() {
	const unit = join(work, 'unit.json');
	const { out } = await finished(tool('vitest'), [
		'run',
		'--reporter=default',
		'--reporter=json',
		`--outputFile.json=${unit}`
	]);
	heading('Unit tests');
	process.stdout.write(out);
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
}

/** @param {string} name @param {string} command @param {readonly string[]} args */
async function told(name, command, args) {
	const { code, out } = await finished(command, args);
	heading(name);
	process.stdout.write(out);
	step(name, code === 0);
}

/** @param {string} project */
async function endToEnd(project) {
	const report = join(work, `${project}.json`);
	const { out } = await finished(
		tool('playwright'),
		['test', `--project=${project}`, '--no-deps', '--reporter=list,json'],
		{ env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: report } }
	);
	heading(`End to end: ${project}`);
	process.stdout.write(out);
	addCounts(
		`end-to-end tests, ${project}`,
		report,
		({ stats, errors }) => [stats.expected, stats.unexpected + stats.flaky + errors.length],
		({ suites }) =>
			suites
				.flatMap(specsOf)
				.filter(({ ok }) => !ok)
				.map(({ title }) => title)
	);
}

run(tool('svelte-kit'), ['sync']);
await Promise.all([
	unitTests(),
	(async () => {
		if (isStale()) await told('build', 'npm', ['run', '--silent', 'build', '--', '--logLevel', 'error']);
		else step('build', has(cli));
		await endToEnd('pages');
	})(),
	(async () => {
		await told('eslint', tool('eslint'), ['.']);
		await told('prettier', tool('prettier'), ['--check', '--log-level', 'warn', '.']);
		await told('svelte-check', tool('svelte-check'), ['--fail-on-warnings']);
	})()
]);
await endToEnd('killed');
await told('bench', process.execPath, [resolve(root, 'scripts/bench.mjs'), '--short']);

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
