import { nextElapses, readCalendar } from '../../formats/systemd/calendar';
import { readExec, readTimeSpanMs, readUnit, type UnitEntry } from '../../formats/systemd/unit';
import type { Machine, Process } from './machine';

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

interface Service {
	state: 'inactive' | 'waiting' | 'active' | 'stopped';
	kill: (() => void) | null;
	/** Each start has its own number, so that late events of an earlier one are recognised. */
	run: number;
}

export function startSystemd(machine: Machine): Systemd {
	const reached = new Set<string>();
	const services = new Map<string, Service>();
	const units = new Map<string, UnitEntry[]>();
	const unit = (name: string): UnitEntry[] => {
		let entries = units.get(name);
		if (!entries)
			units.set(name, (entries = readUnit(machine.disk.files.get(`/etc/systemd/system/${name}`)?.text ?? '')));
		return entries;
	};
	const values = (name: string, key: string): string[] =>
		unit(name)
			.filter((e) => e.key === key && e.value)
			.map((e) => e.value);
	const after = (name: string): string[] => values(name, 'After').flatMap((value) => value.split(/\s+/));
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

	function start(name: string): void {
		const it = service(name);
		if (it.state === 'active' || it.state === 'waiting') return;
		for (const want of values(name, 'Wants').flatMap((v) => v.split(/\s+/))) wanted.add(want);
		it.state = 'waiting';
		tryWaiting();
	}

	function tryWaiting(): void {
		for (const [name, it] of services) if (it.state === 'waiting' && !after(name).some(isAwaited)) begin(name, it);
	}

	function begin(name: string, it: Service): void {
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
			execute(exec.words, it, (code) => {
				if (it.run !== run) return;
				if (command.role === 'condition' && code > 0 && code < 255) {
					it.state = 'inactive';
					it.kill = null;
					reach(name);
				} else if (code !== 0 && command.role !== 'main' && !exec.flags.includes('-')) ended(name, it, code);
				else if (command.role === 'main' && !(isOneshot && code === 0)) ended(name, it, code);
				else next(index + 1);
			});
		};
		next(0);
		if (!isOneshot) reach(name);
	}

	function execute(argv: readonly string[], it: Service, onExit: (code: number) => void): void {
		const program = machine.programs.get(argv[0] ?? '');
		if (!program) {
			machine.log('system', `${argv[0]} is not on the endpoint`, 'exit 203', 'bad');
			machine.after(20, () => onExit(203));
			return;
		}
		let alive = true;
		const cleanUps: (() => void)[] = [];
		const end = (): void => {
			alive = false;
			for (const run of cleanUps) run();
		};
		it.kill = end;
		const process: Process = {
			argv,
			exit(code) {
				if (!alive) return;
				end();
				machine.after(20, () => onExit(code));
			},
			after(ms, run) {
				machine.after(ms, () => {
					if (alive) run();
				});
			},
			onKill: (run) => void cleanUps.push(run)
		};
		program(process, machine);
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
				if (!name.endsWith('.timer') && machine.disk.files.has(`/etc/systemd/system/${name}`)) wanted.add(name);
			for (const name of machine.disk.enabled) {
				if (!machine.disk.files.has(`/etc/systemd/system/${name}`))
					machine.log('system', `${name} is enabled but not on the endpoint`, '', 'bad');
				else if (name.endsWith('.timer')) startTimer(name);
				else start(name);
			}
		},
		start,
		stop,
		reach,
		isActive: (name) => services.get(name)?.state === 'active'
	};
}
