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

/** Typed text as it is shown: "# " makes a heading, "- " an item, **two stars** bold, *one star* italic. Anything else is text. */
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

/** One pass over the line: a star that has no other stays a star. */
function runsOf(line: string): Run[] {
	const runs: Run[] = [];
	const put = (text: string, style: Omit<Run, 'text'> = {}): void => void (text && runs.push({ text, ...style }));
	let at = 0;
	while (at < line.length) {
		const open = line.indexOf('*', at);
		if (open < 0) break;
		const mark = line.startsWith('**', open) ? '**' : '*';
		const close = line.indexOf(mark, open + mark.length);
		if (close <= open + mark.length - 1 || close === open + mark.length) break;
		put(line.slice(at, open));
		put(line.slice(open + mark.length, close), mark === '**' ? { bold: true } : { italic: true });
		at = close + mark.length;
	}
	put(line.slice(at));
	return runs;
}
