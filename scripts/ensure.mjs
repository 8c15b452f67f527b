// Installs the packages that the project needs, when they are not there or older than the lock file says.
import { readFileSync, statSync } from 'node:fs';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { has, root, run } from './run.mjs';

export function ensurePackages() {
	const [major, minor] = process.versions.node.split('.').map(Number);
	if (major < 20 || (major === 20 && minor < 19)) {
		console.error(`Yphos needs Node 20.19 or later; this is ${process.versions.node}.`);
		process.exit(1);
	}
	const installed = resolve(root, 'node_modules', '.package-lock.json');
	const lock = resolve(root, 'package-lock.json');
	if (has(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
	if (has(installed) && sameVersions(lock, installed)) return;
	console.log('Installing packages …');
	if (run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']) !== 0) {
		console.error('The packages could not be installed. Check the network, then run the same command again.');
		process.exit(1);
	}
}

/** A fresh clone's lock file is young without having changed. */
function sameVersions(lock, installed) {
	const versions = (path) =>
		Object.entries(JSON.parse(readFileSync(path, 'utf8')).packages).filter(
			([name, p]) => name && !p.optional && !p.devOptional
		);
	const there = new Map(versions(installed).map(([name, p]) => [name, p.version]));
	return versions(lock).every(([name, p]) => there.get(name) === p.version);
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) ensurePackages();
