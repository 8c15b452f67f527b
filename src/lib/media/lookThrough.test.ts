import { expect, it, vi } from 'vitest';
import { lookThrough } from './lookThrough';

/** Workers of a browser, each file by what it is called: "good", "bad" fails, "stuck" never ends, "slow" shows life. */
const hired = vi.hoisted(() => ({ now: 0, all: 0 }));
vi.mock('comlink', () => ({
	proxy: (value: unknown) => value,
	wrap: () => ({
		look: (file: File, _: unknown, onLife: () => void) =>
			new Promise((resolve, reject) => {
				if (file.name === 'good') resolve({ sha256: file.name });
				if (file.name === 'bad') reject(new Error('torn'));
				if (file.name === 'slow') {
					const life = setInterval(onLife, 10_000);
					setTimeout(() => (clearInterval(life), resolve({ sha256: file.name })), 95_000);
				}
			})
	})
}));
vi.stubGlobal('navigator', { hardwareConcurrency: 3 });
vi.stubGlobal(
	'Worker',
	class {
		constructor() {
			hired.now++;
			hired.all++;
		}
		terminate(): void {
			hired.now--;
		}
	}
);

const files = (...names: string[]): File[] => names.map((name) => new File([], name));

it('goes on behind files that fail or never end, and lets slow ones be', async () => {
	vi.useFakeTimers();
	const found: Record<string, unknown> = {};
	const done = lookThrough(files('stuck', 'slow', 'bad', 'good'), { loudness: false }, async ({ name }, one) => {
		found[name] = one instanceof Error ? one.message : one;
	});
	await vi.advanceTimersByTimeAsync(200_000);
	await done;
	expect(found).toEqual({
		stuck: expect.stringContaining('does not end') as string,
		slow: { sha256: 'slow' },
		bad: 'torn',
		good: { sha256: 'good' }
	});
	expect(hired.now).toBe(0);
	expect(hired.all).toBe(4);
	vi.useRealTimers();
});

it('stops at once when it is given up', async () => {
	const giveUp = new AbortController();
	const seen: string[] = [];
	const done = lookThrough(
		files('stuck', 'stuck', 'good'),
		{ loudness: false },
		async ({ name }) => void seen.push(name),
		giveUp.signal
	);
	giveUp.abort();
	await done;
	expect(seen).toEqual([]);
	expect(hired.now).toBe(0);
});
