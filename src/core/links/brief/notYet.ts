import type { Wish } from '../../link/wish';

/** What of a kind is not made yet, in words; a kind that is not here is whole. */
export const NOT_YET: Partial<Readonly<Record<Wish, string>>> = {
	recorder:
		'Tuner, guide and recordings are not made yet. Power, heat, network and card can be planned; nothing records.'
};
