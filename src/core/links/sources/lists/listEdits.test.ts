import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Media } from '../../../parts/media';
import { lengthMs, moveBy, moveTo, searchIn, sortBy } from './listEdits';
import type { SourceItem } from '../settings';

const item = (id: string, title = id, location = `${id}.wav`, durationSec: number | null = null): SourceItem => ({
	id,
	location,
	title,
	durationSec,
	extra: [],
	part: null
});
const list = (text: string): SourceItem[] => [...text].map((id) => item(id));
const ids = (items: readonly SourceItem[]): string => items.map(({ id }) => id).join('');
const nobody = (): null => null;
const chosen = (text: string): Set<string> => new Set(text);

describe('entries are moved', () => {
	it.each([
		['abcdef', 'be', 0, 'beacdf'],
		['abcdef', 'be', 3, 'acbedf'],
		['abcdef', 'be', 6, 'acdfbe'],
		['abcdef', 'a', 1, 'abcdef'],
		['abcdef', '', 2, 'abcdef']
	])('of %s, %s to %s: %s', (all, some, index, after) =>
		expect(ids(moveTo(list(all), chosen(some), index))).toBe(after)
	);
	it.each([
		['abcdef', 'c', -1, 'acbdef'],
		['abcdef', 'bc', -1, 'bcadef'],
		['abcdef', 'ab', -1, 'abcdef'],
		['abcdef', 'ac', -1, 'acbdef'],
		['abcdef', 'ef', 1, 'abcdef'],
		['abcdef', 'bd', 1, 'acbedf']
	] as const)('of %s, %s by %s: %s', (all, some, by, after) =>
		expect(ids(moveBy(list(all), chosen(some), by))).toBe(after)
	);
	it('and none is lost or doubled, and the others keep their order', () =>
		fc.assert(
			fc.property(
				fc.subarray([...'abcdefgh']),
				fc.integer({ min: -2, max: 12 }),
				fc.constantFrom(-1 as const, 1 as const),
				(some, index, by) => {
					const all = list('abcdefgh');
					for (const moved of [moveTo(all, new Set(some), index), moveBy(all, new Set(some), by)]) {
						expect([...ids(moved)].sort().join('')).toBe('abcdefgh');
						const others = (items: readonly SourceItem[]): string => ids(items.filter(({ id }) => !some.includes(id)));
						const mine = (items: readonly SourceItem[]): string => ids(items.filter(({ id }) => some.includes(id)));
						expect(others(moved)).toBe(others(all));
						expect(mine(moved)).toBe(mine(all));
					}
				}
			)
		));
});

describe('a list is put in order', () => {
	const some = [
		item('a', 'Track 10'),
		item('b', 'track 2', 'z.wav', 30),
		item('c', 'Étude', 'x.wav', 5),
		item('d', '', 'alpha.wav')
	];
	it('by titles as people count, and backwards when it stands so', () => {
		const once = sortBy(some, 'title', nobody);
		expect(ids(once)).toBe('dcba');
		expect(ids(sortBy(once, 'title', nobody))).toBe('abcd');
	});
	it('by length, what has none last either way', () => {
		const once = sortBy(some, 'length', nobody);
		expect(ids(once)).toBe('cbad');
		expect(ids(sortBy(once, 'length', nobody))).toBe('bcad');
		expect(lengthMs(some[1]!, { durationMs: 30_500 } as Media)).toBe(30_500);
	});
	it('by place and by how things are made', () => {
		expect(ids(sortBy(some, 'place', nobody))).toBe('adcb');
		const made = (location: string) =>
			location === 'a.wav'
				? ({ sampleRateHz: 96_000, codec: 'flac' } as Media)
				: location === 'x.wav'
					? ({ sampleRateHz: 44_100, codec: 'pcm' } as Media)
					: null;
		expect(ids(sortBy(some, 'made', made))).toBe('cabd');
	});
});

it('is searched by all words, in titles, places and tags', () => {
	const some = [item('a', 'Night ferry', '/srv/Music/ferry.flac'), item('b', 'Harbour', 'bell.wav')];
	const tags = (location: string) =>
		location === 'bell.wav' ? ({ details: { tags: { artist: 'The Skerries' } } } as unknown as Media) : null;
	expect(ids(searchIn(some, ' FERRY music', tags))).toBe('a');
	expect(ids(searchIn(some, 'skerries', tags))).toBe('b');
	expect(ids(searchIn(some, 'skerries night', tags))).toBe('');
	expect(ids(searchIn(some, '  ', tags))).toBe('ab');
});
