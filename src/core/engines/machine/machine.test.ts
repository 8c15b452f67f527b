import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { writers } from '../../writers';
import { benchFor } from '../benchFor';
import { contextFor } from '../context';
import { earTrack } from '../../links/sound/track';
import { inWords } from '../say';
import { speaking } from '../../speaking';
import { Disk, joinGaps, Machine } from '.';
import { VirtualClock } from './clock';

const { id, plan } = demoWorkshop.endpoints[0]!;
const bench = benchFor(writers, plan, contextFor(chain, demoWorkshop, id));

/** A machine whose disk holds these units, all enabled, with programs that note when they run. */
function machineWith(units: Record<string, string>, programs: Record<string, number> = {}) {
	const disk = new Disk();
	for (const [name, body] of Object.entries(units)) {
		disk.put(`/etc/systemd/system/${name}`, { text: body, bytes: null });
		// What a timer or a path starts is not started by itself.
		const isAsked = ['timer', 'path'].some(
			(kind) => name.replace(/service$/, kind) !== name && units[name.replace(/service$/, kind)]
		);
		if (!isAsked) disk.put(`/etc/systemd/system/multi-user.target.wants/${name}`, { text: '', bytes: null });
	}
	const machine = new Machine({
		card: new Map(),
		disk,
		bench,
		startUtcMs: Date.parse('2026-11-24T12:00:00Z'),
		timeZone: 'UTC'
	});
	const ran: string[] = [];
	for (const [path, lastsMs] of Object.entries({ '/bin/a': 100, '/bin/b': 100, ...programs })) {
		disk.put(path, { text: '', bytes: null, mode: '0755' });
		machine.programs.set(`/usr${path}`, (process) => {
			ran.push(`${path}@${machine.clock.nowMs}`);
			process.after(lastsMs, () => process.exit(path === '/bin/fails' ? 1 : 0));
		});
	}
	machine.clock.at(0, () => {
		machine.mains(true);
		machine.systemd.boot();
	});
	return { machine, ran };
}

describe('what a unit may write', () => {
	const may = (path: string, body: string): boolean => {
		const { machine } = machineWith({ 'one.service': `[Service]\nExecStart=/bin/a\n${body}` });
		return machine.systemd.mayWrite('one.service', path) === null;
	};
	it.each([
		['no', { '/usr/a': true, '/boot/a': true, '/etc/a': true, '/var/a': true, '/home/a': true }],
		['true', { '/usr/a': false, '/boot/a': false, '/etc/a': true, '/var/a': true, '/home/a': true }],
		['full', { '/usr/a': false, '/boot/a': false, '/etc/a': false, '/var/a': true, '/home/a': true }],
		[
			'strict',
			{
				'/usr/a': false,
				'/boot/a': false,
				'/etc/a': false,
				'/var/a': false,
				'/home/a': false,
				'/dev/a': true,
				'/sys/a': true
			}
		]
	])('by ProtectSystem=%s', (wish, paths) => {
		for (const [path, isOpen] of Object.entries(paths))
			expect([path, may(path, `ProtectSystem=${wish}\n`)]).toEqual([path, isOpen]);
	});
	it('in what is opened to it alone, and not in what only begins so', () => {
		const body = 'ProtectSystem=strict\nReadWritePaths=/var/own\nStateDirectory=kept\n';
		for (const path of ['/var/own/a', '/var/lib/kept/a/b']) expect([path, may(path, body)]).toEqual([path, true]);
		for (const path of ['/var/owner', '/var/lib/kept-not/a', '/var/lib'])
			expect([path, may(path, body)]).toEqual([path, false]);
	});
});

describe('the simulated systemd', () => {
	it('starts a unit after those it names, when they are part of the start', () => {
		const { machine, ran } = machineWith({
			'one.service': '[Unit]\nAfter=two.service\n[Service]\nExecStart=/bin/a\n',
			'two.service': '[Service]\nType=oneshot\nExecStart=/bin/b\n'
		});
		machine.clock.runUntil(1000);
		expect(ran).toEqual(['/bin/b@0', '/bin/a@120']);
	});
	it('starts a unit before those that it names, when they are part of the start', () => {
		const { machine, ran } = machineWith({
			'one.service': '[Service]\nExecStart=/bin/a\n',
			'two.service': '[Unit]\nBefore=three.service one.service\n[Service]\nType=oneshot\nExecStart=/bin/b\n'
		});
		machine.clock.runUntil(1000);
		expect(ran).toEqual(['/bin/b@0', '/bin/a@120']);
	});
	it('ends what waits when the power goes: it does not go on in the next start', () => {
		const { machine, ran } = machineWith({
			'p.service': '[Service]\nExecStartPre=/opt/wait.sh\nExecStart=/bin/a\n'
		});
		const script =
			'#!/bin/sh\ntries=50\nwhile [ $tries -gt 0 ]; do\n[ -e /run/here ] && exit 0\nsleep 0.2\ntries=$((tries - 1))\ndone\nexit 1\n';
		machine.disk.put('/opt/wait.sh', { text: script, bytes: null, mode: '0755' });
		machine.disk.put('/bin/sh', { text: '', bytes: null, mode: '0755' });
		machine.clock.at(1000, () => machine.mains(false, true));
		machine.clock.at(2000, () => {
			machine.mains(true);
			machine.systemd.boot();
		});
		machine.clock.at(3000, () => machine.disk.put('/run/here', { text: '', bytes: null }));
		machine.clock.runUntil(20_000);
		expect(ran).toHaveLength(1);
	});
	it('holds a unit back until a wanted target is reached', () => {
		const { machine, ran } = machineWith({
			'net.service': '[Unit]\nAfter=network-online.target\nWants=network-online.target\n[Service]\nExecStart=/bin/a\n'
		});
		machine.clock.at(5000, () => machine.systemd.reach('network-online.target'));
		machine.clock.runUntil(10_000);
		expect(ran).toEqual(['/bin/a@5000']);
	});
	it('starts again after RestartSec as long as Restart=always says, and stops when told', () => {
		const { machine, ran } = machineWith({
			'p.service': '[Service]\nExecStart=/bin/a\nRestart=always\nRestartSec=2\n'
		});
		machine.clock.at(5000, () => machine.systemd.stop('p.service'));
		machine.clock.runUntil(20_000);
		expect(ran).toEqual(['/bin/a@0', '/bin/a@2120', '/bin/a@4240']);
	});
	it('neither runs nor restarts a unit whose ExecCondition says no', () => {
		const { machine, ran } = machineWith(
			{ 'p.service': '[Service]\nExecCondition=/bin/fails\nExecStart=/bin/a\nRestart=always\n' },
			{ '/bin/fails': 10 }
		);
		machine.clock.runUntil(5000);
		expect(ran).toEqual(['/bin/fails@0']);
	});
	it('does not go on when a command before the main one fails, unless it is marked with -', () => {
		const unit = (flag: string): string => `[Service]\nExecStartPre=${flag}/bin/fails\nExecStart=/bin/a\n`;
		const strict = machineWith({ 'p.service': unit('') }, { '/bin/fails': 10 });
		const lenient = machineWith({ 'p.service': unit('-') }, { '/bin/fails': 10 });
		strict.machine.clock.runUntil(1000);
		lenient.machine.clock.runUntil(1000);
		expect(strict.ran).toEqual(['/bin/fails@0']);
		expect(lenient.ran).toEqual(['/bin/fails@0', '/bin/a@30']);
	});
	it('does the commands of a oneshot one after the other, and none after one that fails', () => {
		const unit = (first: string): string => `[Service]\nType=oneshot\nExecStart=${first}\nExecStart=/bin/b\n`;
		const good = machineWith({ 'p.service': unit('/bin/a') });
		const bad = machineWith({ 'p.service': unit('/bin/fails') }, { '/bin/fails': 10 });
		good.machine.clock.runUntil(1000);
		bad.machine.clock.runUntil(1000);
		expect(good.ran).toEqual(['/bin/a@0', '/bin/b@120']);
		expect(bad.ran).toEqual(['/bin/fails@0']);
	});
	it('fires a timer at each of its times', () => {
		const { machine, ran } = machineWith({
			't.timer': '[Timer]\nOnCalendar=*:0/30\n',
			't.service': '[Service]\nType=oneshot\nExecStart=/bin/b\n'
		});
		machine.clock.runUntil(3_700_000);
		expect(ran).toEqual(['/bin/b@1800000', '/bin/b@3600000']);
	});
	it('says which enabled unit or program is not there', () => {
		const { machine } = machineWith({ 'p.service': '[Service]\nExecStart=/bin/nowhere\n' });
		machine.clock.runUntil(1000);
		expect(inWords(speaking, machine.events).map(({ text }) => text)).toContain('/bin/nowhere is not on the endpoint');
	});
	it.each([
		['ConditionPathExists=/nowhere', []],
		['ConditionPathExists=!/nowhere', ['/bin/a@0']],
		['ConditionPathExists=/bin/a', ['/bin/a@0']],
		['ConditionPathExistsGlob=/usr/bin/*', ['/bin/a@0']],
		['ConditionPathExistsGlob=/usr/bin/z*', []]
	])('begins a unit only where %s holds', (condition, expected) => {
		const { machine, ran } = machineWith({
			'p.service': `[Unit]\n${condition}\n[Service]\nType=oneshot\nExecStart=/bin/a\n`
		});
		machine.clock.runUntil(1000);
		expect(ran).toEqual(expected);
	});
	it('says what of a unit, and which program, it cannot simulate', () => {
		const { machine } = machineWith({
			'p.service': '[Service]\nRootImage=/x\nExecStart=/bin/strange\n[Bind]\nA=1\n'
		});
		machine.disk.put('/bin/strange', { text: '', bytes: null, mode: '0755' });
		machine.clock.runUntil(1000);
		expect([...machine.notRehearsed]).toEqual([
			'RootImage= in [Service] of p.service',
			'A= in [Bind] of p.service',
			expect.stringContaining('/bin/strange')
		]);
	});
	it('runs a script by its own shell, with what it finds, and not without the right to', () => {
		const script = '#!/bin/sh\n[ -e /etc/flag ] || exit 4\necho seen >/tmp/out\n';
		const { machine } = machineWith({
			'p.service': '[Service]\nType=oneshot\nExecStart=/opt/s.sh\n',
			'q.service': '[Unit]\nAfter=p.service\n[Service]\nType=oneshot\nExecStart=/opt/t.sh\n'
		});
		for (const [path, mode] of [
			['/opt/s.sh', '0755'],
			['/opt/t.sh', '0644']
		] as const)
			machine.disk.put(path, { text: script, bytes: null, mode });
		machine.disk.put('/usr/bin/sh', { text: '', bytes: null, mode: '0755', stub: true });
		machine.disk.put('/etc/flag', { text: '', bytes: null });
		machine.disk.makeFolder('/tmp');
		machine.clock.runUntil(5000);
		expect(machine.disk.read('/tmp/out')).toBe('seen\n');
		expect(inWords(speaking, machine.events).map(({ text }) => text)).toContain(
			'/opt/t.sh may not be run: its mode forbids it'
		);
	});
	it('takes up a script that waits where it stands when what it waits for comes', () => {
		const { machine, ran } = machineWith({
			'p.service': '[Service]\nType=oneshot\nExecStartPre=/opt/wait.sh\nExecStart=/bin/a\n'
		});
		machine.disk.put('/usr/bin/sh', { text: '', bytes: null, mode: '0755', stub: true });
		machine.disk.put('/opt/wait.sh', {
			text: '#!/bin/sh\nn=0\nwhile [ $n -lt 100 ]; do\n[ -e /run/there ] && exit 0\nsleep 1\nn=$((n + 1))\ndone\nexit 1\n',
			bytes: null,
			mode: '0755'
		});
		machine.clock.at(7400, () => machine.disk.put('/run/there', { text: '', bytes: null }));
		machine.clock.runUntil(60_000);
		expect(ran).toHaveLength(1);
		expect(Number(ran[0]!.split('@')[1])).toBeGreaterThanOrEqual(8000);
		expect(Number(ran[0]!.split('@')[1])).toBeLessThan(8100);
	});
	it('forgets everything when the power goes', () => {
		const { machine, ran } = machineWith({
			'p.service': '[Service]\nExecStart=/bin/a\nRestart=always\nRestartSec=2\n'
		});
		machine.clock.at(1000, () => machine.mains(false));
		machine.clock.runUntil(20_000);
		expect(ran).toEqual(['/bin/a@0']);
	});
});

it('runs events in the order of their time, then in that in which they were set', () => {
	const clock = new VirtualClock();
	const order: string[] = [];
	for (const [name, at] of [
		['c', 20],
		['a', 10],
		['b', 10],
		['late', 99]
	] as const)
		clock.at(at, () => order.push(name));
	clock.runUntil(50);
	expect([order, clock.nowMs]).toEqual([['a', 'b', 'c'], 50]);
});

it('counts a change of track as one stretch of sound, a real silence as silence', () => {
	const span = (fromMs: number, toMs: number, state: 'sound' | 'silence') => ({
		fromMs,
		toMs,
		state,
		why: { from: 'system', code: 'starting', data: undefined }
	});
	expect(
		joinGaps(
			[
				span(0, 1000, 'sound'),
				span(1000, 1060, 'silence'),
				span(1060, 3000, 'sound'),
				span(3000, 9000, 'silence'),
				span(9000, 9500, 'sound')
			],
			earTrack
		).map((s) => [s.fromMs, s.toMs, s.state])
	).toEqual([
		[0, 3000, 'sound'],
		[3000, 9000, 'silence'],
		[9000, 9500, 'sound']
	]);
});

describe('a unit that fails again and again', () => {
	const unit = '[Unit]\nStartLimitIntervalSec=0\n[Service]\nExecStart=/bin/fails\nRestart=always\nRestartSec=2\n';
	it('is tried every two seconds first, then seldom, and at once when something changes', () => {
		const { machine, ran } = machineWith({ 'f.service': unit }, { '/bin/fails': 10 });
		machine.clock.runUntil(30_000);
		expect(ran.length).toBe(15);
		machine.clock.runUntil(3_600_000);
		expect(ran.length).toBeLessThan(40);
		const before = ran.length;
		machine.disk.put('/etc/x', { text: '', bytes: null });
		machine.clock.runUntil(3_603_000);
		expect(ran.length).toBe(before + 1);
	});
	it('is over with the power: nothing of the start before comes back', () => {
		const { machine, ran } = machineWith({ 'f.service': unit }, { '/bin/fails': 10 });
		machine.clock.runUntil(3_600_000);
		machine.mains(false);
		machine.mains(true);
		const before = ran.length;
		machine.disk.put('/etc/x', { text: '', bytes: null });
		machine.clock.runUntil(3_660_000);
		expect(ran.length).toBe(before);
	});
	it('is given up by systemd where it may: five times in ten seconds, and no more', () => {
		const { machine, ran } = machineWith(
			{ 'f.service': '[Service]\nExecStart=/bin/fails\nRestart=always\n' },
			{ '/bin/fails': 10 }
		);
		machine.clock.runUntil(60_000);
		expect(ran).toHaveLength(5);
		expect(inWords(speaking, machine.events).map(({ text }) => text)).toContain(
			'f.service has failed too often: systemd starts it no more'
		);
	});
});

describe('a timer', () => {
	const service = { 't.service': '[Service]\nType=oneshot\nExecStart=/bin/a\n' };
	const hours = (ms: number) => ms / 3_600_000;
	it('that is persistent makes up for what it missed while the board was off; any other does not', () => {
		for (const [persistent, times] of [
			['yes', 1],
			['no', 0]
		] as const) {
			const { machine, ran } = machineWith({
				...service,
				't.timer': `[Timer]\nOnCalendar=*-*-* 14:00:00\nPersistent=${persistent}\n`
			});
			machine.keepsTime = true;
			machine.clock.runUntil(60_000);
			machine.mains(false);
			machine.clock.runUntil(4 * 3_600_000);
			ran.length = 0;
			machine.clock.at(machine.clock.nowMs, () => {
				machine.mains(true);
				machine.systemd.boot();
			});
			machine.clock.runUntil(4.1 * 3_600_000);
			expect(
				ran.filter((one) => one.startsWith('/bin/a')),
				persistent
			).toHaveLength(times);
		}
	});
	it('goes by the endpoint\u2019s own clock, and is armed anew when that is set', () => {
		const { machine, ran } = machineWith({ ...service, 't.timer': '[Timer]\nOnCalendar=*-*-* 14:00:00\n' });
		machine.clockBehindMs = 5 * 3_600_000;
		machine.clock.runUntil(3_600_000);
		machine.setTime();
		machine.clock.runUntil(8 * 3_600_000);
		expect(ran.map((one) => hours(Number(one.split('@')[1])).toFixed(1))).toEqual(['2.0']);
	});
	it('is far behind after a restart where nothing keeps the time, a little where a note of it is kept, and not at all with a clock', () => {
		const after = (set: Partial<Pick<Machine, 'forgetsTime' | 'keepsTime'>>): number[] => {
			const { machine } = machineWith(service);
			Object.assign(machine, set);
			return [1, 2].map((restart) => {
				machine.clock.runUntil(restart * 24 * 3_600_000);
				machine.mains(false);
				machine.clock.runUntil((restart * 24 + 1) * 3_600_000);
				machine.clock.at(machine.clock.nowMs, () => machine.mains(true));
				machine.clock.runUntil((restart * 24 + 1.01) * 3_600_000);
				return Math.round(hours(machine.clockBehindMs));
			});
		};
		expect(after({ forgetsTime: true })).toEqual([25, 49]);
		expect(after({})).toEqual([1, 2]);
		expect(after({ forgetsTime: true, keepsTime: true })).toEqual([0, 0]);
	});
	it('counts from the start, and from its last time, where it is told so', () => {
		const { machine, ran } = machineWith({ ...service, 't.timer': '[Timer]\nOnBootSec=1min\nOnUnitActiveSec=10min\n' });
		machine.clock.runUntil(25 * 60_000);
		expect(ran.map((one) => Math.round(Number(one.split('@')[1]) / 60_000))).toEqual([1, 11, 21]);
	});
});

describe('what one unit has to do with another', () => {
	it('a unit whose requirement failed is not started; one that only wants it is', () => {
		const { machine, ran } = machineWith(
			{
				'bad.service': '[Service]\nType=oneshot\nExecStart=/bin/fails\n',
				'needs.service': '[Unit]\nRequires=bad.service\nAfter=bad.service\n[Service]\nExecStart=/bin/a\n',
				'wants.service': '[Unit]\nWants=bad.service\nAfter=bad.service\n[Service]\nExecStart=/bin/b\n'
			},
			{ '/bin/fails': 50 }
		);
		machine.clock.runUntil(5000);
		expect(ran.map((one) => one.split('@')[0])).toEqual(['/bin/fails', '/bin/b']);
		expect(inWords(speaking, machine.events).map(({ text }) => text)).toContain(
			'needs.service is not started: bad.service failed'
		);
	});
	it('a mount waits for whoever has it, and what needs it waits with it', () => {
		const { machine, ran } = machineWith({
			'srv-music.mount': '[Mount]\nWhat=//server/music\nWhere=/srv/music\nType=cifs\n',
			'p.service': '[Unit]\nRequires=srv-music.mount\nAfter=srv-music.mount\n[Service]\nExecStart=/bin/a\n'
		});
		const asked: string[] = [];
		machine.offers.mount = ({ what, where, type }, done) => {
			asked.push(`${type} ${what} ${where}`);
			machine.after(2000, () => done(null));
		};
		machine.clock.runUntil(1000);
		expect([asked, ran]).toEqual([['cifs //server/music /srv/music'], []]);
		machine.clock.runUntil(5000);
		expect(ran.map((one) => one.split('@')[0])).toEqual(['/bin/a']);
	});
	it('a path starts its unit when the file comes, and again when it changes', () => {
		const { machine, ran } = machineWith({
			'l.path': '[Path]\nPathChanged=/opt/list\nUnit=l.service\n',
			'l.service': '[Service]\nType=oneshot\nExecStart=/bin/a\n'
		});
		machine.clock.at(1000, () => machine.disk.put('/opt/list', { text: '1', bytes: null }));
		machine.clock.at(3000, () => machine.disk.put('/opt/list', { text: '2', bytes: null }));
		machine.clock.runUntil(5000);
		expect(ran.filter((one) => one.startsWith('/bin/a') && !one.endsWith('@0'))).toHaveLength(2);
	});
	it('a second command is for a oneshot only, and a unit without any is none', () => {
		const { machine, ran } = machineWith({
			'two.service': '[Service]\nExecStart=/bin/a\nExecStart=/bin/b\n',
			'none.service': '[Service]\nRestart=always\n'
		});
		machine.clock.runUntil(5000);
		expect(ran).toEqual([]);
		expect(
			inWords(speaking, machine.events)
				.filter(({ code }) => code === 'unit-refused')
				.map(({ data }) => (data as { unit: string }).unit)
		).toEqual(['two.service', 'none.service']);
	});
});

describe('the disk of the endpoint', () => {
	it('takes no more than there is room for, and gives room back', () => {
		const disk = new Disk();
		disk.freeBytes = 10;
		expect(disk.tryPut('/a', { text: '12345678', bytes: null })).toBeNull();
		expect(disk.tryPut('/b', { text: '123', bytes: null })).toBe('No space left on device');
		expect([disk.get('/b'), disk.get('/a')?.text]).toEqual([undefined, '12345678']);
		disk.remove('/a');
		expect(disk.tryPut('/b', { text: '123', bytes: null })).toBeNull();
	});
	it('loses by a cut what was being written, and never what took another\u2019s place whole', () => {
		const disk = new Disk();
		let nowMs = 0;
		disk.now = () => nowMs;
		disk.tryPut('/old', { text: 'old', bytes: null });
		disk.tryPut('/fresh', { text: 'x', bytes: null });
		nowMs = 6000;
		disk.tryPut('/new', { text: 'new', bytes: null });
		disk.tryPut('/beside', { text: 'beside', bytes: null });
		disk.rename('/beside', '/fresh');
		expect(disk.tear()).toEqual(['/new']);
		expect(['/old', '/new', '/fresh'].map((path) => disk.get(path)?.text)).toEqual(['old', '', 'beside']);
		expect(disk.tear()).toEqual([]);
	});
});
