import { runScript, type Ended, type ScriptRun, type ShellHost } from './shell';

/**
 * Scripts that only look, wait and look again, such as one that waits for a sound card, are foreseen: run ahead at once, with the
 * time that they would take. What they looked at is kept, so that the same run need not be gone through again while the world
 * is as it was, and can be taken up in its middle when the world changes.
 */
export interface Foreseen extends Ended {
	readonly tookMs: number;
	/** Each question with its answer. */
	readonly seen: ReadonlyMap<string, unknown>;
}

const MOST_WAITS = 2000;
const MOST_MS = 600_000;

class Impure extends Error {}

/** Asks the world, or what is remembered of it. */
function asking(host: ShellHost, seen: Map<string, unknown>, past: ((question: string) => unknown) | null): ShellHost {
	const ask = <T>(question: string, answer: () => T): T => {
		const remembered = past?.(question);
		const value = remembered === undefined ? answer() : (remembered as T);
		if (!seen.has(question)) seen.set(question, value);
		return value;
	};
	return {
		read: (path) => ask(`read ${path}`, () => host.read(path)),
		write: () => {
			throw new Impure();
		},
		kind: (path) => ask(`kind ${path}`, () => host.kind(path)),
		list: (path) => ask(`list ${path}`, () => host.list(path)),
		isExecutable: (path) => ask(`run ${path}`, () => host.isExecutable(path)),
		isWritable: (path) => ask(`write ${path}`, () => host.isWritable(path)),
		find: (name) => ask(`find ${name}`, () => host.find(name)),
		unknown: () => {
			throw new Impure();
		}
	};
}

/** A script to be run, apart from the world that it asks. */
export type Script = Omit<ScriptRun, 'host' | 'out' | 'err'>;

/**
 * What comes of a script when the world stays as it is; null when it does anything but look and wait.
 * @param until with `before`: up to this moment of the run the world was as it is remembered there
 */
export function foresee(
	script: Script,
	host: ShellHost,
	past?: { readonly untilMs: number; readonly seen: ReadonlyMap<string, unknown> }
): Foreseen | null {
	const seen = new Map<string, unknown>();
	let tookMs = 0;
	let out = '';
	let err = '';
	const steps = runScript({
		...script,
		host: asking(
			host,
			seen,
			past ? (question) => (tookMs <= past.untilMs ? past.seen.get(question) : undefined) : null
		),
		out: { write: (piece) => void (out += piece) },
		err: { write: (piece) => void (err += piece) }
	});
	try {
		let step = steps.next();
		for (let waits = 0; !step.done; waits++) {
			const [name, length] = step.value.argv;
			const ms = Number(length) * 1000;
			if (name !== 'sleep' || !(ms >= 0) || step.value.argv.length !== 2) return null;
			tookMs += ms;
			if (waits > MOST_WAITS || tookMs > MOST_MS) return null;
			step = steps.next({ code: 0, out: '', err: '' });
		}
		return { code: step.value, out, err, tookMs, seen };
	} catch (error) {
		if (error instanceof Impure) return null;
		throw error;
	}
}
