import { changing } from '../../changes';
import type { Changes } from '../../changes';
import type { PartsSettings } from './settings';

const MOST_OF_ONE = 20;
const own = changing<PartsSettings>('parts');

/** What the other links may do to the parts. */
export const partsChanges: Pick<Changes, 'choosePart' | 'addPart' | 'replacePart'> = {
	choosePart: (place, id) => own({ [place]: id }),
	addPart: (id, count = 1) => own((parts) => withPart(parts, id, count)),
	replacePart: (from, to) =>
		own(({ also, ...places }) => ({
			...(Object.fromEntries(Object.entries(places).map(([key, id]) => [key, id === from ? to : id])) as typeof places),
			also: also.flatMap((item) => (item.part !== from ? [item] : to === null ? [] : [{ ...item, part: to }]))
		}))
};

/** The parts with `count` more of one; a part that is there already is counted up. */
export const withPart = (parts: PartsSettings, id: string, count = 1): PartsSettings => ({
	...parts,
	also: parts.also.some(({ part }) => part === id)
		? parts.also.map((item) =>
				item.part === id ? { ...item, count: Math.min(MOST_OF_ONE, item.count + count) } : item
			)
		: [...parts.also, { part: id, count }]
});
