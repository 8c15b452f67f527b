import { remembered } from '../../basics/remembered';

/**
 * systemd unit files: how a setting's value is written and read back.
 * Source: systemd.syntax(7), systemd.service(5) "Command lines", systemd.unit(5) "Specifiers".
 */
export interface UnitEntry {
	readonly section: string;
	readonly key: string;
	readonly value: string;
}

/**
 * Plain text in a setting such as Description=: only the percent sign means something, and a backslash at the very end,
 * which would join the next line. A space behind it keeps them apart and is taken off again when read.
 */
export const unitText = (text: string): string => text.replaceAll('%', '%%').replace(/\\$/, '\\ ');

/** One word of a command line, exactly as given: quoted when it holds anything but plain characters. */
function execWord(word: string): string {
	const doubled = word.replaceAll('%', '%%').replaceAll('$', '$$$$');
	if (/^[A-Za-z0-9_@%$+=:,./-]+$/.test(doubled)) return doubled;
	return `"${doubled.replaceAll('\\', '\\\\').replaceAll('"', '\\"')}"`;
}

/** The words of a command as one ExecStart= line. Source: systemd.service(5), "Command lines". */
export const execLine = (words: readonly string[]): string => words.map(execWord).join(' ');

/** All settings in order; continuation lines joined, comments dropped. An assignment outside a section is ignored, as systemd does. */
export function readUnit(text: string): UnitEntry[] {
	const entries: UnitEntry[] = [];
	let section = '';
	let pending = '';
	for (const raw of text.split(/\r?\n/)) {
		if (/^\s*[#;]/.test(raw)) continue;
		if (/(?<!\\)(?:\\\\)*\\$/.test(raw)) {
			pending += `${raw.slice(0, -1)} `;
			continue;
		}
		const line = (pending + raw).trim();
		pending = '';
		const head = /^\[(.+)\]$/.exec(line);
		const equals = line.indexOf('=');
		if (head) section = head[1]!;
		else if (section && equals > 0)
			entries.push({ section, key: line.slice(0, equals).trim(), value: line.slice(equals + 1).trim() });
	}
	return entries;
}

const ESCAPES: Record<string, string> = {
	n: '\n',
	t: '\t',
	r: '\r',
	s: ' ',
	'\\': '\\',
	'"': '"',
	"'": "'",
	a: '\x07',
	b: '\b',
	f: '\f',
	v: '\v'
};

/**
 * A command line as words: quotes, escapes, %% and $$ undone. `flags` are the prefix characters (-, +, !, :, @).
 * Null where systemd refuses the line (an unknown escape, an unclosed quote). Specifiers and variables stay as they are.
 */
export const readExec = remembered(500, parseExec);

interface ReadExec {
	readonly flags: string;
	readonly words: readonly string[];
}

function parseExec(value: string): ReadExec | null {
	const flags = /^[-+!:@]*/.exec(value)![0];
	const words: string[] = [];
	const text = value.slice(flags.length);
	let i = 0;
	while (i < text.length) {
		while (/\s/.test(text[i] ?? '')) i++;
		if (i >= text.length) break;
		let word = '';
		let quote = '';
		for (; i < text.length; i++) {
			const c = text[i]!;
			if (quote && c === quote) quote = '';
			else if (!quote && (c === '"' || c === "'") && word === '') quote = c;
			else if (c === '\\') {
				const escape = readEscape(text, i + 1);
				if (!escape) return null;
				word += escape.text;
				i = escape.last;
			} else if (!quote && /\s/.test(c)) break;
			else word += c;
		}
		if (quote) return null;
		words.push(word.replaceAll('%%', '%').replaceAll('$$', '$'));
	}
	return { flags, words };
}

function readEscape(text: string, at: number): { text: string; last: number } | null {
	const c = text[at] ?? '';
	const hex = /^(?:x([0-9a-fA-F]{2})|u([0-9a-fA-F]{4})|U([0-9a-fA-F]{8}))/.exec(text.slice(at));
	if (hex) {
		const point = parseInt(hex[1] ?? hex[2] ?? hex[3]!, 16);
		return point > 0x10_ffff ? null : { text: String.fromCodePoint(point), last: at + hex[0].length - 1 };
	}
	const plain = ESCAPES[c];
	return plain === undefined ? null : { text: plain, last: at };
}

const SPAN_UNITS_MS: Readonly<Record<string, number>> = {
	ms: 1,
	msec: 1,
	s: 1e3,
	sec: 1e3,
	second: 1e3,
	seconds: 1e3,
	'': 1e3,
	m: 6e4,
	min: 6e4,
	minutes: 6e4,
	h: 36e5,
	hr: 36e5,
	hours: 36e5,
	d: 864e5,
	days: 864e5
};

/** A time span such as "2", "2s", "1min 30s", "500ms" in milliseconds; null when it is none. Source: systemd.time(7). */
export const readTimeSpanMs = remembered(200, parseTimeSpanMs);

function parseTimeSpanMs(text: string): number | null {
	if (text === 'infinity') return Infinity;
	let totalMs = 0;
	const parts = [...text.trim().matchAll(/(\d+(?:\.\d+)?)\s*([a-z]*)\s*/gy)];
	if (parts.length === 0 || parts.map((p) => p[0]).join('') !== text.trim()) return null;
	for (const part of parts) {
		if (!Object.hasOwn(SPAN_UNITS_MS, part[2]!)) return null;
		totalMs += Number(part[1]) * SPAN_UNITS_MS[part[2]!]!;
	}
	return totalMs;
}
