// Builds what is stale: the app and the command line, when a source is younger than the last build.
import { readdirSync, statSync } from 'node:fs';
import { resolve } from 'node:path';
import { ensurePackages } from './ensure.mjs';
import { has, root, run } from './run.mjs';

const SOURCES = [
	'src',
	'scripts/server.mjs',
	'scripts/certificate.mjs',
	'demo',
	'static',
	'package-lock.json',
	'svelte.config.js',
	'vite.config.ts',
	'vite.cli.config.ts'
];

function youngest(path) {
	const at = statSync(path);
	if (!at.isDirectory()) return at.mtimeMs;
	return Math.max(at.mtimeMs, ...readdirSync(path).map((name) => youngest(resolve(path, name))));
}

export function isStale() {
	const products = ['build/index.js', 'build/cli/yphos.mjs'].map((name) => resolve(root, name));
	const newest = Math.max(
		...SOURCES.map((name) => resolve(root, name))
			.filter(has)
			.map(youngest)
	);
	return !products.every((path) => has(path) && statSync(path).mtimeMs > newest);
}

export function ensureBuild() {
	ensurePackages();
	if (!isStale()) return;
	console.log('Building …');
	if (run('npm', ['run', '--silent', 'build', '--', '--logLevel', 'error']) !== 0) process.exit(1);
}
