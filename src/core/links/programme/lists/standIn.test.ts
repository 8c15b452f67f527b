import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { demoMediaBytes } from '../../../../../demo/media';
import { demoWorkshop } from '../../../../../demo/workshop';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { cardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { runSheet } from '../../../engines/runSheet';
import { inWords } from '../../../engines/say';
import { speaking } from '../../../speaking';
import { write } from '../../../engines/write';
import { PARTS } from '../../../files/partsScript';
import { writeTone } from '../../../formats/wav/wav';
import type { Plan } from '../../../plan/plan';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';
import { STAND_IN } from './standInFiles';

const ID = 'bunkhouse-lounge';
const lounge = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const context = contextFor(chain, demoWorkshop, ID);
const harbour = lounge.sources.items.find(({ title }) => title === 'Harbour Radio');
const bell = lounge.sources.items[0]!;
const night = {
	...harbour!,
	id: 'night',
	location: 'http://radio.skerrin.example:8000/night',
	title: 'Night programme'
};
const planWith = (programme: Partial<Plan['programme']>, items = [harbour!, night, bell]): Plan => ({
	...lounge,
	programme: { ...lounge.programme, quiet: [], lookSec: 60, ...programme },
	sources: { ...lounge.sources, items, waitForNetwork: true }
});
const filesOf = (plan: Plan) =>
	write(writers, plan, context, { mediaBytes: new Map([[bell.location, demoMediaBytes(bell.location)!]]) });
function said(plan: Plan, without = 'nothing'): string {
	const { events } = rehearse({
		links: rehearsed,
		card: cardTree(filesOf(plan).filter(({ path }) => !path.endsWith(without))),
		bench: benchFor(writers, plan, context),
		startUtcMs: Date.UTC(2026, 10, 26, 9),
		forMs: 600_000,
		faults: [{ name: 'stream-refuses', atMs: 200_000, lastsMs: 90_000 }]
	});
	return inWords(speaking, events)
		.map(({ text }) => text)
		.join('\n');
}

describe('while a stream is gone', () => {
	it('the list goes on, and stays there, unless it is told to go back', () => {
		const list = said(planWith({ whenGone: 'list' }));
		expect(list).not.toContain('is there again');
		const back = said(planWith({ whenGone: 'back' }));
		expect(back).toMatch(/Harbour Radio is gone[\s\S]*Harbour Radio is there again/);
		expect(back).not.toContain('In its place');
	});
	it('a soft sign stands in, or the first file of the list', () => {
		expect(said(planWith({ whenGone: 'sign' }))).toMatch(
			/Harbour Radio is gone[\s\S]*In its place: stream-gone\.wav[\s\S]*Harbour Radio is there again/
		);
		expect(said(planWith({ whenGone: 'file' }))).toMatch(/In its place: Harbour bell in A\.wav[\s\S]*is there again/);
	});
	it('a list within the list does not stand in', () => {
		const list = { ...bell, id: 'list', location: '/var/lib/yphos-lists/evenings.m3u8' };
		const conf = filesOf(planWith({ whenGone: 'file' }, [list, harbour!, bell])).find(({ path }) =>
			path.endsWith('mpv.conf')
		)!;
		const text = 'lines' in conf ? conf.lines.map((line) => line.text).join('\n') : '';
		expect(text).toContain('stand-in-plays=/opt/yphos/media/Harbour bell in A.wav');
		expect(text).not.toContain('stand-in-plays=/var');
	});
	it('a card without the script or the sign is not taken, and it is said', () => {
		const plan = planWith({ whenGone: 'sign' });
		expect(said(plan, 'stand-in.lua')).toContain('stand-in.lua on the card is damaged');
		expect(said(plan, 'stream-gone.wav')).toContain('stream-gone.wav on the card is damaged');
	});
	it('writes nothing of it where no stream is listed, or none is wanted', () => {
		const names = (plan: Plan) => filesOf(plan).map(({ path }) => path.slice(path.lastIndexOf('/') + 1));
		expect(names(planWith({ whenGone: 'sign' }))).toEqual(expect.arrayContaining(['stand-in.lua', 'stream-gone.wav']));
		expect(names(planWith({ whenGone: 'file' }))).not.toContain('stream-gone.wav');
		expect(names(planWith({ whenGone: 'sign' }, [bell]))).not.toContain('stand-in.lua');
		expect(names(planWith({ whenGone: 'list' }))).not.toContain('stand-in.lua');
	});
	it('the run sheet tries it once, and says what is then heard', () => {
		const step = (plan: Plan) =>
			runSheet(writers, plan, context)
				.flatMap(({ steps }) => [...steps])
				.find(({ id }) => id === 'gone-check');
		expect(step(planWith({ whenGone: 'sign' }))?.expect).toMatch(/soft tone[\s\S]*within 60/);
		expect(step(planWith({ whenGone: 'back' }))?.expect).toContain('the next entry');
		expect(step(planWith({ whenGone: 'list' }))).toBeUndefined();
		expect(step(planWith({ whenGone: 'sign' }, [bell]))).toBeUndefined();
	});
	it('a finding says that nobody goes back, or that no file stands in; each is cured', () => {
		const idsOf = (plan: Plan) =>
			assess(judges, plan, context).findings.filter(({ id }) => id.startsWith('programme.'));
		for (const [plan, id] of [
			[planWith({ whenGone: 'list' }), 'programme.not-back'],
			[planWith({ whenGone: 'file' }, [harbour!, night]), 'programme.no-stand-in']
		] as const) {
			const found = idsOf(plan).find((finding) => finding.id === id)!;
			expect(found, id).toBeDefined();
			for (const fix of found.fixes) expect(idsOf(fix.apply(plan)).map((finding) => finding.id)).not.toContain(id);
		}
		expect(idsOf(planWith({ whenGone: 'back' })).map(({ id }) => id)).not.toContain('programme.not-back');
	});
});

/** The judge of what the script does; the card sets' own judge asks for the same program. */
const hasMpv = spawnSync('mpv', ['--version']).status === 0;
it.skipIf(!hasMpv)(
	'the script in the real player: the sign in the place of a station that refuses, back to it, and again when it breaks off',
	async () => {
		const folder = mkdtempSync(join(tmpdir(), 'yphos-stand-in-'));
		const at = (name: string): string => join(folder, name);
		writeFileSync(at('stand-in.lua'), STAND_IN.join('\n'));
		writeFileSync(at('parts.lua'), PARTS.join('\n'));
		const tone = (pitchHz: number, durationMs: number) =>
			writeTone({ pitchHz, peakDbfs: -20, sampleRateHz: 48_000, bitDepth: 16, channels: 1, durationMs });
		writeFileSync(at('sign.wav'), tone(880, 1000));
		writeFileSync(at('other.wav'), tone(220, 2000));
		let up = false;
		const sound = tone(440, 20_000);
		const server = createServer(({ url: asked }, answer) => {
			// What of an entry is played is the player's own affair.
			if (!up || asked !== '/live') return void answer.writeHead(503).end();
			answer.writeHead(200, { 'content-type': 'audio/wav' });
			let sent = 0;
			const timer = setInterval(() => {
				if (!up || sent >= sound.length) return (clearInterval(timer), void answer.destroy());
				answer.write(sound.subarray(sent, (sent += 19_200)));
			}, 200);
		});
		await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
		const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/live`;
		writeFileSync(at('list.m3u8'), `#EXTM3U\n${url}#t=0&gain=-6\n${at('other.wav')}\n`);
		const player = spawn('mpv', [
			...[
				'--no-config',
				'--ao=null',
				'--vo=null',
				'--ytdl=no',
				'--input-terminal=no',
				'--msg-color=no',
				'--load-scripts=no',
				'--quiet'
			],
			...[
				'--loop-playlist=inf',
				'--cache=no',
				`--script=${at('stand-in.lua')}`,
				`--script=${at('parts.lua')}`,
				`--script-opts-append=stand-in-plays=${at('sign.wav')}`
			],
			...['--script-opts-append=stand-in-look=1', `--playlist=${at('list.m3u8')}`]
		]);
		let told = '';
		player.stdout.on('data', (data: Buffer) => (told += data.toString()));
		player.stderr.on('data', (data: Buffer) => (told += data.toString()));
		const until = async (holds: () => boolean): Promise<void> => {
			for (let n = 0; n < 300 && !holds(); n++) await new Promise((done) => setTimeout(done, 100));
			expect(holds(), told).toBe(true);
		};
		const times = (text: string): number => told.split(text).length - 1;
		try {
			await until(() => times('the stream is gone') === 1 && told.includes('1ch 48000Hz'));
			up = true;
			await until(() => times('the stream is there again') === 1);
			up = false;
			await until(() => times('the stream is gone') === 2);
			up = true;
			await until(() => times('the stream is there again') === 2);
		} finally {
			player.kill();
			server.close();
			rmSync(folder, { recursive: true, force: true });
		}
	},
	60_000
);
