/** A piece of a line, as it is set. */
export interface Run {
	readonly text: string;
	readonly bold?: true;
	readonly italic?: true;
}
/** A line of text: a heading, an item of a list, or a paragraph. */
export interface Block {
	readonly kind: 'heading' | 'item' | 'text';
	readonly runs: readonly Run[];
}

/**
 * Text as it is kept: "# " makes a heading, "- " an item, **two stars** bold, *one star* italic, three both; a backslash keeps what
 * follows it from being any of these. Anything else is text.
 */
export const blocksOf = (text: string): Block[] =>
	text
		.split('\n')
		.filter((line) => line.trim() !== '')
		.map((line): Block => {
			const heading = /^#{1,3} (.*)$/.exec(line);
			if (heading) return { kind: 'heading', runs: runsOf(heading[1]!.trim()) };
			const item = /^[-•] (.*)$/.exec(line);
			return item ? { kind: 'item', runs: runsOf(item[1]!.trim()) } : { kind: 'text', runs: runsOf(line) };
		});

const STYLES = { '***': { bold: true, italic: true }, '**': { bold: true }, '*': { italic: true } } as const;
const MARKS = Object.keys(STYLES) as (keyof typeof STYLES)[];

/** Where a mark stands next that no backslash makes a letter; -1: nowhere. */
function markAt(line: string, mark: string, from: number): number {
	for (let at = from; at < line.length; at++) {
		if (line[at] === '\\') at++;
		else if (line.startsWith(mark, at)) return at;
	}
	return -1;
}

/** One pass over the line: a star that has no other stays a star. */
function runsOf(line: string): Run[] {
	const runs: Run[] = [];
	const put = (text: string, style: Omit<Run, 'text'> = {}): void =>
		void (text && runs.push({ text: text.replace(/\\([\\*#•-])/g, '$1'), ...style }));
	let at = 0;
	while (at < line.length) {
		const open = markAt(line, '*', at);
		if (open < 0) break;
		const mark = MARKS.find((known) => line.startsWith(known, open))!;
		const close = markAt(line, mark, open + mark.length);
		if (close <= open + mark.length) break;
		put(line.slice(at, open));
		put(line.slice(open + mark.length, close), STYLES[mark]);
		at = close + mark.length;
	}
	put(line.slice(at));
	return runs;
}

const BEGINS = { heading: '# ', item: '- ', text: '' } as const;

/** The other way: `blocksOf` gives the same again. */
export const textOf = (blocks: readonly Block[]): string =>
	blocks
		.map(({ kind, runs }) => {
			const line = runs
				.map(({ text, bold, italic }) => {
					const mark = bold && italic ? '***' : bold ? '**' : italic ? '*' : '';
					return `${mark}${text.replace(/[\\*]/g, '\\$&')}${mark}`;
				})
				.join('');
			return `${BEGINS[kind]}${kind === 'text' ? line.replace(/^(?=[#•-])/, '\\') : line}`;
		})
		.join('\n');
