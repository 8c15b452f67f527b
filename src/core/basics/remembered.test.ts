import { expect, it } from 'vitest';
import { remembered } from './remembered';

it('reads a text once, even where nothing comes of it, and never keeps more than it may', () => {
	const read: string[] = [];
	const lengthOf = remembered(2, (text) => {
		read.push(text);
		return text.length || undefined;
	});
	expect(['a', '', 'a', ''].map(lengthOf)).toEqual([1, undefined, 1, undefined]);
	expect(read).toEqual(['a', '']);
	expect(lengthOf('ccc')).toBe(3);
	expect(lengthOf('a')).toBe(1);
	expect(read).toEqual(['a', '', 'ccc', 'a']);
});
