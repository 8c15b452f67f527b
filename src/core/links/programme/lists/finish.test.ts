import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../../demo/media';
import { demoWorkshop } from '../../../../../demo/workshop';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { cardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { write } from '../../../engines/write';
import { cardText } from '../../../files/cardBytes';
import { writeTone } from '../../../formats/wav/wav';
import { judges } from '../../../judges';
import type { Plan } from '../../../plan/plan';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';
import { FINISH } from './finishFiles';
import { newRule } from '../../../onAir/when';

const ID = 'bunkhouse-lounge';
const lounge = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const context = contextFor(judges, demoWorkshop, ID);
const bell = lounge.sources.items[0]!;
const stream = lounge.sources.items.find(({ location }) => location.startsWith('http'))!;
const long = { ...bell, id: 'long', title: 'Long', location: 'long.wav' };
const clock = (time: string) => ({ at: 'clock' as const, time, offsetMin: 0 });
const list = (id: string, ...items: string[]) => ({ id, title: id, items, valid: [], wishes: [] });
/** By the venue's clock: the first list until noon, then the other for a minute, then nothing. */
const planWith = (change: Partial<Plan['programme']>, first = bell.id): Plan => ({
	...lounge,
	programme: {
		...lounge.programme,
		quiet: [],
		whenGone: 'list',
		lists: [list('first', first), list('other', bell.id)],
		rules: [
			{ ...newRule('a', 'first', 'Morning'), from: clock('06:00'), until: clock('12:00') },
			{ ...newRule('b', 'other', 'Noon'), from: clock('12:00'), until: clock('12:05') }
		],
		otherwise: 'rest',
		...change
	},
	sources: { ...lounge.sources, items: [bell, stream, long], waitForNetwork: true }
});
const known = demoWorkshop.media.find(({ location }) => location === bell.location)!;
const withLong = contextFor(
	judges,
	{ ...demoWorkshop, media: [...demoWorkshop.media, { ...known, location: long.location, durationMs: 95_000 }] },
	ID
);
const mediaBytes = new Map([
	...demoMediaOf([bell]),
	[
		long.location,
		writeTone({ pitchHz: 330, peakDbfs: -20, sampleRateHz: 48_000, bitDepth: 16, channels: 1, durationMs: 95_000 })
	]
]);
const filesOf = (plan: Plan) => write(writers, plan, context, { mediaBytes });
function told(plan: Plan, fromNoonMs = -120_000, damage = (files: ReturnType<typeof filesOf>) => files) {
	const bench = benchFor(writers, plan, context);
	const { events } = rehearse({
		links: rehearsed,
		card: cardTree(damage(filesOf(plan))),
		bench,
		startUtcMs: Date.UTC(2026, 10, 26, 12) + fromNoonMs,
		forMs: 450_000
	});
	const at = (code: string, n = 0): number | undefined => events.filter((event) => event.code === code)[n]?.atMs;
	return { at, events, noonMs: -fromNoonMs };
}

describe('when another rule begins', () => {
	it('what plays is cut off, or finished first: then the other list begins, late by what was left', () => {
		const cut = told(planWith({ atChange: 'cut' }, long.id));
		expect(cut.at('begins', 1)! - cut.noonMs).toBeLessThan(6000);
		const finished = told(planWith({ atChange: 'finish' }, long.id));
		expect(finished.at('finishes-first')! - finished.noonMs).toBeLessThan(2000);
		const begun = finished.at('begins')!;
		const lateMs = finished.at('begins', 1)! - finished.noonMs;
		// Again and again, 95 s each: it is heard out, and the player takes some seconds to begin anew.
		const leftMs = 95_000 - ((finished.noonMs - begun) % 95_000);
		expect(lateMs).toBeGreaterThanOrEqual(leftMs);
		expect(lateMs).toBeLessThan(leftMs + 6000);
	});
	it('a stream makes way at once, for it has no end', () => {
		const { at, noonMs } = told(planWith({ atChange: 'finish' }, stream.id));
		expect(at('makes-way')! - noonMs).toBeLessThan(2000);
		expect(at('begins', 1)! - noonMs).toBeLessThan(8000);
	});
	it('a rule that is over before the title has ended is passed over, and the title goes on', () => {
		const plan = planWith({ atChange: 'finish' }, long.id);
		const [morning, noon] = plan.programme.rules;
		const rules = [
			{ ...noon!, until: clock('12:01') },
			{ ...morning!, until: clock('18:00') }
		];
		const { events } = told({ ...plan, programme: { ...plan.programme, rules } }, -20_000);
		expect(events.filter(({ code }) => code === 'finishes-first')).toHaveLength(1);
		expect(events.filter(({ code }) => code === 'begins')).toHaveLength(1);
	});
	it('nothing plays once no rule holds, and the last title was heard out', () => {
		const { at, events, noonMs } = told(planWith({ atChange: 'finish' }, long.id), -100_000);
		const last = events.findLastIndex(({ code }) => code === 'begins');
		expect(at('rests')! - noonMs).toBeGreaterThan(299_000);
		expect(events.slice(last).map(({ code }) => code)).toContain('rests');
	});
	it('a card without the script is said to be damaged', () => {
		const { events } = told(planWith({ atChange: 'finish' }, long.id), -60_000, (files) =>
			files.filter(({ path }) => !path.endsWith('finish.lua'))
		);
		expect(JSON.stringify(events)).toContain('finish.lua');
	});
	it('the service begins anew after it, also where the list plays once; nothing of it is written where what plays is cut', () => {
		const unitOf = (plan: Plan): string =>
			filesOf(plan)
				.filter(({ path }) => path.endsWith('yphos-player.service'))
				.map((file) => ('lines' in file ? cardText(file) : ''))
				.join();
		expect(unitOf(planWith({ atChange: 'finish', loop: 'once' }))).toMatch(
			/Restart=on-failure[\s\S]*SuccessExitStatus=3\nSuccessExitStatus=75\nRestartForceExitStatus=75/
		);
		const cut = filesOf(planWith({ atChange: 'cut' }));
		expect(unitOf(planWith({ atChange: 'cut' }))).not.toContain('75');
		expect(cut.some(({ path }) => path.endsWith('finish.lua'))).toBe(false);
	});
	it('a finding says which rule may be over before its turn, and is cured', () => {
		const plan = planWith({ atChange: 'finish' }, long.id);
		const short: Plan = {
			...plan,
			programme: {
				...plan.programme,
				rules: plan.programme.rules.map((rule) => (rule.id === 'b' ? { ...rule, until: clock('12:01') } : rule))
			}
		};
		const found = (one: Plan) =>
			assess(judges, one, withLong).findings.filter(({ id }) => id.startsWith('programme.rule-late'));
		expect(found(plan)).toEqual([]);
		const [late] = found(short);
		expect(late?.id).toBe('programme.rule-late-b');
		expect(found(late!.fixes[0]!.apply(short))).toEqual([]);
	});
});

/** The judge of what the script does. */
describe.skipIf(spawnSync('mpv', ['--version']).status !== 0)('the script in the real player', () => {
	const folder = mkdtempSync(join(tmpdir(), 'yphos-finish-'));
	const at = (name: string): string => join(folder, name);
	afterAll(() => rmSync(folder, { recursive: true, force: true }));
	const show = (text: string): void => writeFileSync(at('now.m3u8'), `${text}\n`);
	const tone = (durationMs: number) =>
		writeTone({ pitchHz: 440, peakDbfs: -20, sampleRateHz: 48_000, bitDepth: 16, channels: 1, durationMs });
	writeFileSync(at('finish.lua'), FINISH.join('\n'));
	writeFileSync(at('two.wav'), tone(2000));
	writeFileSync(at('next.wav'), tone(500));

	/** Plays; `then` is done once the first has begun. */
	async function plays(options: string[], files: string[], then: () => unknown) {
		show('/opt/yphos/list-a.m3u8');
		const player = spawn('mpv', [
			...[
				'--no-config',
				'--ao=null',
				'--vo=null',
				'--ytdl=no',
				'--input-terminal=no',
				'--load-scripts=no',
				'--cache=no'
			],
			...[`--script=${at('finish.lua')}`, `--script-opts-append=finish-state=${folder}`, ...options, ...files]
		]);
		let said = '';
		player.stdout.on('data', (data: Buffer) => (said += data.toString()));
		const ended = once(player, 'close') as Promise<[number | null]>;
		while (!said.includes('Hz')) await new Promise((done) => setTimeout(done, 20));
		await then();
		const [code] = await ended;
		// switch-set.sh counts these lines.
		const isTold = /^\[finish\] something else is on/m.test(said);
		return { code, isTold, playing: said.split('Playing: ').length - 1 };
	}

	it('plays a title to its end, and not the next', async () => {
		expect(
			await plays(['--loop-playlist=inf'], [at('two.wav'), at('next.wav')], () => show('/opt/yphos/list-b.m3u8'))
		).toEqual({ code: 75, isTold: true, playing: 1 });
	});
	it('plays the same again and again once to its end', async () => {
		expect((await plays(['--loop-file=inf'], [at('two.wav')], () => show(''))).code).toBe(75);
		expect((await plays(['--loop-playlist=inf'], [at('two.wav')], () => show(''))).code).toBe(75);
	});
	it('goes on where the rules have gone back before the end', async () => {
		const { code } = await plays([], [at('two.wav')], async () => {
			show('/opt/yphos/list-b.m3u8');
			await new Promise((done) => setTimeout(done, 1200));
			show('/opt/yphos/list-a.m3u8');
		});
		expect(code).toBe(0);
	});
	it('waits for no stream', async () => {
		const sound = tone(60_000);
		const server = createServer((_, answer) => {
			answer.writeHead(200, { 'content-type': 'audio/wav' });
			let sent = 0;
			const timer = setInterval(() => answer.write(sound.subarray(sent, (sent += 19_200))), 100);
			answer.on('close', () => clearInterval(timer));
		});
		await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
		const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/live`;
		const { code } = await plays([], [url], () => show('/opt/yphos/list-b.m3u8'));
		server.close();
		expect(code).toBe(75);
	});
});
