/** A piece of a pasted report: what was asked, when it says so, and the answer's lines. */
export interface Section {
	readonly heading: string;
	readonly lines: readonly string[];
}

const TERMINAL_CODES = /\u001b(?:\[[0-9;?]*[ -/]*[@-~]|\][^\u0007]*(?:\u0007|\u001b\\)|[@-_])/g;
/** "user@board:~ $ aplay -l", "# aplay -l", "PS C:\> …": a prompt and what was typed at it. */
const PROMPT =
	/^(?:\[?[\w.-]+@[\w.-]+[^$#]*[$#]|[$#]|root@\S+#)\s+((?:sudo\s+)?(?:aplay|amixer|cat|lsblk|ip|od|ls|iw|lsusb|uname|free|head)\b.*)$/;
const MARK = /^===\s*(.+?)\s*===$/;

/** Cleans a paste of colour codes and Windows line ends, and splits it where a command's name stands. */
export function splitSections(text: string): Section[] {
	const sections: { heading: string; lines: string[] }[] = [{ heading: '', lines: [] }];
	for (const raw of text.replace(/^\ufeff/, '').split(/\r\n|\n|\r/)) {
		const line = raw
			.replace(TERMINAL_CODES, '')
			.replace(/\u0000/g, '')
			.trimEnd();
		const heading = MARK.exec(line)?.[1] ?? PROMPT.exec(line)?.[1]?.replace(/^sudo\s+/, '');
		if (heading !== undefined) sections.push({ heading, lines: [] });
		else sections.at(-1)!.lines.push(line);
	}
	return sections.filter((section) => section.heading !== '' || section.lines.some((line) => line.trim() !== ''));
}
