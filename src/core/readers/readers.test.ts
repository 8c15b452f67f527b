import { Session } from 'node:inspector';
import { readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { FUZZED, INNER } from './list';
import type { FuzzedReader } from './reader';
import { chance, mutateBytes, mutateText } from './mutate';

/** 500 in `npm test`; `npm run fuzz` gives more, and another seed when asked. */
const INPUTS = Number(process.env.FUZZ_INPUTS ?? 500);
const SEED = Number(process.env.FUZZ_SEED ?? 20_261_126);
const BATCH = 50;
/** Steps of our own code and of what it calls that a reader may take, for each character, besides a start. A step is a block run. */
const STEPS_PER_CHARACTER = 40;
const STEPS_TO_START = 20_000;
const HEAD_BYTES = 100_000;

const core = resolve(import.meta.dirname, '..');
const filesBelow = (dir: string): string[] =>
	readdirSync(dir, { recursive: true, withFileTypes: true })
		.filter((entry) => entry.isFile() && entry.name.endsWith('.ts') && !entry.name.endsWith('.test.ts'))
		.map((entry) => join(entry.parentPath, entry.name));

it('has every reader of the core on the list, or reached through one that is', () => {
	const names = filesBelow(core).flatMap((path) =>
		[
			...readFileSync(path, 'utf8').matchAll(
				/^export (?:async )?(?:function|const) ((?:read|parse|sniff|decode|split)[A-Z]\w*)/gm
			)
		].map((m) => m[1]!)
	);
	expect(names.length).toBeGreaterThan(40);
	const known = new Set([...FUZZED.map(({ name }) => name), ...INNER]);
	expect(names.filter((name) => !known.has(name))).toEqual([]);
});

const sampleBytes = (sample: FuzzedReader['samples'][number]): Uint8Array => {
	if (typeof sample === 'string') return new TextEncoder().encode(sample);
	if (sample instanceof Uint8Array) return sample;
	const bytes = readFileSync(join(core, sample.file));
	return new Uint8Array(sample.file.endsWith('.gz') ? gunzipSync(bytes).subarray(0, HEAD_BYTES) : bytes);
};
const isBinary = (bytes: Uint8Array): boolean => bytes.includes(0);

/** Counts the blocks of code that ran, by the engine's own counters: the same on a slow machine as on a fast one. */
const session = new Session();
const post = <T>(method: string, parameters: object = {}): T => {
	let answer: T | undefined;
	session.post(method, parameters, (error, result) => {
		if (error) throw error;
		answer = result as T;
	});
	return answer as T;
};
interface Coverage {
	result: { url: string; functions: { ranges: { count: number }[] }[] }[];
}
const stepsSince = (): number =>
	post<Coverage>('Profiler.takePreciseCoverage')
		.result.filter(({ url }) => /\/src\/core\/|saxes|xmlchars/.test(url) && !/readers\/(?:mutate|readers)/.test(url))
		.reduce(
			(sum, { functions }) => sum + functions.reduce((n, { ranges }) => n + ranges.reduce((m, r) => m + r.count, 0), 0),
			0
		);

beforeAll(() => {
	session.connect();
	post('Profiler.enable');
	post('Profiler.startPreciseCoverage', { callCount: true, detailed: true });
});
afterAll(() => session.disconnect());

/** "infinity" is a span of systemd's own; a month that a table of the sun lacks is told from any minute. */
const MAY_BE_ENDLESS = new Set(['readTimeSpanMs', 'readUnit', 'readSunTable']);
/** Where a number stands that is none, or has no end: it would be saved as null, or refuse all that stands beside it. */
function infiniteIn(value: unknown, at = 'value', depth = 0): string | null {
	if (typeof value === 'number') return Number.isFinite(value) ? null : at;
	if (typeof value !== 'object' || value === null || depth > 12 || ArrayBuffer.isView(value)) return null;
	const parts = value instanceof Map ? [...value] : Object.entries(value);
	for (const [key, part] of parts) {
		const found = infiniteIn(part, `${at}.${String(key)}`, depth + 1);
		if (found) return found;
	}
	return null;
}

const told = { inputs: 0, throws: 0, slow: 0 };
afterAll(() =>
	console.info(`fuzz: ${told.inputs} inputs, ${told.throws} throws, ${told.slow} over the bound of steps`)
);

describe.each(FUZZED.map((reader) => [reader.name, reader] as const))('%s', (name, reader) => {
	const samples = reader.samples.map(sampleBytes);
	it('reads its samples', () => {
		for (const bytes of samples) reader.read(bytes, new TextDecoder().decode(bytes));
	});
	it(`stands ${INPUTS} damaged inputs: a value or a fault each, in time`, { timeout: 3_600_000 }, async () => {
		const random = chance(SEED + [...name].reduce((sum, c) => sum * 31 + c.charCodeAt(0), 7));
		const broken: string[] = [];
		for (let done = 0; done < INPUTS; done += BATCH) {
			const inputs = Array.from({ length: Math.min(BATCH, INPUTS - done) }, () => {
				const bytes = samples[Math.floor(random() * samples.length)]!;
				if (isBinary(bytes)) return { bytes: mutateBytes(bytes, random), text: '' };
				const text = mutateText(new TextDecoder().decode(bytes), random);
				return { bytes: new TextEncoder().encode(text), text };
			});
			stepsSince();
			for (const { bytes, text } of inputs)
				try {
					const endless = infiniteIn(await reader.read(bytes, text));
					if (endless !== null && !MAY_BE_ENDLESS.has(name)) broken.push(`${endless} is no finite number`);
				} catch (error) {
					broken.push(`${String(error)} on ${JSON.stringify(text.slice(0, 300))}`);
				}
			const allowed = inputs.reduce((sum, { bytes }) => sum + STEPS_TO_START + STEPS_PER_CHARACTER * bytes.length, 0);
			const steps = stepsSince();
			if (steps > allowed) {
				told.slow++;
				broken.push(`${steps} steps, ${allowed} allowed, batch at ${done}`);
			}
			told.inputs += inputs.length;
		}
		told.throws += broken.length;
		expect(broken.slice(0, 5)).toEqual([]);
	});
});

/** What froze the page once, at a size at which a quadratic reader takes minutes and a linear one none. */
const HOSTILE: readonly [string, string, (size: number) => string][] = [
	['readProbe', 'a heading that never ends', (n) => `===${' '.repeat(n)}x`],
	['readProbe', 'lines that look like JSON', (n) => '[x]\n'.repeat(n / 4)],
	['readProbe', 'open brackets', (n) => '[\n'.repeat(n / 2)],
	['readProbe', 'a prompt without an end', (n) => `a@${'a'.repeat(n)}`],
	['readProbe', 'terminal titles', (n) => '\u001b]'.repeat(n / 2)],
	['readProbe', 'pieces of a listing', (n) => '], a 1:  ['.repeat(n / 10)],
	['readDisks', 'a row of spaces', (n) => `/dev/disk4 (external, physical):\n   1: ${' '.repeat(n)}x`],
	['readDisks', 'empty lines behind an identifier', (n) => `Device Identifier:${'\n'.repeat(n)}`],
	['readDisks', 'XML heads', (n) => '<?xml'.repeat(n / 5)],
	['readDisks', 'open lists of properties', (n) => '<plist><dict><key>'.repeat(n / 18)],
	['readPlaylist', 'XML heads', (n) => '<?xml'.repeat(n / 5)],
	['readPlaylist', 'an unclosed instruction', (n) => `<?${'x'.repeat(n)}`],
	['readPlaylist', 'deep elements', (n) => '<a>'.repeat(n / 3)],
	['readPlaylist', 'entities', (n) => `<playlist><title>${'&a;'.repeat(n / 3)}</title></playlist>`],
	['readPlaylist', 'EXTINF lines without entries', (n) => '#EXTINF:1,\n'.repeat(n / 11)],
	['readPlaylist', 'one EXTINF of quotes', (n) => `#EXTINF:1 ${'"a'.repeat(n / 2)}\nx`],
	['readPlaylist', 'PLS with spaces', (n) => `[playlist]\nFile1=${' '.repeat(n)}x\n`],
	['readPublicKey', 'spaces in a comment', (n) => `ssh-ed25519 AAAA ${' '.repeat(n)}x`],
	['checkPassword', 'a long password', (n) => 'a1'.repeat(n / 2)],
	['readDigests', 'spaces behind a digest', (n) => `${'ab'.repeat(32)}${' '.repeat(n)}x`],
	['openWorkshop', 'nesting', (n) => `${'['.repeat(n)}${']'.repeat(n)}`],
	['readAlsaConf', 'open blocks', (n) => 'a{'.repeat(n / 2)],
	['readMpvConf', 'a comment', (n) => `a=b${'#'.repeat(n)}`],
	['readUnit', 'backslashes', (n) => `[a]\nb=${'\\'.repeat(n)}x`]
];
const SIZE = 300_000;
it.each(HOSTILE)('%s reads %s in linear time', { timeout: 30_000 }, (name, _, make) => {
	const reader = FUZZED.find((known) => known.name === name)!;
	const text = make(SIZE);
	const bytes = new TextEncoder().encode(text);
	stepsSince();
	reader.read(bytes, text);
	expect(stepsSince()).toBeLessThan(STEPS_TO_START + STEPS_PER_CHARACTER * bytes.length);
});
