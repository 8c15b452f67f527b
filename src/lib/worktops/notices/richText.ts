import type { JSONContent } from '@tiptap/core';
import { blocksOf, textOf, type Block, type Run } from '$core/links/notices/pages/blocks';

/** Text as it is kept, for the editor; items that follow one another are one list. */
export function documentOf(text: string): JSONContent {
	const content: JSONContent[] = [];
	for (const block of blocksOf(text)) {
		const inside = block.runs.map(({ text: said, bold, italic }) => ({
			type: 'text',
			text: said,
			marks: [...(bold ? [{ type: 'bold' }] : []), ...(italic ? [{ type: 'italic' }] : [])]
		}));
		if (block.kind === 'heading') content.push({ type: 'heading', attrs: { level: 2 }, content: inside });
		else if (block.kind === 'text') content.push({ type: 'paragraph', content: inside });
		else {
			const item = { type: 'listItem', content: [{ type: 'paragraph', content: inside }] };
			const last = content.at(-1);
			if (last?.type === 'bulletList') last.content!.push(item);
			else content.push({ type: 'bulletList', content: [item] });
		}
	}
	return { type: 'doc', content: content.length ? content : [{ type: 'paragraph' }] };
}

/** What stands in the editor, as it is kept. A list within a list becomes one list. */
export const textOfDocument = (document: JSONContent): string => textOf(blocksIn(document, 'text'));

function blocksIn({ type, content = [] }: JSONContent, kind: Block['kind']): Block[] {
	if (type !== 'paragraph' && type !== 'heading')
		return content.flatMap((child) => blocksIn(child, type === 'listItem' ? 'item' : kind));
	const runs = content.flatMap(({ text = '', marks = [] }): Run[] => {
		const has = (name: string): boolean => marks.some((mark) => mark.type === name);
		// A line of text has no breaks within.
		const said = text.replace(/\s+/g, ' ');
		return said === ''
			? []
			: [{ text: said, ...(has('bold') ? { bold: true } : {}), ...(has('italic') ? { italic: true } : {}) }];
	});
	return runs.every(({ text }) => text.trim() === '') ? [] : [{ kind: type === 'heading' ? 'heading' : kind, runs }];
}
