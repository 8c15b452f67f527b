import { changing, type Change } from '../../../changes';
import type { Finding } from '../../../link/finding';
import type { SettingPath } from '../../../link/setting';
import type { ProgrammeList } from '../../../onAir/when';
import type { ProgrammeSettings } from '../settings';

const own = changing<ProgrammeSettings>('programme');
const nameOf = ({ title, id }: { title: string; id: string }): string => title || id;

/** A playlist that nobody shows, that is empty, or that lacks some of its entries. */
export function assessList(
	list: ProgrammeList,
	n: number,
	{ rules }: Pick<ProgrammeSettings, 'rules'>,
	listed: ReadonlySet<string>
): Finding[] {
	const out: Finding[] = [];
	const setting = `programme.lists.${n}` as const;
	const there = list.items.filter((id) => listed.has(id));
	const showing = rules.filter(({ show }) => show === list.id);
	const withoutList = (all: ProgrammeSettings): ProgrammeSettings => ({
		...all,
		lists: all.lists.filter(({ id }) => id !== list.id),
		rules: all.rules.filter(({ show }) => show !== list.id)
	});
	if (showing.length === 0)
		out.push({
			id: `programme.list-unused-${list.id}`,
			level: 'note',
			title: `No rule shows the playlist “${nameOf(list)}”`,
			why: 'It is written to the card, and nobody sees it.',
			setting,
			fixes: [{ label: 'Take it out', apply: own(withoutList) }]
		});
	else if (there.length === 0)
		out.push({
			id: `programme.list-empty-${list.id}`,
			level: 'stop',
			title: `The playlist “${nameOf(list)}” is empty`,
			why: 'While it is on the player finds nothing, ends, and is begun again every two seconds. Add entries, or take it out with its rules.',
			setting,
			fixes: [{ label: 'Take it out', apply: own(withoutList) }]
		});
	out.push(...assessDays(list, setting, showing.length > 0));
	if (there.length > 0 && there.length < list.items.length)
		out.push({
			id: `programme.list-lost-${list.id}`,
			level: 'caution',
			title: `The playlist “${nameOf(list)}” lacks ${list.items.length - there.length} of its entries`,
			why: 'They are no longer among the sources or pages, and are passed over.',
			setting,
			fixes: [
				{
					label: 'Forget them',
					apply: own((all) => ({
						...all,
						lists: all.lists.map((one) =>
							one.id === list.id ? { ...one, items: one.items.filter((id) => listed.has(id)) } : one
						)
					}))
				}
			]
		});
	return out;
}

/** Days of entries that never come, and a playlist of which nothing is left after a day. */
function assessDays(list: ProgrammeList, setting: SettingPath, isShown: boolean): Finding[] {
	const withDays = (item: string, days: Partial<ProgrammeList['valid'][number]>): Change =>
		own((all) => ({
			...all,
			lists: all.lists.map((one) =>
				one.id === list.id
					? { ...one, valid: one.valid.map((known) => (known.item === item ? { ...known, ...days } : known)) }
					: one
			)
		}));
	const out: Finding[] = [];
	const known = list.valid.filter(({ item }) => list.items.includes(item));
	for (const { item, from, until } of known)
		if (from && until && from > until)
			out.push({
				id: `programme.days-never-${list.id}-${item}`,
				level: 'caution',
				title: `An entry of “${nameOf(list)}” is never on`,
				why: `It is to begin on ${from} and to end on ${until}, which comes before.`,
				setting,
				fixes: [{ label: 'Exchange the two', apply: withDays(item, { from: until, until: from }) }]
			});
	const ends = list.items.map((id) => known.find(({ item }) => item === id)?.until ?? '');
	const last = ends.reduce((a, b) => (a > b ? a : b), '');
	if (isShown && list.items.length > 0 && ends.every((date) => date !== ''))
		out.push({
			id: `programme.days-over-${list.id}`,
			level: 'caution',
			title: `After ${last} nothing of “${nameOf(list)}” is left`,
			why: 'All its entries have a last day. Its rules hold on, and nothing is on while they do.',
			setting,
			fixes: [
				{
					label: 'Let the last one stay',
					apply: withDays(list.items[ends.lastIndexOf(last)]!, { until: '' })
				}
			]
		});
	return out;
}
