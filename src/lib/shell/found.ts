import type { Command } from './commands';

/** Commands that have every word, in their title or in the words beside it; those that begin with it, and titles, come first. */
export function found(commands: readonly Command[], wanted: string): Command[] {
	const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
	const rank = ({ title, words: others = '' }: Command): number | null => {
		const [head, all] = [title.toLowerCase(), `${title} ${others}`.toLowerCase()];
		if (!words.every((word) => all.includes(word))) return null;
		if (words.length && head.startsWith(words[0]!)) return 0;
		return words.every((word) => head.includes(word)) ? 1 : 2;
	};
	return commands
		.flatMap((command) => {
			const at = rank(command);
			return at === null ? [] : [{ command, at }];
		})
		.sort((a, b) => a.at - b.at)
		.map(({ command }) => command);
}
