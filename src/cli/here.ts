import { afterAll, beforeAll, vi } from 'vitest';
import { run } from './run';

export interface Answer {
	readonly code: number;
	readonly out: string;
	readonly err: string;
}

/** For tests: runs the command line in this process, standing in a folder, with a surrounding of its own. What a process of its own does is tried in tests/cli.spec.ts. */
export function runsIn(dir: string, env: NodeJS.ProcessEnv = {}): (args: readonly string[]) => Promise<Answer> {
	const before = { dir: process.cwd(), env: { ...process.env } };
	beforeAll(() => {
		process.chdir(dir);
		Object.assign(process.env, env);
	});
	afterAll(() => {
		process.chdir(before.dir);
		for (const name of Object.keys(env)) delete process.env[name];
		Object.assign(process.env, before.env);
	});
	return async (args) => {
		const said = { out: '', err: '' };
		const taken = (to: keyof typeof said) => (text: string | Uint8Array) => {
			said[to] += String(text);
			return true;
		};
		const kept = [
			vi.spyOn(process.stdout, 'write').mockImplementation(taken('out')),
			vi.spyOn(process.stderr, 'write').mockImplementation(taken('err'))
		];
		try {
			return { code: await run(args), ...said };
		} finally {
			for (const one of kept) one.mockRestore();
		}
	};
}
