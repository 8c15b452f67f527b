import { linesOf } from '../lines';

/**
 * The commands of `runcmd` in a cloud-init user-data file, as words. Lists in one line are read, which is how ours are written;
 * any other form is a command for the shell. Source: cloud-init, module runcmd.
 */
export function readSeedCommands(userData: string): string[][] {
	const lines = linesOf(userData);
	const from = lines.findIndex((line) => /^runcmd:\s*$/.test(line));
	if (from < 0) return [];
	const commands: string[][] = [];
	for (const line of lines.slice(from + 1)) {
		if (/^\S/.test(line)) break;
		const item = /^\s+-\s(.*)$/.exec(line)?.[1]?.trim();
		if (item === undefined) continue;
		commands.push(
			item.startsWith('[') && item.endsWith(']')
				? item
						.slice(1, -1)
						.split(',')
						.map((word) => word.trim().replace(/^(["'])(.*)\1$/, '$2'))
				: ['sh', '-c', item.replace(/^(["'])(.*)\1$/, '$2')]
		);
	}
	return commands;
}
