import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import {
	chmodSync,
	existsSync,
	mkdirSync,
	mkdtempSync,
	readFileSync,
	rmSync,
	statSync,
	symlinkSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { contextFor } from '../../engines/context';
import { write } from '../../engines/write';
import { readExec } from '../../formats/systemd/unit';
import { writers } from '../../writers';
import { GIVE_WAY, PAIR } from './scripts';
import { rtpCommand } from './steps';

const folder = mkdtempSync(join(tmpdir(), 'yphos-receiving-'));
const at = (...names: string[]): string => join(folder, ...names);
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const until = async (holds: () => boolean, what: () => string): Promise<void> => {
	for (let n = 0; n < 200 && !holds(); n++) await new Promise((done) => setTimeout(done, 50));
	expect(holds(), what()).toBe(true);
};
function script(name: string, text: string): string {
	writeFileSync(at(name), text);
	chmodSync(at(name), 0o755);
	return at(name);
}
const bench = demoWorkshop.endpoints.find(({ id }) => id === 'test-bench')!.plan;
function textOf(end: string, plan = bench): string {
	const file = write(writers, plan, contextFor(chain, demoWorkshop, 'test-bench')).find(({ path }) =>
		path.endsWith(end)
	);
	return file && 'lines' in file ? file.lines.map(({ text }) => text).join('\n') : '';
}
const commandOf = (unit: string, plan = bench): string[] => [
	...readExec(/^ExecStart=(.*)$/m.exec(textOf(unit, plan))![1]!)!.words
];

describe('give-way.sh in a real shell', () => {
	/** /proc, control groups and systemctl of its own; a look takes a twentieth of a second. */
	const bin = at('bin');
	mkdirSync(bin);
	mkdirSync(at('proc', '77', 'fd'), { recursive: true });
	mkdirSync(at('groups', 'a.service'), { recursive: true });
	mkdirSync(at('groups', 'b.service'), { recursive: true });
	writeFileSync(at('groups', 'b.service', 'cgroup.procs'), '12\n77\n');
	const text = GIVE_WAY.join('\n')
		.replaceAll('/proc/', `${at('proc')}/`)
		.replaceAll('/sys/fs/cgroup/system.slice/', `${at('groups')}/`)
		.replace('sleep 1', 'sleep 0.05');
	writeFileSync(at('state'), 'active');
	writeFileSync(at('log'), '');
	script(
		'bin/systemctl',
		`#!/bin/sh
case $1 in
--quiet) grep -q '^active' ${at('state')} ;;
stop) echo inactive >${at('state')}; echo "stop $2" >>${at('log')} ;;
start) echo active >${at('state')}; echo "start $2" >>${at('log')} ;;
esac`
	);
	const log = (): string[] => readFileSync(at('log'), 'utf8').trim().split('\n').filter(Boolean);
	it('stops the list while a unit has a sound device open, and starts it when all have been silent for three looks', async () => {
		const path = script('give-way.sh', text);
		const running = spawn('sh', [path, 'player.service', 'a.service', 'b.service'], {
			env: { ...process.env, PATH: `${bin}:${process.env.PATH}` }
		});
		let err = '';
		running.stderr.on('data', (data: Buffer) => (err += data.toString()));
		const said = (): string => `${log().join(', ')} ${err}`;
		try {
			symlinkSync('/dev/null', at('proc', '77', 'fd', '0'));
			await new Promise((done) => setTimeout(done, 400));
			expect(log(), err).toEqual([]);
			symlinkSync('/dev/snd/pcmC0D0p', at('proc', '77', 'fd', '5'));
			await until(() => log().length === 1, said);
			// Somebody starts it all the same, as a timer does.
			writeFileSync(at('state'), 'active');
			await until(() => log().length === 2, said);
			rmSync(at('proc', '77', 'fd', '5'));
			await until(() => log().length === 3, said);
			expect(log()).toEqual(['stop player.service', 'stop player.service', 'start player.service']);
			// One that was stopped by others stays so.
			writeFileSync(at('state'), 'inactive');
			symlinkSync('/dev/snd/pcmC0D0p', at('proc', '77', 'fd', '5'));
			await new Promise((done) => setTimeout(done, 400));
			rmSync(at('proc', '77', 'fd', '5'));
			await new Promise((done) => setTimeout(done, 600));
			expect(log()).toHaveLength(3);
			expect(err).toBe('');
		} finally {
			running.kill();
		}
	}, 30_000);
});

it('give-way.sh waits for three silent looks one after the other, no fewer', () => {
	const bin = at('ticking');
	mkdirSync(bin);
	mkdirSync(at('ticked', '77', 'fd'), { recursive: true });
	mkdirSync(at('tickgroups', 'a.service'), { recursive: true });
	writeFileSync(at('tickgroups', 'a.service', 'cgroup.procs'), '77\n');
	const fd = at('ticked', '77', 'fd', '5');
	// It sounds at looks 2 and 3, and again at 6.
	script(
		'ticking/tick',
		`#!/bin/sh
n=$(($(cat ${at('ticks')} 2>/dev/null || echo 0) + 1))
echo $n >${at('ticks')}
case $n in
2 | 6) ln -s /dev/snd/pcmC0D0p ${fd} ;;
4 | 7) rm ${fd} ;;
12) exit 1 ;;
esac`
	);
	script('ticking/systemctl', `#!/bin/sh\n[ "$1" = --quiet ] || echo "$1 $(cat ${at('ticks')})" >>${at('ticklog')}`);
	const path = script(
		'give-way-ticking.sh',
		GIVE_WAY.join('\n')
			.replaceAll('/proc/', `${at('ticked')}/`)
			.replaceAll('/sys/fs/cgroup/system.slice/', `${at('tickgroups')}/`)
			.replace('sleep 1', 'tick')
	);
	spawnSync('sh', [path, 'player.service', 'a.service'], {
		env: { ...process.env, PATH: `${bin}:${process.env.PATH}` }
	});
	expect(readFileSync(at('ticklog'), 'utf8').trim().split('\n')).toEqual(['stop 2', 'stop 3', 'stop 6', 'start 9']);
});

it('pair.sh opens the door, trusts who came, and closes it, even when it is interrupted', () => {
	const bin = at('pairing');
	mkdirSync(bin);
	script('pairing/bt-agent', `#!/bin/sh\necho "agent $*" >>${at('paired')}\nexec sleep 60`);
	script(
		'pairing/bluetoothctl',
		`#!/bin/sh
echo "$*" >>${at('paired')}
[ -e ${at('broken')} ] && exit 1
case $1 in
devices) echo 'Device 00:11:22:33:44:55 A phone'; echo 'Device 66:77:88:99:AA:BB Another' ;;
show) printf 'Controller\\n\\tName: x\\n\\tAlias: Test bench\\n' ;;
esac
exit 0`
	);
	const path = script('pair.sh', PAIR.join('\n'));
	const run = (...args: string[]) => {
		writeFileSync(at('paired'), '');
		return spawnSync('sh', [path, ...args], {
			env: { ...process.env, PATH: `${bin}:${process.env.PATH}` },
			encoding: 'utf8',
			timeout: 20_000
		});
	};
	const done = run('1');
	expect(done.status).toBe(0);
	expect(done.stdout).toContain('Choose "Test bench" on the phone within 1 seconds.');
	expect(done.stdout).toContain('66:77:88:99:AA:BB may come back');
	const calls = readFileSync(at('paired'), 'utf8').trim().split('\n');
	expect(calls.filter((call) => !call.startsWith('agent'))).toEqual([
		'pairable on',
		'discoverable-timeout 1',
		'discoverable on',
		'show',
		'discoverable off',
		'devices Paired',
		'trust 00:11:22:33:44:55',
		'trust 66:77:88:99:AA:BB'
	]);
	expect(calls).toContain('agent --capability=NoInputNoOutput');
	writeFileSync(at('broken'), '');
	const failed = run('1');
	expect(failed.status).toBe(1);
	expect(failed.stdout).not.toContain('may come back');
	rmSync(at('broken'));
});

const has = (name: string): boolean => spawnSync(name, ['--version']).error === undefined;

it.skipIf(!has('mpv') || !has('ffmpeg'))(
	'RTP in the real player: by the unit\u2019s own command it hears our sender, lets go, and hears the next one',
	async () => {
		const plan = { ...bench, receiving: { ...bench.receiving, rtpPort: 40_000 + 2 * (process.pid % 5000) } };
		const [program, ...words] = commandOf('yphos-rtp.service', plan);
		const wav = at('heard.wav');
		const player = spawn(program!, [
			...words
				.filter((word) => !/^--(?:ao|audio-device|msg-level)=/.test(word))
				.flatMap((word) =>
					word.startsWith('rtp:')
						? [
								'--ao=pcm',
								'--ao-pcm-append=yes',
								`--ao-pcm-file=${wav}`,
								'--msg-color=no',
								'-v',
								word.replace('0.0.0.0', '127.0.0.1')
							]
						: [word]
				)
		]);
		let told = '';
		for (const stream of [player.stdout, player.stderr]) stream.on('data', (data: Buffer) => (told += data.toString()));
		const heard = (): number => (existsSync(wav) ? statSync(wav).size : 0);
		/** One second as the player writes it: 48 kHz, two channels, of four bytes. */
		const SECOND = 48_000 * 2 * 4;
		const send = (seconds: number): ChildProcess => {
			const tone = `-re -f lavfi -i sine=frequency=660:sample_rate=48000:duration=${seconds}`;
			const [, ...args] = rtpCommand(tone, '127.0.0.1', plan.receiving.rtpPort).split(' ');
			return spawn('ffmpeg', ['-loglevel', 'error', ...args]);
		};
		try {
			await until(
				() => told.includes('Opening rtp:'),
				() => told
			);
			send(4);
			await until(
				() => heard() > 2.5 * SECOND,
				() => told
			);
			await until(
				() => told.includes('EOF code'),
				() => told
			);
			const first = heard();
			await until(
				() => told.split('Opening failed').length > 2,
				() => told
			);
			send(4);
			await until(
				() => heard() > first + 2.5 * SECOND,
				() => told
			);
			expect(told.split('AO: [pcm]').length - 1).toBe(2);
		} finally {
			player.kill();
		}
	},
	60_000
);

it.skipIf(!has('pulseaudio') || !has('pactl'))(
	'the sound server takes our script, and a computer by a tunnel, and lets go of the converter after it',
	async () => {
		const port = 50_000 + (process.pid % 9000);
		// The converter of this machine is a sink that goes nowhere; all else is as on the card.
		const text = textOf('sound-server.pa')
			.replace(/module-alsa-sink device=default (sink_name=\S+).*/, 'module-null-sink $1')
			.replace('port=4713', `port=${port} listen=127.0.0.1`);
		expect(text).toContain('module-null-sink sink_name=converter');
		writeFileSync(at('server.pa'), text);
		const home = at('home');
		mkdirSync(home);
		const env = { PATH: process.env.PATH, HOME: home, XDG_RUNTIME_DIR: home };
		const [program, ...words] = commandOf('yphos-sound-server.service');
		const server = spawn(
			program!,
			words.map((word) => (word.startsWith('--file=') ? `--file=${at('server.pa')}` : word)),
			{ env }
		);
		let told = '';
		server.stderr.on('data', (data: Buffer) => (told += data.toString()));
		const ask = (...args: string[]): string =>
			spawnSync('pactl', ['--server', `tcp:127.0.0.1:${port}`, ...args], { env, encoding: 'utf8', timeout: 5000 })
				.stdout ?? '';
		try {
			await until(
				() => ask('list', 'short', 'sinks').includes('converter'),
				() => told
			);
			const sender = spawn('pacat', ['--server', `tcp:127.0.0.1:${port}`, '--playback', '/dev/zero'], { env });
			await until(
				() => ask('list', 'short', 'sinks').includes('RUNNING'),
				() => told
			);
			sender.kill();
			await until(
				() => ask('list', 'short', 'sinks').includes('SUSPENDED'),
				() => told
			);
			// Nobody loads anything into it from afar.
			expect(ask('load-module', 'module-null-sink')).toBe('');
		} finally {
			server.kill();
		}
	},
	60_000
);
