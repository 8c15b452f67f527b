import type { Machine } from '../machine';
import { ALWAYS_REACHED, kindOf, REACHED_AT_START } from './known';
import { startMount, startPath } from './others';
import { beginService, stopService, type Manager, type Service } from './service';
import { startTimer } from './timer';
import { makeTmpfiles } from './tmpfiles';
import type { UnitFiles } from './unitFiles';

/** To load a module and those that it needs. Typical. */
const MODPROBE_MS = 60;

/**
 * Which units wait, run, are reached or broken, and which begins next. Its parts are given from hand to hand, so they
 * are functions of their own. Source: systemd.unit(5), bootup(7).
 */
export class Units implements Manager {
	readonly #reached = new Set<string>();
	readonly #broken = new Set<string>();
	readonly #wanted = new Set<string>();
	readonly #services = new Map<string, Service>();
	/** By unit those that name it with Before=. */
	readonly #ahead = new Map<string, Set<string>>();
	/** Drivers that the kernel had when each service was started. */
	readonly #knew = new Map<string, ReadonlySet<string>>();

	constructor(
		readonly machine: Machine,
		readonly files: UnitFiles
	) {}

	boot(): void {
		const { disk } = this.machine;
		makeTmpfiles(this.machine);
		// All jobs of the start are queued before the first runs, so that After= finds them.
		const names = this.#wantedAtStart();
		for (const name of names)
			if (disk.unit(name)) {
				this.#wanted.add(name);
				this.#goesBefore(name);
			}
		for (const name of names) {
			const file = disk.unit(name);
			if (!file) this.machine.say('unit-missing', 'bad', { unit: name });
			// A package's own: that it is there is all that is known of it.
			else if (file.stub) this.reach(name);
			else this.start(name);
		}
	}

	/** Enabled units that a start reaches; of the others it is said that nothing wants them. */
	#wantedAtStart(): readonly string[] {
		const { disk } = this.machine;
		const reached = disk.wanted.filter(({ by }) => REACHED_AT_START.includes(by) || by.endsWith('.device'));
		const names = new Set(reached.map(({ unit }) => unit));
		for (const { unit, by } of disk.wanted)
			if (!names.has(unit)) this.machine.say('unit-unwanted', 'bad', { unit, by });
		return [...names];
	}

	isActive(name: string): boolean {
		const it = this.#services.get(name);
		return it ? it.state === 'active' : this.#reached.has(name);
	}

	restartsOf(name: string): number {
		return this.#service(name).restarts;
	}

	readonly start = (name: string): void => {
		const it = this.#service(name);
		if (it.state === 'active' || it.state === 'waiting') return;
		this.files.judge(name);
		this.#goesBefore(name);
		for (const key of ['Wants', 'Requires', 'BindsTo'])
			for (const other of this.files.words(name, key)) this.#want(other);
		it.state = 'waiting';
		this.#tryWaiting();
	};

	readonly stop = (name: string): void => stopService(this, name, this.#service(name));

	readonly reach = (name: string): void => {
		this.#reached.add(name);
		this.#tryWaiting();
	};

	readonly failed = (name: string): void => {
		this.#broken.add(name);
		for (const other of this.files.words(name, 'OnFailure')) this.start(other);
		this.#tryWaiting();
	};

	/** Whether a kernel's module was there when a service was started. */
	knewDriver(name: string, module: string): boolean {
		return this.#knew.get(name)?.has(module) ?? true;
	}

	#service(name: string): Service {
		let found = this.#services.get(name);
		if (!found)
			this.#services.set(
				name,
				(found = { state: 'inactive', kill: null, run: 0, startsMs: [], restarts: 0, same: null })
			);
		return found;
	}

	#goesBefore(name: string): void {
		for (const other of this.files.words(name, 'Before')) {
			const ahead = this.#ahead.get(other);
			if (ahead) ahead.add(name);
			else this.#ahead.set(other, new Set([name]));
		}
	}

	/** What systemd itself would wait for: units that are part of this start, not yet there. */
	#isAwaited(name: string): boolean {
		if (this.#reached.has(name) || this.#broken.has(name) || ALWAYS_REACHED.includes(name)) return false;
		return this.#wanted.has(name) || this.#services.get(name)?.state === 'waiting';
	}

	/** A unit of ours that another asks for is started; what the system brings comes by itself. */
	#want(name: string): void {
		this.#wanted.add(name);
		const module = /^modprobe@([\w-]+)\.service$/.exec(name)?.[1];
		if (module !== undefined && this.machine.disk.unit('modprobe@.service')) {
			// It takes a moment, which only After= waits for.
			return this.machine.after(MODPROBE_MS, () => {
				this.machine.modules.add(module);
				this.reach(name);
			});
		}
		const file = this.machine.disk.unit(name);
		if (file && !file.stub && this.#service(name).state === 'inactive' && !this.#reached.has(name)) this.start(name);
	}

	#tryWaiting(): void {
		for (const [name, it] of this.#services)
			if (
				it.state === 'waiting' &&
				![...this.files.words(name, 'After'), ...(this.#ahead.get(name) ?? [])].some((other) => this.#isAwaited(other))
			)
				this.#begin(name, it);
	}

	#begin(name: string, it: Service): void {
		const { files, machine } = this;
		const needed = ['Requires', 'BindsTo']
			.flatMap((key) => files.words(name, key))
			.find((other) => this.#broken.has(other));
		if (needed !== undefined) {
			it.state = 'failed';
			machine.once('dependency-failed', { unit: name, on: needed });
			machine.emit('unit-held-back', { unit: name, why: `${needed} failed` });
			return this.failed(name);
		}
		const condition = files.unmet(name);
		if (condition !== null) {
			it.state = 'inactive';
			machine.once('unit-passed-over', { unit: name, condition });
			return this.reach(name);
		}
		if (kindOf(name) === 'service') {
			// While power is there none is taken out again.
			if (this.#knew.get(name)?.size !== machine.modules.size) this.#knew.set(name, new Set(machine.modules));
			return beginService(this, name, it);
		}
		it.state = 'active';
		switch (kindOf(name)) {
			case 'mount':
				return startMount(this, name);
			case 'path':
				return startPath(this, name);
			case 'timer':
				startTimer(this, name);
		}
		// A target is its parts; an automount or a socket waits for somebody who comes.
		this.reach(name);
	}
}
