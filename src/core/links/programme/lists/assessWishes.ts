import { changing } from '../../../changes';
import { formatSeconds } from '../../../basics/format';
import type { Context } from '../../../link/context';
import type { Finding, Fix } from '../../../link/finding';
import { SEAM_MS, turnMs } from '../../../onAir/item';
import { itemOf } from '../../../onAir/items';
import type { ProgrammeSettings } from '../settings';
import { phasesOf } from '../rules/phases';
import { arrange, unmetIn, type Arranged, type Lengths, type Unmet } from './wishes';
import type { ProgrammeList } from '../../../onAir/when';

const own = changing<ProgrammeSettings>('programme');
const changed = (id: string, change: (list: ProgrammeList) => ProgrammeList) =>
	own((all) => ({ ...all, lists: all.lists.map((list) => (list.id === id ? change(list) : list)) }));
const once = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;

/** How long each entry takes in a round, with the seam behind it where the player shows pictures; of unknown length: as long as the resolver takes it for. */
export const lengthsIn = (context: Context): Lengths => {
	const { picture, pageBrowser } = context.facts;
	const seamMs = picture && !pageBrowser ? SEAM_MS : 0;
	return (id) => turnMs(itemOf(id, context) ?? { lastsMs: null }) + seamMs;
};

/** Wishes that a playlist does not meet as it stands, and the order in which it would. */
export function assessWishes(settings: ProgrammeSettings, context: Context): Finding[] {
	const { lists, shuffle, rules } = settings;
	const asked = lists.filter(({ id, wishes }) => wishes.length > 0 && rules.some(({ show }) => show === id));
	if (asked.length === 0) return [];
	const lengthOf = lengthsIn(context);
	const nameOf = (id: string): string => itemOf(id, context)?.title ?? id;
	return [
		...(shuffle
			? [
					{
						id: 'programme.wishes-shuffled',
						level: 'caution' as const,
						title: 'Shuffled, no entry comes as often as it is to come',
						why: 'How often each comes, and beside which others, is a matter of the order; shuffled, there is none.',
						setting: 'programme.shuffle' as const,
						fixes: [{ label: 'Play lists in their order', apply: own({ shuffle: false }) }]
					}
				]
			: []),
		...asked.flatMap((list): Finding[] => {
			const items = list.items.filter((id) => itemOf(id, context) !== null);
			if (items.length === 0) return [];
			const unmet = unmetByDay({ ...list, items }, items, lengthOf);
			if (unmet.length === 0) return [];
			const made = arrangedOnce(list, items, lengthOf);
			const holds = 'items' in made && unmetByDay({ ...list, items }, made.items, lengthOf).length === 0;
			const inOrder: Fix[] = holds
				? [
						{
							label: `Arrange the playlist: ${once(made.items.length, 'turn')} in ${formatSeconds(made.items.reduce((sum, id) => sum + lengthOf(id), 0))}`,
							apply: changed(list.id, (known) => ({ ...known, items: [...made.items] }))
						}
					]
				: [];
			return unmet.map(({ one, from }): Finding => ({
				id: `programme.wish-${list.id}-${one.wish.item}-${one.what}`,
				level: 'caution',
				title: `${from ? `From ${from}: ` : ''}${titleOf(one, list.title || list.id, nameOf)}`,
				why: holds
					? WHY[one.what]
					: `${WHY[one.what]} ${'items' in made ? 'No one order does it on all days: put entries of some days into a playlist of their own.' : whyNot(made, nameOf)}`,
				setting: `programme.lists.${lists.indexOf(list)}`,
				fixes: [
					...inOrder,
					{
						label: one.what === 'apart' ? 'Let them come beside each other' : 'Do without that wish',
						apply: changed(list.id, (known) => ({
							...known,
							wishes: known.wishes.flatMap((wish) => without(wish, one))
						}))
					}
				]
			}));
		})
	];
}

/** What is unmet in an order, each once, and from which day on; of an entry only on days on which it is on. */
function unmetByDay(
	list: ProgrammeList,
	order: readonly string[],
	lengthOf: Lengths
): { readonly one: Unmet; readonly from: string }[] {
	const gone = unmetIn(order, list.wishes, lengthOf).filter(({ what }) => what === 'gone');
	const out = new Map(gone.map((one) => [`${one.wish.item} ${one.what}`, { one, from: '' }]));
	for (const { from, items } of phasesOf({ items: [...order], valid: list.valid })) {
		const wishes = list.wishes.filter(({ item }) => items.includes(item));
		for (const one of unmetIn(items, wishes, lengthOf)) {
			const key = `${one.wish.item} ${one.what}`;
			if (!out.has(key)) out.set(key, { one, from });
		}
	}
	return [...out.values()];
}

/** A long search is made once, and not at every keystroke elsewhere. */
const known = new WeakMap<ProgrammeList, { readonly lengths: string; readonly made: Arranged }>();
function arrangedOnce(list: ProgrammeList, items: readonly string[], lengthOf: Lengths): Arranged {
	const lengths = items.map(lengthOf).join();
	const before = known.get(list);
	if (before?.lengths === lengths) return before.made;
	const made = arrange(items, list.wishes, lengthOf);
	known.set(list, { lengths, made });
	return made;
}

function without(wish: ProgrammeList['wishes'][number], { wish: its, what, is }: Unmet): ProgrammeList['wishes'] {
	if (wish.item !== its.item) return [wish];
	if (what === 'gone') return [];
	const left =
		what === 'apart' ? { ...wish, apartFrom: wish.apartFrom.filter((id) => id !== is) } : { ...wish, [what]: null };
	return left.perHour === null && left.percent === null && left.apartFrom.length === 0 ? [] : [left];
}

function titleOf({ wish, what, is }: Unmet, list: string, nameOf: (id: string) => string): string {
	const name = `\u201c${nameOf(wish.item)}\u201d`;
	switch (what) {
		case 'perHour':
			return `${name} comes ${once(is as number, 'time')} an hour; ${wish.perHour} are asked for`;
		case 'percent':
			return `${name} has ${(is as number).toFixed(0)}\u2009% of the time; ${wish.percent}\u2009% are asked for`;
		case 'apart':
			return is === wish.item
				? `${name} comes twice in a row`
				: `${name} comes right beside \u201c${nameOf(is as string)}\u201d`;
		case 'gone':
			return `${name} is to come in \u201c${list}\u201d, and is not in it`;
	}
}

const WHY: Readonly<Record<Unmet['what'], string>> = {
	perHour: 'Counted in the hour that has the fewest, while the playlist goes round and round.',
	percent: 'By the lengths of all its turns, once round.',
	apart: 'Its end counts as well: after the last entry comes the first.',
	gone: 'Nobody sees it there. Add it, or do without that wish.'
};

function whyNot(made: Exclude<Arranged, { items: unknown }>, nameOf: (id: string) => string): string {
	switch (made.why) {
		case 'time':
			return `All wishes together ask for ${made.percent.toFixed(0)}\u2009% of the time: no order can do that.`;
		case 'apart':
			return `No order was found that keeps \u201c${nameOf(made.item)}\u201d from all that it is to be kept from: add entries that may stand between.`;
		case 'long':
			return 'A round that does it would have more than 600 turns: ask for a little less.';
		case 'gone':
			return `\u201c${nameOf(made.item)}\u201d is not in the playlist.`;
	}
}
