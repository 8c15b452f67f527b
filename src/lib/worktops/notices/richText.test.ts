import { describe, expect, it } from 'vitest';
import { documentOf, textOfDocument } from './richText';

describe('the text editor', () => {
	it('gives back what was kept', () => {
		for (const text of [
			'',
			'# Mind the steps\n- 144 of **them**\n- *no* lift\nPlease ***hold*** the rail',
			'\\# 1 and \\*stars\\*'
		])
			expect(textOfDocument(documentOf(text))).toBe(text);
	});
	it('takes two lists with text between them, and one within another, for items', () => {
		expect(documentOf('- a\n- b\nc\n- d').content!.map(({ type }) => type)).toEqual([
			'bulletList',
			'paragraph',
			'bulletList'
		]);
		const said = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] });
		const inner = { type: 'bulletList', content: [{ type: 'listItem', content: [said('in')] }] };
		const outer = { type: 'bulletList', content: [{ type: 'listItem', content: [said('out'), inner] }] };
		expect(textOfDocument({ type: 'doc', content: [outer, { type: 'paragraph' }, said(' '), said('a\nb')] })).toBe(
			'- out\n- in\na b'
		);
	});
});
