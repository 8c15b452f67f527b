import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import { build } from 'vite';

/** The repository. */
export const root = resolve(import.meta.dirname, '../..');

/** Builds the command line into a folder, for its tests, and gives a way to run it there. */
export async function builtIn(dir: string) {
	await build({
		root,
		configFile: resolve(root, 'vite.cli.config.ts'),
		logLevel: 'error',
		build: { outDir: join(dir, 'cli') }
	});
	return (args: readonly string[], input = '', env: NodeJS.ProcessEnv = process.env) => {
		const done = spawnSync(process.execPath, [join(dir, 'cli/yphos.mjs'), ...args], {
			encoding: 'utf8',
			input,
			cwd: dir,
			env
		});
		return { code: done.status, out: done.stdout, err: done.stderr };
	};
}
