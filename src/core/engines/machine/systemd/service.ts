import { ownFoldersOf } from './access';
import { readExec } from '../../../formats/systemd/unit';
import type { Machine } from '../machine';
import { mayRun, spawn } from '../processes';
import type { Ended } from '../shell';
import type { UnitFiles } from './unitFiles';

/** From a program's end to what systemd does about it. Typical. */
const NOTICED_MS = 18;
/** Where nothing else is said. Source: systemd-system.conf(5), DefaultStartLimitIntervalSec=, DefaultStartLimitBurst=. */
const START_LIMIT = { intervalMs: 10_000, burst: 5 };

/** One service while the machine runs. */
export interface Service {
	state: 'inactive' | 'waiting' | 'active' | 'stopped' | 'failed';
	kill: (() => void) | null;
	/** Each start has its own number, so that late events of an earlier one are recognised. */
	run: number;
	/** When it was started lately, for the limit. */
	startsMs: number[];
	/** How often it was begun again by itself. */
	restarts: number;
	/** How it has ended lately, and how often so, while nothing else changed. */
	same: { readonly code: number; readonly version: number; readonly times: number } | null;
}

/** What a service needs of the rest of systemd. */
export interface Manager {
	readonly machine: Machine;
	readonly files: UnitFiles;
	start(unit: string): void;
	stop(unit: string): void;
	reach(unit: string): void;
	failed(unit: string): void;
}

type Exec = NonNullable<ReturnType<typeof readExec>>;
type Role = 'condition' | 'before' | 'main' | 'afterwards' | 'stop';
interface Command {
	readonly value: string;
	readonly role: Role;
}

/** Runs the commands of a service one after another, and decides what its end means. Source: systemd.service(5). */
export function beginService(manager: Manager, name: string, it: Service): void {
	const { files, machine } = manager;
	if (isTooOften(manager, name, it)) return;
	const isOneshot = files.value(name, 'Type') === 'oneshot';
	const starts = files.values(name, 'ExecStart').length;
	if (starts === 0 || (starts > 1 && !isOneshot)) {
		it.state = 'failed';
		machine.once('unit-refused', { unit: name, starts });
		return manager.failed(name);
	}
	it.state = 'active';
	for (const folder of ownFoldersOf(files, name)) machine.disk.makeFolder(folder);
	const run = ++it.run;
	const of = (key: string, role: Role): Command[] => files.values(name, key).map((value) => ({ value, role }));
	const commands = [
		...of('ExecCondition', 'condition'),
		...of('ExecStartPre', 'before'),
		...of('ExecStart', 'main'),
		...(isOneshot ? of('ExecStartPost', 'afterwards') : [])
	];
	const next = (index: number): void => {
		if (it.run !== run) return;
		const command = commands[index];
		if (!command) return endService(manager, name, it, 0);
		const exec = readExec(command.value);
		if (!exec) {
			machine.say('unit-unreadable', 'bad', { unit: name });
			return endService(manager, name, it, 1);
		}
		execute(manager, name, exec, it, (code, why) => {
			if (it.run !== run) return;
			if (command.role === 'condition' && code > 0 && code < 255) {
				it.state = 'inactive';
				it.kill = null;
				manager.reach(name);
				machine.emit('unit-skipped', name);
			} else if (code !== 0 && command.role !== 'main' && !exec.flags.includes('-')) {
				machine.emit('unit-held-back', { unit: name, why: why || `${exec.words[0]} ended with ${code}` });
				endService(manager, name, it, code);
			} else if (command.role === 'main' && !(isOneshot && (code === 0 || exec.flags.includes('-'))))
				endService(manager, name, it, exec.flags.includes('-') ? 0 : code);
			else next(index + 1);
		});
	};
	next(0);
	if (!isOneshot) return manager.reach(name);
	// Without a limit of its own its commands may take for ever. Source: systemd.service(5), TimeoutStartSec=.
	const limitMs = files.spanMs(name, 'TimeoutStartSec');
	if (!limitMs || it.kill === null) return;
	machine.after(limitMs, () => {
		if (it.run !== run || it.kill === null) return;
		it.kill();
		machine.say('unit-too-long', 'bad', { unit: name, limitSec: limitMs / 1000 });
		endService(manager, name, it, TIMED_OUT);
	});
}

function isTooOften({ files, machine, failed }: Manager, name: string, it: Service): boolean {
	const intervalMs = files.spanMs(name, 'StartLimitIntervalSec') ?? START_LIMIT.intervalMs;
	const burst = Number(files.value(name, 'StartLimitBurst') ?? START_LIMIT.burst);
	if (intervalMs === 0) return false;
	const now = machine.clock.nowMs;
	it.startsMs = [...it.startsMs.filter((ms) => now - ms < intervalMs), now];
	if (it.startsMs.length <= burst) return false;
	it.state = 'failed';
	machine.say('unit-gave-up', 'bad', { unit: name });
	failed(name);
	return true;
}

function execute(
	{ files, machine }: Manager,
	name: string,
	{ words: argv, flags }: Exec,
	it: Service,
	onExit: (code: number, why: string) => void
): void {
	const path = argv[0] ?? '';
	const found = mayRun(machine, path);
	const env = files.environment(name);
	if (typeof found === 'string') {
		machine.say(found === 'missing' ? 'program-missing' : 'program-forbidden', 'bad', { path });
		const why = `${path} ${found === 'missing' ? 'is not on the endpoint' : 'may not be run: its mode forbids it'}`;
		return machine.after(20, () => onExit(203, why));
	}
	if (typeof env === 'string') {
		machine.once('program-says', { path: name, last: env });
		return machine.after(20, () => onExit(1, env));
	}
	let alive = true;
	// With a plus it has all rights, whoever the unit runs as. Source: systemd.service(5), "Command lines", table 1.
	const unit = flags.includes('+') ? null : name;
	const ended = ({ code, out, err }: Ended): void => {
		if (!alive) return;
		for (const line of `${out}${err}`.split('\n')) if (line !== '') machine.log(name, line);
		const last = err.trim().split('\n').at(-1)!;
		// A complaint is worth knowing even where the program went on.
		if (last !== '') machine.once('program-says', { path, last });
		machine.after(NOTICED_MS, () => {
			if (alive) onExit(code, last);
		});
	};
	const kill = spawn(machine, { argv, env, stdin: '', unit }, ended, found);
	it.kill = () => {
		alive = false;
		kill();
	};
}

function endService(manager: Manager, name: string, it: Service, code: number): void {
	const { files, machine } = manager;
	it.kill = null;
	// Source: systemd.service(5), SuccessExitStatus=, RestartForceExitStatus=.
	const isIn = (key: string): boolean =>
		files.values(name, key).some((codes) => codes.split(/\s+/).includes(String(code)));
	const isWell = code === 0 || isIn('SuccessExitStatus');
	const stays = isWell && files.value(name, 'Type') === 'oneshot' && files.isOn(name, 'RemainAfterExit');
	it.state = stays ? 'active' : isWell ? 'inactive' : 'failed';
	if (isWell) manager.reach(name);
	const restart = files.value(name, 'Restart') ?? 'no';
	const isForced = isIn('RestartForceExitStatus');
	if (stays || (restart !== 'always' && !isForced && !(restart === 'on-failure' && !isWell))) {
		if (!isWell) manager.failed(name);
		return;
	}
	manager.reach(name);
	it.state = 'stopped';
	const { run } = it;
	const { boot } = machine;
	const delayMs = files.spanMs(name, 'RestartSec') ?? 100;
	const again = (): void => {
		if (it.state !== 'stopped' || it.run !== run || machine.boot !== boot) return;
		it.state = 'inactive';
		it.restarts++;
		manager.start(name);
	};
	if (!isTheSameAgain(machine, it, code)) return machine.after(delayMs, again);
	// Nothing has changed since it ended so the last times, so it would end so again: tried seldom, and at once when anything does.
	const forget = machine.world.onChange(() => {
		forget();
		machine.after(delayMs, again);
	});
	machine.after(SELDOM_MS, () => {
		forget();
		again();
	});
}

/** Told to end by SIGTERM. */
const TIMED_OUT = 143;
/** After so many ends of one kind in a world that stands still the next is known. */
const KNOWN_AFTER = 20;
const SELDOM_MS = 300_000;

function isTheSameAgain({ world }: Machine, it: Service, code: number): boolean {
	const { version } = world;
	it.same =
		it.same?.code === code && it.same.version === version
			? { ...it.same, times: it.same.times + 1 }
			: { code, version, times: 1 };
	return it.same.times > KNOWN_AFTER;
}

/** Ends what runs; what ExecStop= names runs first, and nobody waits for it longer than it takes. */
export function stopService(manager: Manager, name: string, it: Service): void {
	const wasActive = it.state === 'active';
	it.run++;
	it.state = 'inactive';
	const kill = it.kill;
	it.kill = null;
	kill?.();
	if (!wasActive) return;
	for (const value of [...manager.files.values(name, 'ExecStop'), ...manager.files.values(name, 'ExecStopPost')]) {
		const exec = readExec(value);
		if (exec) execute(manager, name, exec, { ...it, kill: null }, () => {});
	}
}
