import { formatSeconds } from '../../../basics/format';
import type { Context } from '../../../link/context';
import type { Figure } from '../../../link/figure';
import { itemOf } from '../../../onAir/items';
import type { ProgrammeSettings } from '../settings';
import { phasesOf, type Phase } from '../rules/phases';

/** How long a playlist takes from its beginning to its end, and how many of its entries are of unknown length or without end. */
export interface ListLength {
	readonly ms: number;
	readonly unknown: number;
}

/** A film by its length, a page or a still picture by how long one stands; a stream has no end. */
export function listLength({ items }: Pick<Phase, 'items'>, context: Context): ListLength {
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

/** What all that is on at once comes to at the most. */
const longest = (lengths: readonly ListLength[]): ListLength =>
	lengths.reduce((most, one) => (one.ms > most.ms || one.unknown > most.unknown ? one : most), { ms: 0, unknown: 0 });

/** For each playlist how long it takes, and how often it comes round. */
export const listFigures = ({ lists, rules, loop }: ProgrammeSettings, context: Context): Figure[] =>
	rules.length === 0
		? []
		: lists.map((list, n): Figure => {
				const lengths = phasesOf(list).map((phase) => listLength(phase, context));
				const { ms, unknown } = longest(lengths);
				const least = Math.min(ms, ...lengths.map((one) => one.ms));
				const often = ms > 0 && loop === 'list' ? 3_600_000 / ms : 0;
				return {
					id: `list-${list.id}`,
					setting: `programme.lists.${n}`,
					label: list.title || list.id,
					text:
						unknown > 0
							? `${unknown} of ${list.items.length} of unknown length`
							: `${least < ms ? `${formatSeconds(least)} to ` : ''}${formatSeconds(ms)}${least < ms ? ' by the day' : often >= 1 ? `, ${Math.round(often)} times an hour` : ''}`,
					value: unknown > 0 ? null : ms / 1000,
					sure: unknown > 0 ? 'assumed' : 'exact',
					from: `The lengths of its entries${least < ms ? ', on the days on which each is on' : ''}${context.facts.picture ? `; a still picture stands for ${context.facts.picture.stillSec}\u2009s` : ''}.`
				};
			});
