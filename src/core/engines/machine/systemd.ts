import { nextElapses, readCalendar } from '../../formats/systemd/calendar';
import { readExec, readTimeSpanMs, readUnit, type UnitEntry } from '../../formats/systemd/unit';
import type { Machine } from './machine';
import { mayRun, spawn } from './processes';
import { matches } from './shell/pattern';

/**
 * As much of systemd as our units use: enabling, ordering by After=, ExecCondition, ExecStartPre, ExecStart, Restart, timers.
 * Source: systemd.service(5), systemd.timer(5), bootup(7).
 */
export interface Systemd {
	/** The kernel hands over: begin what is enabled. */
	boot(): void;
	start(unit: string): void;
	stop(unit: string): void;
	/** A target or unit that something else brings about. */
	reach(unit: string): void;
	isActive(unit: string): boolean;
	/** Why a unit may not use a device; null: it may. Source: systemd.exec(5), systemd.resource-control(5). */
	mayUse(unit: string | null, group: string, device: string): string | null;
	/** Whether a unit may read a file of this mode that is not its own. */
	mayRead(unit: string | null, mode: string): boolean;
}

/** Reached as part of every start, without our doing. */
const ALWAYS_REACHED = [
	'local-fs.target',
	'sysinit.target',
	'basic.target',
	'time-set.target',
	'systemd-user-sessions.service',
	'network.target',
	'alsa-restore.service'
];

/** Simulated, or known not to decide success here (hardening as it stood the test of a real start, words for people). */
const KNOWN: Readonly<Record<string, readonly string[]>> = {
	Unit: [
		'Description',
		'Documentation',
		'After',
		'Before',
		'Wants',
		'StartLimitIntervalSec',
		'StartLimitBurst',
		'ConditionPathExists',
		'ConditionPathExistsGlob'
	],
	Service: [
		...[
			'Type',
			'ExecCondition',
			'ExecStartPre',
			'ExecStart',
			'Restart',
			'RestartSec',
			'Environment',
			'RemainAfterExit'
		],
		...[
			'DynamicUser',
			'User',
			'SupplementaryGroups',
			'DevicePolicy',
			'DeviceAllow',
			'StateDirectory',
			'RuntimeDirectory'
		],
		...['NoNewPrivileges', 'CapabilityBoundingSet', 'ProtectHome', 'ProtectKernelTunables', 'ProtectKernelModules'],
		...['ProtectControlGroups', 'RestrictAddressFamilies', 'RestrictNamespaces', 'LockPersonality', 'SystemCallFilter'],
		...['SystemCallErrorNumber', 'Nice', 'IOSchedulingClass', 'ProtectSystem']
	],
	Timer: ['OnCalendar', 'AccuracySec', 'Unit', 'Persistent'],
	Install: ['WantedBy', 'RequiredBy', 'Also', 'Alias']
};

/** From a program's end to what systemd does about it. Typical. */
const NOTICED_MS = 18;

interface Service {
	state: 'inactive' | 'waiting' | 'active' | 'stopped';
	kill: (() => void) | null;
	/** Each start has its own number, so that late events of an earlier one are recognised. */
	run: number;
}

/** Whether a pattern in the last step of a path matches something. */
function globbed(disk: Machine['disk'], path: string): boolean {
	const slash = path.lastIndexOf('/');
	return disk.list(path.slice(0, slash) || '/').some((name) => matches(name, path.slice(slash + 1)));
}

export function startSystemd(machine: Machine): Systemd {
	const reached = new Set<string>();
	const services = new Map<string, Service>();
	const units = new Map<string, UnitEntry[]>();
	const unit = (name: string): UnitEntry[] => {
		let entries = units.get(name);
		if (!entries) units.set(name, (entries = readUnit(machine.disk.unit(name)?.text ?? '')));
		return entries;
	};
	/** What of a unit is not simulated is said when it is first read. */
	const judge = (name: string): void => {
		for (const { section, key } of unit(name))
			if (!KNOWN[section]?.includes(key)) machine.unknown(`${key}= in [${section}] of ${name}`);
	};
	const values = (name: string, key: string): string[] =>
		unit(name)
			.filter((e) => e.key === key && e.value)
			.map((e) => e.value);
	const after = (name: string): string[] => values(name, 'After').flatMap((value) => value.split(/\s+/));
	/** What goes wrong at every attempt is said at the first. */
	const said = new Set<string>();
	const once = (text: string): void => {
		if (said.has(text)) return;
		said.add(text);
		machine.log('system', text, '', 'bad');
	};
	const service = (name: string): Service => {
		let found = services.get(name);
		if (!found) services.set(name, (found = { state: 'inactive', kill: null, run: 0 }));
		return found;
	};

	/** What systemd itself would wait for: units that are part of this start, not yet there. */
	const isAwaited = (name: string): boolean =>
		!reached.has(name) &&
		!ALWAYS_REACHED.includes(name) &&
		(wanted.has(name) || services.get(name)?.state === 'waiting');
	const wanted = new Set<string>();

	/** As somebody who is not the administrator. */
	const runsAsOther = (name: string): boolean =>
		/^(?:yes|true|1|on)$/.test(values(name, 'DynamicUser')[0] ?? '') || (values(name, 'User')[0] ?? 'root') !== 'root';

	function start(name: string): void {
		const it = service(name);
		if (it.state === 'active' || it.state === 'waiting') return;
		judge(name);
		for (const want of values(name, 'Wants').flatMap((v) => v.split(/\s+/))) wanted.add(want);
		it.state = 'waiting';
		tryWaiting();
	}

	function tryWaiting(): void {
		for (const [name, it] of services) if (it.state === 'waiting' && !after(name).some(isAwaited)) begin(name, it);
	}

	/** The first of a unit's conditions that does not hold; null: all do. Source: systemd.unit(5), CONDITIONS AND ASSERTS. */
	function unmet(name: string): string | null {
		for (const key of ['ConditionPathExists', 'ConditionPathExistsGlob'])
			for (const value of values(name, key)) {
				const wantsNone = value.startsWith('!');
				const path = value.replace(/^!/, '');
				const there = key.endsWith('Glob') ? globbed(machine.disk, path) : machine.disk.kind(path) !== null;
				if (there === wantsNone) return `${key}=${value}`;
			}
		return null;
	}

	function begin(name: string, it: Service): void {
		const condition = unmet(name);
		if (condition !== null) {
			it.state = 'inactive';
			once(`${name} is passed over: ${condition} does not hold`);
			return reach(name);
		}
		it.state = 'active';
		const run = ++it.run;
		const isOneshot = values(name, 'Type')[0] === 'oneshot';
		const commands = [
			...values(name, 'ExecCondition').map((value) => ({ value, role: 'condition' as const })),
			...values(name, 'ExecStartPre').map((value) => ({ value, role: 'before' as const })),
			...values(name, 'ExecStart').map((value) => ({ value, role: 'main' as const }))
		];
		const next = (index: number): void => {
			if (it.run !== run) return;
			const command = commands[index];
			if (!command) return ended(name, it, 0);
			const exec = readExec(command.value);
			if (!exec) {
				machine.log('system', `${name}: its command line is not readable`, '', 'bad');
				return;
			}
			execute(name, exec.words, it, (code, why) => {
				if (it.run !== run) return;
				if (command.role === 'condition' && code > 0 && code < 255) {
					it.state = 'inactive';
					it.kill = null;
					reach(name);
					machine.emit('unit-skipped', name);
				} else if (code !== 0 && command.role !== 'main' && !exec.flags.includes('-')) {
					machine.emit('unit-held-back', { unit: name, why: why || `${exec.words[0]} ended with ${code}` });
					ended(name, it, code);
				} else if (command.role === 'main' && !(isOneshot && code === 0)) ended(name, it, code);
				else next(index + 1);
			});
		};
		next(0);
		if (!isOneshot) reach(name);
	}

	function execute(
		name: string,
		argv: readonly string[],
		it: Service,
		onExit: (code: number, why: string) => void
	): void {
		const refused = mayRun(machine, argv[0] ?? '');
		if (typeof refused === 'string') {
			const words = refused === 'missing' ? 'is not on the endpoint' : 'may not be run: its mode forbids it';
			machine.log('system', `${argv[0]} ${words}`, 'exit 203', 'bad');
			machine.after(20, () => onExit(203, `${argv[0]} ${words}`));
			return;
		}
		const env = new Map(
			values(name, 'Environment').flatMap((line) =>
				(readExec(line)?.words ?? []).map((word) => {
					const equals = word.indexOf('=');
					return [word.slice(0, equals), word.slice(equals + 1)] as const;
				})
			)
		);
		let alive = true;
		const kill = spawn(machine, { argv, env, stdin: '', unit: name }, ({ code, err }) => {
			if (!alive) return;
			const last = err.trim().split('\n').at(-1)!;
			// A complaint is worth knowing even where the program went on.
			if (last !== '') once(`${argv[0]}: ${last}`);
			machine.after(NOTICED_MS, () => {
				if (alive) onExit(code, last);
			});
		});
		it.kill = () => {
			alive = false;
			kill();
		};
	}

	function ended(name: string, it: Service, code: number): void {
		it.kill = null;
		it.state = 'inactive';
		reach(name);
		const restart = values(name, 'Restart')[0] ?? 'no';
		if (restart !== 'always' && !(restart === 'on-failure' && code !== 0)) return;
		it.state = 'stopped';
		const run = it.run;
		machine.after(readTimeSpanMs(values(name, 'RestartSec')[0] ?? '100ms') ?? 100, () => {
			if (it.state === 'stopped' && it.run === run) {
				it.state = 'inactive';
				start(name);
			}
		});
	}

	function stop(name: string): void {
		const it = service(name);
		it.run++;
		it.state = 'inactive';
		const kill = it.kill;
		it.kill = null;
		kill?.();
	}

	function reach(name: string): void {
		reached.add(name);
		tryWaiting();
	}

	function startTimer(name: string): void {
		judge(name);
		const target = values(name, 'Unit')[0] ?? name.replace(/\.timer$/, '.service');
		const rules = values(name, 'OnCalendar').flatMap((text) => {
			const rule = readCalendar(text);
			if (!rule.ok) machine.log('system', `${name}: ${rule.faults[0]!.message}`, '', 'bad');
			return rule.ok ? [rule.value] : [];
		});
		const arm = (): void => {
			const next = Math.min(...rules.flatMap((rule) => nextElapses(rule, machine.timeZone, machine.nowUtcMs, 1)));
			if (!Number.isFinite(next)) return;
			machine.after(next - machine.nowUtcMs, () => {
				start(target);
				arm();
			});
		};
		arm();
	}

	return {
		boot() {
			// All jobs of the start are queued before the first runs, so that After= finds them.
			for (const name of machine.disk.enabled)
				if (!name.endsWith('.timer') && machine.disk.unit(name)) wanted.add(name);
			for (const name of machine.disk.enabled) {
				const file = machine.disk.unit(name);
				if (!file) machine.log('system', `${name} is enabled but not on the endpoint`, '', 'bad');
				// A package's own: that it is there is all that is known of it.
				else if (file.stub) reach(name);
				else if (name.endsWith('.timer')) startTimer(name);
				else start(name);
			}
		},
		start,
		stop,
		reach,
		isActive: (name) => services.get(name)?.state === 'active',
		mayUse(name, group, device) {
			if (name === null || !runsAsOther(name)) return null;
			if (!values(name, 'SupplementaryGroups').some((line) => line.split(/\s+/).includes(group)))
				return `the unit is not in the group ${group}`;
			const policy = values(name, 'DevicePolicy')[0] ?? 'auto';
			const allowed = values(name, 'DeviceAllow').map((line) => line.split(/\s+/)[0]);
			if (policy !== 'auto' || allowed.length)
				if (!allowed.includes(device)) return `DeviceAllow= keeps it from ${device}`;
			return null;
		},
		mayRead: (name, mode) => name === null || !runsAsOther(name) || (parseInt(mode, 8) & 0o004) !== 0
	};
}
