import { formatSeconds } from '../../basics/format';
import type { Context, Figure } from '../../link';
import { itemOf } from '../../onAir/items';
import type { ProgrammeSettings } from './settings';
import type { ProgrammeList } from './when';

/** How long a playlist takes from its beginning to its end, and how many of its entries are of unknown length or without end. */
export interface ListLength {
	readonly ms: number;
	readonly unknown: number;
}

/** A film by its length, a page or a still picture by how long one stands; a stream has no end. */
export function listLength({ items }: Pick<ProgrammeList, 'items'>, context: Context): ListLength {
	let ms = 0;
	let unknown = 0;
	for (const id of items) {
		const item = itemOf(id, context);
		if (!item) continue;
		if (item.lastsMs === null) unknown++;
		else ms += item.lastsMs;
	}
	return { ms, unknown };
}

/** For each playlist how long it takes, and how often it comes round. */
export const listFigures = ({ lists, rules }: ProgrammeSettings, context: Context): Figure[] =>
	rules.length === 0
		? []
		: lists.map((list, n): Figure => {
				const { ms, unknown } = listLength(list, context);
				const often = ms > 0 ? 3_600_000 / ms : 0;
				return {
					id: `list-${list.id}`,
					setting: `programme.lists.${n}`,
					label: list.title || list.id,
					text:
						unknown > 0
							? `${unknown} of ${list.items.length} of unknown length`
							: `${formatSeconds(ms)}${often >= 1 ? `, ${Math.round(often)} times an hour` : ''}`,
					value: unknown > 0 ? null : ms / 1000,
					sure: unknown > 0 ? 'assumed' : 'exact',
					from: `The lengths of its entries${context.facts.picture ? `; a still picture stands for ${context.facts.picture.stillSec}\u2009s` : ''}.`
				};
			});
