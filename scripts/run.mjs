import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '..');
export const conformance = resolve(root, '..', 'shared', 'conformance');

/**
 * Runs a program with its output shown; gives its exit code.
 * @param {string} command
 * @param {readonly string[]} args
 * @param {import('node:child_process').SpawnSyncOptions} [options]
 */
export function run(command, args, options = {}) {
	const done = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
	if (done.error) throw done.error;
	return done.status ?? 1;
}

/**
 * Runs a program and keeps what it prints.
 * @param {string} command
 * @param {readonly string[]} args
 * @param {object} [options]
 */
export function capture(command, args, options = {}) {
	const done = spawnSync(command, args, { cwd: root, encoding: 'utf8', maxBuffer: 1 << 28, ...options });
	return { code: done.error ? 127 : (done.status ?? 1), out: done.stdout ?? '', err: done.stderr ?? '' };
}

/**
 * Runs a program beside others; gives its exit code and all that it printed.
 * @param {string} command
 * @param {readonly string[]} args
 * @param {import('node:child_process').SpawnOptions} [options]
 * @returns {Promise<{ code: number, out: string }>}
 */
export function finished(command, args, options = {}) {
	return new Promise((done, fail) => {
		const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'], ...options });
		let out = '';
		for (const stream of [child.stdout, child.stderr]) stream?.setEncoding('utf8').on('data', (text) => (out += text));
		child.on('error', fail);
		child.on('close', (code) => done({ code: code ?? 1, out }));
	});
}

/**
 * A program installed with the project.
 * @param {string} name
 */
export const tool = (name) => resolve(root, 'node_modules', '.bin', name);

export const cli = resolve(root, 'build', 'cli', 'yphos.mjs');

/** @param {string} path */
export const has = (path) => existsSync(path);
