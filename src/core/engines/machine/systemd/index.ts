/**
 * As much of systemd as units on a card use: enabling, ordering, conditions, services, timers, paths, mounts, sockets.
 * What it does not know it says. Source: systemd.unit(5), systemd.service(5), systemd.timer(5), bootup(7).
 */
import type { Machine } from '../machine';
import { accessOf, type Access } from './access';
import { ALWAYS_REACHED, kindOf } from './known';
import { startMount, startPath } from './others';
import { beginService, stopService, type Manager, type Service } from './service';
import { startTimer } from './timer';
import { UnitFiles } from './unitFiles';

export { OTHERS_READ } from './access';

/** What the rest of the machine asks of its service manager. */
export interface Systemd extends Access {
	/** The kernel hands over: begin what is enabled. */
	boot(): void;
	start(unit: string): void;
	stop(unit: string): void;
	/** A target or unit that something else brings about. */
	reach(unit: string): void;
	isActive(unit: string): boolean;
	/** Reads units anew when they are next asked for. */
	reload(): void;
}

/** A service manager that executes the units on the machine's disk. Source: systemd.unit(5), systemd.service(5), systemd 252. */
export function startSystemd(machine: Machine): Systemd {
	const files = new UnitFiles(machine);
	const reached = new Set<string>();
	const broken = new Set<string>();
	const wanted = new Set<string>();
	const services = new Map<string, Service>();
	const service = (name: string): Service => {
		let found = services.get(name);
		if (!found) services.set(name, (found = { state: 'inactive', kill: null, run: 0, startsMs: [], same: null }));
		return found;
	};
	/** What systemd itself would wait for: units that are part of this start, not yet there. */
	const isAwaited = (name: string): boolean =>
		!reached.has(name) &&
		!broken.has(name) &&
		!ALWAYS_REACHED.includes(name) &&
		(wanted.has(name) || services.get(name)?.state === 'waiting');

	function start(name: string): void {
		const it = service(name);
		if (it.state === 'active' || it.state === 'waiting') return;
		files.judge(name);
		for (const key of ['Wants', 'Requires', 'BindsTo']) for (const other of files.words(name, key)) want(other);
		it.state = 'waiting';
		tryWaiting();
	}

	/** A unit of ours that another asks for is started; what the system brings comes by itself. */
	function want(name: string): void {
		wanted.add(name);
		const file = machine.disk.unit(name);
		if (file && !file.stub && service(name).state === 'inactive' && !reached.has(name)) start(name);
	}

	function tryWaiting(): void {
		for (const [name, it] of services)
			if (it.state === 'waiting' && !files.words(name, 'After').some(isAwaited)) begin(name, it);
	}

	function begin(name: string, it: Service): void {
		const needed = [...files.words(name, 'Requires'), ...files.words(name, 'BindsTo')].find((other) =>
			broken.has(other)
		);
		if (needed !== undefined) {
			it.state = 'failed';
			machine.once('dependency-failed', { unit: name, on: needed });
			machine.emit('unit-held-back', { unit: name, why: `${needed} failed` });
			return failed(name);
		}
		const condition = files.unmet(name);
		if (condition !== null) {
			it.state = 'inactive';
			machine.once('unit-passed-over', { unit: name, condition });
			return reach(name);
		}
		switch (kindOf(name)) {
			case 'service':
				return beginService(manager, name, it);
			case 'timer':
				it.state = 'active';
				startTimer(manager, name);
				return reach(name);
			case 'mount':
				it.state = 'active';
				return startMount(manager, name);
			case 'path':
				it.state = 'active';
				return startPath(manager, name);
			default:
				// A target is its parts; an automount or a socket waits for somebody who comes.
				it.state = 'active';
				reach(name);
		}
	}

	function reach(name: string): void {
		reached.add(name);
		tryWaiting();
	}

	function failed(name: string): void {
		broken.add(name);
		for (const other of files.words(name, 'OnFailure')) start(other);
		tryWaiting();
	}

	function stop(name: string): void {
		stopService(manager, name, service(name));
	}

	const manager: Manager = { machine, files, start, stop, reach, failed };
	return {
		boot() {
			// All jobs of the start are queued before the first runs, so that After= finds them.
			for (const name of machine.disk.enabled) if (machine.disk.unit(name)) wanted.add(name);
			for (const name of machine.disk.enabled) {
				const file = machine.disk.unit(name);
				if (!file) machine.say('unit-missing', 'bad', { unit: name });
				// A package's own: that it is there is all that is known of it.
				else if (file.stub) reach(name);
				else start(name);
			}
		},
		start,
		stop,
		reach,
		isActive: (name) => services.get(name)?.state === 'active' || (reached.has(name) && !services.has(name)),
		reload: () => files.forget(),
		...accessOf(files)
	};
}
