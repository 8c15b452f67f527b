import { describe, expect, it } from 'vitest';
import { chain } from '$core/chain';
import type { Link } from '$core/link';
import type { Place } from '$core/link/place';
import { layoutChain } from './chainLayout';

const links: readonly Link[] = chain;
const more = (id: string, place: Place): Pick<Link, 'id' | 'place'> => ({ id, place });
/** Those that are still to come, where the sketch has them. */
const ALL = [
	...links,
	more('tuner', { column: 'world', row: 2, half: 'right', wires: [{ to: 'sources', carries: 'data' }] }),
	more('notices', { column: 'content', row: 2, wires: [{ to: 'programme', carries: 'data' }] }),
	more('picture', { column: 'out', row: 0, wires: [], end: { sense: 'eye', figure: 'x', words: '', without: '' } }),
	more('recordings', { column: 'out', row: 2, wires: [], end: { sense: 'store', figure: 'x', words: '', without: '' } })
].filter(({ id }, n, all) => all.findIndex((known) => known.id === id) === n);

describe.each([
	['the chain of today', links],
	['the chain with four more', ALL]
])('%s', (_, list) => {
	const { boxes, wires, ends, width, height } = layoutChain(list);
	it('has no box upon another, and none outside', () => {
		for (const [n, a] of boxes.entries()) {
			expect(a.x >= 0 && a.y >= 0 && a.x + a.width <= width && a.y + a.height <= height, a.id).toBe(true);
			for (const b of boxes.slice(n + 1))
				expect(
					a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y,
					`${a.id} and ${b.id}`
				).toBe(true);
		}
	});
	it('has no wire from column to column that runs through a box', () => {
		for (const { from, to, path } of wires.filter((wire) => wire.path.includes('H'))) {
			let [x, y] = [0, 0];
			const parts = [...path.matchAll(/([MHVQ])([-\d. ]+)/g)].map(([, verb, text]) => ({
				verb,
				numbers: text!.trim().split(/ +/).map(Number)
			}));
			for (const { verb, numbers } of parts) {
				const next: [number, number] =
					verb === 'H' ? [numbers[0]!, y] : verb === 'V' ? [x, numbers[0]!] : [numbers.at(-2)!, numbers.at(-1)!];
				if (verb !== 'M')
					for (const box of boxes) {
						if (box.id === from || box.id === to) continue;
						const apart =
							Math.max(x, next[0]) <= box.x ||
							Math.min(x, next[0]) >= box.x + box.width ||
							Math.max(y, next[1]) <= box.y ||
							Math.min(y, next[1]) >= box.y + box.height;
						expect(apart, `${from} to ${to}, through ${box.id}`).toBe(true);
					}
				[x, y] = next;
			}
		}
	});
	it('has a wire for each that a link names, no two of one shape, and an end for each that has one', () => {
		expect(wires).toHaveLength(list.reduce((sum, { place }) => sum + place.wires.length, 0));
		expect(new Set(wires.map(({ path }) => path)).size).toBe(wires.length);
		expect(ends.map(({ of }) => of)).toEqual(list.filter(({ place }) => place.end).map(({ id }) => id));
	});
});

it('every link has a letter of its own, and none that a page has', () => {
	const keys = links.map(({ key }) => key);
	expect(new Set([...keys, ...'swfrudbvl']).size).toBe(keys.length + 9);
});
