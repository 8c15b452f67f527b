import { cutLine, linesOf } from '../formats/lines';

/** A piece of a pasted report: what was asked, when it says so, and the answer's lines. */
export interface Section {
	readonly heading: string;
	readonly lines: readonly string[];
}

/** Colours and the like. A title that is never ended is taken to the end of its line. */
const TERMINAL_CODES = /\u001b(?:\[[0-9;?]*[ -/]*[@-~]|\][^\u0007\u001b]*(?:\u0007|\u001b\\|$)|[@-_])/g;
/** "user@board:~ $ aplay -l", "# aplay -l": a prompt, and what was typed at it. */
const PROMPT = /^(?:\[?[\w.-]+@[\w.-]|[$#]|root@\S)/;
const TYPED = /[$#][ \t]+(?:sudo[ \t]+)?((?:aplay|amixer|cat|lsblk|ip|od|ls|iw|lsusb|uname|free|head)(?:[ \t].*)?)$/;

function headingOf(line: string): string | undefined {
	if (line.startsWith('===') && line.endsWith('===') && line.length > 6) return line.slice(3, -3).trim() || undefined;
	return PROMPT.test(line) ? TYPED.exec(line)?.[1] : undefined;
}

/** Cleans a paste of colour codes and Windows line ends, and splits it where a command's name stands. */
export function splitSections(text: string): Section[] {
	const sections: { heading: string; lines: string[] }[] = [{ heading: '', lines: [] }];
	for (const raw of linesOf(text)) {
		const whole = raw.replace(TERMINAL_CODES, '').replaceAll('\u0000', '').trimEnd();
		// JSON may stand in one long line, and is read by no expression.
		const line = /^[[{]/.test(whole) ? whole : cutLine(whole);
		const heading = headingOf(line);
		if (heading !== undefined) sections.push({ heading, lines: [] });
		else sections.at(-1)!.lines.push(line);
	}
	return sections.filter((section) => section.heading !== '' || section.lines.some((line) => line.trim() !== ''));
}
