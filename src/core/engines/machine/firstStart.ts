import { readUserData } from '../../formats/seed/userData';
import type { Bench } from './bench';
import type { CardTree, Disk } from './disk';
import { imageDisk } from './image';
import { Machine } from './machine';
import { spawn } from './processes';
import { applySeed } from './programs/accounts';

/** What the first start, from the image to the restart, has left on the disk, and what went wrong on the way. */
export interface Installed {
	readonly disk: Disk;
	readonly problems: readonly string[];
	/** What of it could not be simulated. */
	readonly notRehearsed: readonly string[];
	readonly assumed: readonly string[];
	/** From power to the restart, in ms. */
	readonly tookMs: number;
	/** How far the endpoint's own clock is behind after it. */
	readonly clockBehindMs: number;
}

/** A card, its surroundings, and what is broken from the very beginning. */
interface FirstStartOptions {
	readonly links: readonly { rehearse?(machine: Machine): void }[];
	readonly card: CardTree;
	readonly bench: Bench;
	readonly startUtcMs: number;
	/** What is broken from the very beginning, by name, and for how long. */
	readonly faults?: readonly { readonly name: string; readonly lastsMs: number }[];
}

/** After so long nobody waits any more. */
const PATIENCE_MS = 3_600_000;
/** So long is waited for a network before the seed's commands run. Source: systemd-networkd-wait-online.service(8), --timeout. */
const NETWORK_WAIT_MS = 120_000;
/** Without a clock of its own the board begins when its image was made. Typical. */
const IMAGE_AGE_MS = 30 * 86_400_000;

const known = new WeakMap<CardTree, { bench: Bench; faults: string; installed: Installed }>();

/**
 * The image starts with the card set on its first partition; its seed, or the person where it reads none, runs what is to be run;
 * scripts and packages do the rest. The same card on the same bench gives the same disk, worked out once.
 */
export function firstStart(options: FirstStartOptions): Installed {
	const { card, bench, faults = [] } = options;
	const key = JSON.stringify(faults);
	const found = known.get(card);
	const same = found && found.bench === bench && found.faults === key;
	const installed = same ? found.installed : run(options);
	if (!same) known.set(card, { bench, faults: key, installed });
	return { ...installed, disk: installed.disk.copy() };
}

function run({ links, card, bench, startUtcMs, faults = [] }: FirstStartOptions): Installed {
	const machine = new Machine({ card, disk: imageDisk(card, bench), bench, startUtcMs, timeZone: 'UTC' });
	for (const link of links) link.rehearse?.(machine);
	machine.clockBehindMs = machine.keepsTime ? 0 : IMAGE_AGE_MS;
	const problems: string[] = [];
	const { commands, restartsWhen } = seedOf(machine, problems);
	let endedAtMs: number | null = null;
	let restarts = false;
	const next = (n: number): void => {
		const argv = commands[n];
		const env = new Map([['HOME', '/root']]);
		if (!argv) {
			endedAtMs = machine.clock.nowMs;
			if (restartsWhen !== null)
				spawn(machine, { argv: ['sh', '-c', restartsWhen], env, stdin: '' }, ({ code }) => (restarts = code === 0));
			return;
		}
		spawn(machine, { argv, env, stdin: '' }, ({ code, err }) => {
			const name =
				argv
					.join(' ')
					.split(/[\s/;]+/)
					.find((word) => word.endsWith('.sh')) ?? argv[0]!;
			if (code !== 0) problems.push(`${name} ended with ${code}: ${err.trim().split('\n').at(-1) || 'no word why'}`);
			next(n + 1);
		});
	};
	/** The seed's commands run once for each card, whatever becomes of them. Source: cloud-init, Scripts User, once-per-instance. */
	let begun = false;
	const begin = (): void => {
		if (begun) return;
		begun = true;
		next(0);
	};
	machine.on('userspace', () => machine.after(NETWORK_WAIT_MS, begin));
	machine.on('online', () => machine.after(0, begin));
	machine.clock.at(0, () => {
		for (const { name } of faults) machine.fault(name, true);
		machine.mains(true);
	});
	for (const { name, lastsMs } of faults) machine.clock.at(lastsMs, () => machine.fault(name, false));
	machine.clock.runUntil(PATIENCE_MS);
	if (!begun) problems.push('The board does not come up, so nothing is set up');
	else if (endedAtMs === null) problems.push('apply.sh has not come to its end: run it again by hand');
	else if (problems.length === 0 && !restarts)
		problems.push('Nothing restarts it at the end: services begin only with the next start');
	for (const path of [...machine.disk.files.keys()]) if (path.startsWith('/run/')) machine.disk.remove(path);
	machine.disk.settle();
	return {
		disk: machine.disk,
		problems,
		notRehearsed: [...machine.notRehearsed],
		assumed: [...machine.assumed],
		tookMs: endedAtMs ?? PATIENCE_MS,
		clockBehindMs: machine.clockBehindMs
	};
}

interface Seeded {
	readonly commands: readonly (readonly string[])[];
	readonly restartsWhen: string | null;
}

/** Without a seed that is read, the person runs apply.sh, and restarts when it has asked for that. */
const byHand = ({ firstPartition }: Bench): Seeded => ({
	commands: [['bash', `${firstPartition}/yphos/apply.sh`]],
	restartsWhen: 'test -e /run/yphos-restart'
});

/** Both files are needed: without meta-data no seed is seen. Source: cloud-init, datasource NoCloud. */
function seedOf(machine: Machine, problems: string[]): Seeded {
	const text = machine.card.get('boot/user-data')?.text;
	if (text === undefined || !machine.bench.readsSeed) return byHand(machine.bench);
	if (!/^instance-id: \S/m.test(machine.card.get('boot/meta-data')?.text ?? '')) {
		problems.push('No meta-data with an instance-id beside user-data: the image sees no seed, apply.sh is run by hand');
		return byHand(machine.bench);
	}
	const seed = readUserData(text);
	if (!seed.ok) {
		problems.push(`${seed.faults[0]!.message} Nothing is set up`);
		return { commands: [], restartsWhen: null };
	}
	for (const key of seed.value.unknown) machine.unknown(`user-data: ${key}`);
	applySeed(machine.disk, seed.value);
	if (seed.value.commands.length === 0) problems.push('Nothing in user-data runs apply.sh: nothing is set up');
	return seed.value;
}
