/**
 * Splits one line of a script into words as a shell does, without expanding anything: '…', "…" and backslash.
 * Enough to read back the plain command lines that our own scripts consist of.
 * A comment ends the line; an unclosed quote gives null.
 * Source: POSIX.1-2017, Shell Command Language 2.2 "Quoting", 2.3 "Token Recognition".
 */
export function shellWords(line: string): string[] | null {
	const words: string[] = [];
	let word: string | null = null;
	let i = 0;
	while (i < line.length) {
		const c = line[i]!;
		if (c === "'") {
			const end = line.indexOf("'", i + 1);
			if (end < 0) return null;
			word = (word ?? '') + line.slice(i + 1, end);
			i = end + 1;
		} else if (c === '"') {
			const read = readDoubleQuoted(line, i + 1);
			if (!read) return null;
			word = (word ?? '') + read.text;
			i = read.next;
		} else if (c === '\\') {
			word = (word ?? '') + (line[i + 1] ?? '');
			i += 2;
		} else if (/\s/.test(c)) {
			if (word !== null) words.push(word);
			word = null;
			i++;
		} else if (c === '#' && word === null) {
			break;
		} else {
			word = (word ?? '') + c;
			i++;
		}
	}
	if (word !== null) words.push(word);
	return words;
}

function readDoubleQuoted(line: string, from: number): { text: string; next: number } | null {
	let text = '';
	for (let i = from; i < line.length; i++) {
		const c = line[i]!;
		if (c === '"') return { text, next: i + 1 };
		if (c === '\\' && /[$`"\\]/.test(line[i + 1] ?? '')) text += line[++i];
		else text += c;
	}
	return null;
}
