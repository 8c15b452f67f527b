import { foresee, type Foreseen, type Script } from './foresee';
import { NeverRests, runScript, type Ended, type ShellHost, type Spawn } from './shell';
import { isExecutable, merged, type DiskFile } from './disk';
import type { Machine } from './machine';

/** A running program. `exit` ends it; `after` stops counting when it is gone. */
export interface Process {
	readonly argv: readonly string[];
	readonly env: ReadonlyMap<string, string>;
	readonly stdin: string;
	readonly stdinFile: string | null;
	readonly cwd: string;
	/** The unit that it belongs to; null: none. */
	readonly unit: string | null;
	out(text: string): void;
	err(text: string): void;
	exit(code: number): void;
	after(ms: number, run: () => void): void;
	onKill(run: () => void): void;
}
/** What a stand-in does when it is started. */
export type Program = (process: Process, machine: Machine) => void;

const PATH = ['/usr/local/sbin', '/usr/local/bin', '/usr/sbin', '/usr/bin'];
/** A program that does next to nothing takes about so long. Typical. */
const STARTED_MS = 2;
const SHELLS: Readonly<Record<string, { isBash: boolean }>> = {
	'/usr/bin/sh': { isBash: false },
	'/usr/bin/dash': { isBash: false },
	'/usr/bin/bash': { isBash: true }
};

/** A command to be run, and the unit that it belongs to. */
interface Started extends Omit<Spawn, 'cwd'> {
	readonly cwd?: string;
	readonly unit?: string | null;
}

/** Why a program cannot be run: it is not there, or may not be run. */
type Refused = 'missing' | 'forbidden';
interface Found {
	readonly path: string;
	readonly file: DiskFile;
}

/** Where a name leads along the usual PATH; null: nowhere. */
const findProgram = (machine: Machine, name: string): string | null => {
	if (name.includes('/')) return name;
	for (const folder of PATH) if (machine.disk.isExecutable(`${folder}/${name}`)) return `${folder}/${name}`;
	return null;
};

/** The program behind a name, or why it cannot be run. */
export function mayRun(machine: Machine, name: string): Found | Refused {
	const path = findProgram(machine, name);
	const file = path === null ? undefined : machine.disk.get(path);
	if (!file) return 'missing';
	return isExecutable(file) ? { path: path!, file } : 'forbidden';
}

/** Runs what stands on the disk under a name: a script by its shell, anything else by its stand-in. Gives a way to end it. */
export function spawn(
	machine: Machine,
	started: Started,
	onEnd: (ended: Ended) => void,
	found: Found | Refused = mayRun(machine, started.argv[0] ?? '')
): () => void {
	const [name = ''] = started.argv;
	if (typeof found === 'string') {
		const words = found === 'missing' ? 'not found' : 'Permission denied';
		machine.after(STARTED_MS, () =>
			onEnd({ code: found === 'missing' ? 127 : 126, out: '', err: `${name}: ${words}\n` })
		);
		return () => {};
	}
	const { path, file } = found;
	const known = machine.byHeart.get(path);
	if (known) {
		if (file.text === known.text) return runProgram(machine, known.program, started, onEnd);
		// It would loop through the whole day, five seconds at a time, on hardware that is not here.
		machine.unknown(`${path} is not as it was written: what it does is left out`);
		return () => {};
	}
	const interpreter = /^#!\s*(\S+)/.exec(file.text)?.[1];
	if (interpreter !== undefined) {
		if (typeof mayRun(machine, interpreter) === 'string') {
			machine.after(STARTED_MS, () => onEnd({ code: 127, out: '', err: `${name}: ${interpreter}: not found\n` }));
			return () => {};
		}
		return spawn(machine, { ...started, argv: [interpreter, path, ...started.argv.slice(1)] }, onEnd);
	}
	const shell = SHELLS[merged(path)];
	if (shell) return runShell(machine, shell.isBash, started, onEnd);
	const program = machine.programs.get(merged(path));
	if (!program) {
		machine.unknown(`${path}: what it does is not known here; taken for a success`);
		machine.after(STARTED_MS, () => onEnd({ code: 0, out: '', err: '' }));
		return () => {};
	}
	return runProgram(machine, program, started, onEnd);
}

function runProgram(machine: Machine, program: Program, started: Started, onEnd: (ended: Ended) => void): () => void {
	let alive = true;
	let out = '';
	let err = '';
	const cleanUps: (() => void)[] = [];
	const end = (): void => {
		alive = false;
		for (const run of cleanUps) run();
	};
	program(
		{
			argv: started.argv,
			env: started.env,
			stdin: started.stdin,
			stdinFile: started.stdinFile ?? null,
			cwd: started.cwd ?? '/',
			unit: started.unit ?? null,
			out: (text) => void (out += text),
			err: (text) => void (err += text),
			exit(code) {
				if (!alive) return;
				end();
				machine.after(STARTED_MS, () => onEnd({ code, out, err }));
			},
			after(ms, run) {
				machine.after(ms, () => {
					if (alive) run();
				});
			},
			onKill: (run) => void cleanUps.push(run)
		},
		machine
	);
	return () => {
		if (alive) end();
	};
}

const hostOf = (machine: Machine, unit: string | null): ShellHost => ({
	read: (path) => {
		const file = machine.disk.get(path);
		return file && !machine.systemd.mayRead(unit, file.mode) ? null : machine.disk.read(path);
	},
	write: (path, text, append) => machine.systemd.mayWrite(unit, path) ?? machine.disk.write(path, text, append),
	kind: (path) => machine.disk.kind(path),
	list: (path) => machine.disk.list(path),
	isExecutable: (path) => machine.disk.isExecutable(path),
	isWritable: (path) => machine.disk.kind(path) !== null && machine.systemd.mayWrite(unit, path) === null,
	find: (name) => findProgram(machine, name),
	unknown: (what) => machine.unknown(what)
});

function runShell(machine: Machine, isBash: boolean, started: Started, onEnd: (ended: Ended) => void): () => void {
	const args = started.argv.slice(1);
	const inline = args[0] === '-c';
	const script = inline ? args[1] : args[0];
	const text = inline ? (script ?? '') : machine.disk.read(script ?? '');
	if (text === null || script === undefined) {
		machine.after(STARTED_MS, () => onEnd({ code: 127, out: '', err: `${script ?? ''}: No such file or directory\n` }));
		return () => {};
	}
	const scripted: Script = {
		text,
		name: inline ? 'sh' : script,
		args: args.slice(inline ? 2 : 1),
		isBash,
		env: started.env,
		stdin: started.stdin,
		cwd: started.cwd ?? '/'
	};
	return foreseen(machine, scripted, started.unit ?? null, onEnd) ?? inSteps(machine, scripted, started, onEnd);
}

/** A script is looked through ahead in vain so often. */
const TRIED = 5;
/** Looks and waits only: its end is one event, worked out again when the world changes meanwhile. Null: it does more. */
function foreseen(
	machine: Machine,
	script: Script,
	unit: string | null,
	onEnd: (ended: Ended) => void
): (() => void) | null {
	const who = `${unit} ${script.name}`;
	const inVain = machine.foreseenInVain.get(who) ?? 0;
	// What has always done more will do so again: nothing is lost by going through it.
	if (inVain > TRIED) return null;
	const key = JSON.stringify([who, script.args, script.text, [...script.env], [...machine.modules]]);
	const remembered = machine.foreseen.get(key);
	const { version } = machine.world;
	const first = remembered?.version === version ? remembered.result : foresee(script, hostOf(machine, unit));
	machine.foreseen.set(key, { version, result: first });
	machine.foreseenInVain.set(who, first ? 0 : inVain + 1);
	if (!first) return null;
	const sinceMs = machine.clock.nowMs;
	let current: Foreseen = first;
	/** Each time the end is worked out anew, the earlier one is passed over. */
	let turn = 0;
	let forget = (): void => {};
	const { boot } = machine;
	const plan = (): void => {
		const mine = ++turn;
		machine.after(STARTED_MS + Math.max(0, sinceMs + current.tookMs - machine.clock.nowMs), () => {
			if (mine !== turn) return;
			forget();
			onEnd(current);
		});
	};
	forget = machine.world.onChange(() => {
		// Nobody goes on waiting after the power went.
		if (machine.boot !== boot) return forget();
		const again = foresee(script, hostOf(machine, unit), {
			untilMs: machine.clock.nowMs - sinceMs,
			seen: current.seen
		});
		if (!again) return;
		current = again;
		plan();
	});
	plan();
	return () => {
		turn++;
		forget();
	};
}

function inSteps(machine: Machine, script: Script, started: Started, onEnd: (ended: Ended) => void): () => void {
	let alive = true;
	let killChild = (): void => {};
	let out = '';
	let err = '';
	const steps = runScript({
		...script,
		host: hostOf(machine, started.unit ?? null),
		out: { write: (piece) => void (out += piece) },
		err: { write: (piece) => void (err += piece) }
	});
	const goOn = (next: () => IteratorResult<Spawn, number>): void => {
		if (!alive) return;
		let step: IteratorResult<Spawn, number>;
		try {
			step = next();
		} catch (error) {
			// It spins until it is killed.
			if (error instanceof NeverRests) return;
			throw error;
		}
		if (step.done) {
			alive = false;
			onEnd({ code: step.value, out, err });
		} else
			killChild = spawn(machine, { ...step.value, unit: started.unit }, (ended) => {
				if (alive) goOn(() => steps.next(ended));
			});
	};
	machine.after(STARTED_MS, () => {
		if (alive) goOn(() => steps.next());
	});
	return () => {
		alive = false;
		killChild();
	};
}
