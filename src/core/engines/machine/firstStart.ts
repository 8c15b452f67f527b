import type { Bench } from './bench';
import type { CardTree, Disk } from './disk';
import { FIRMWARE, imageDisk } from './image';
import { Machine } from './machine';
import { spawn } from './processes';
import { readSeedCommands } from '../../formats/seed/commands';

/** What the first start, from the image to the restart, has left on the disk, and what went wrong on the way. */
export interface Installed {
	readonly disk: Disk;
	readonly problems: readonly string[];
	/** What of it could not be simulated. */
	readonly notRehearsed: readonly string[];
	/** From power to the restart, in ms. */
	readonly tookMs: number;
}

/** After so long nobody waits any more. */
const PATIENCE_MS = 3_600_000;
const known = new WeakMap<CardTree, Installed>();

/**
 * The image starts with the card set on its first partition; its seed, or the person where it reads none, runs what is to be run;
 * scripts and packages do the rest. The same card gives the same disk, worked out once.
 */
export function firstStart(card: CardTree, bench: Bench, startUtcMs: number): Installed {
	let installed = known.get(card);
	if (!installed) known.set(card, (installed = run(card, bench, startUtcMs)));
	return { ...installed, disk: installed.disk.copy() };
}

function run(card: CardTree, bench: Bench, startUtcMs: number): Installed {
	const machine = new Machine(card, imageDisk(card), bench, startUtcMs, 'UTC');
	const problems: string[] = [];
	const seed = card.get('boot/user-data')?.text;
	// Both files are needed: without the second no seed is seen. Source: cloud-init, datasource NoCloud.
	const commands =
		seed !== undefined && card.has('boot/meta-data')
			? readSeedCommands(seed)
			: [['bash', `${FIRMWARE}/yphos/apply.sh`]];
	if (seed !== undefined && !card.has('boot/meta-data'))
		problems.push('There is no meta-data beside user-data: the image sees no seed, and apply.sh is run by hand');
	if (commands.length === 0) problems.push('Nothing in user-data runs apply.sh: nothing is set up');
	let endedAtMs = 0;
	const next = (n: number): void => {
		endedAtMs = machine.clock.nowMs;
		const argv = commands[n];
		if (!argv) return;
		const env = new Map([['HOME', '/root']]);
		spawn(machine, { argv, env, stdin: '' }, ({ code, err }) => {
			const name = argv.find((word) => word.endsWith('.sh')) ?? argv[0]!;
			if (code !== 0)
				problems.push(
					`${name.split('/').at(-1)} ended with ${code}: ${err.trim().split('\n').at(-1) || 'no word why'}`
				);
			next(n + 1);
		});
	};
	machine.clock.at(0, () => {
		machine.mains(true);
		next(0);
	});
	machine.clock.runUntil(PATIENCE_MS);
	if (problems.length === 0 && !machine.disk.get('/run/yphos-restart'))
		problems.push('Nothing asked for the restart at the end: services begin only with the next one');
	for (const path of [...machine.disk.files.keys()]) if (path.startsWith('/run/')) machine.disk.remove(path);
	return { disk: machine.disk, problems, notRehearsed: [...machine.notRehearsed], tookMs: endedAtMs };
}
