import { dayFacts, dayOf, minuteOfTime } from '../../../basics/calendar';
import { WEEKDAYS, type Weekday } from '../../../basics/weekdays';
import { changing, type Change } from '../../../changes';
import { formatSeconds } from '../../../basics/format';
import type { Context, Finding, Fix, SettingPath } from '../../../link';
import { everything, itemOf } from '../../../onAir/items';
import { finishes } from '../lists/finish';
import { listLength } from '../lists/listLength';
import { stretchedBy } from './ruleEdits';
import { holdsOn } from '../../../onAir/line';
import { sunSure } from '../../../onAir/sun';
import { ruleLines } from '../../../onAir/ruleLines';
import type { ProgrammeSettings } from '../settings';
import type { Moment, ProgrammeList, ProgrammeRule } from '../../../onAir/when';

const own = changing<ProgrammeSettings>('programme');
const changed = (id: string, change: Partial<ProgrammeRule>) =>
	own((all) => ({ ...all, rules: all.rules.map((rule) => (rule.id === id ? { ...rule, ...change } : rule)) }));
const without = (id: string): Fix => ({
	label: 'Take the rule out',
	apply: own((all) => ({ ...all, rules: all.rules.filter((rule) => rule.id !== id) }))
});
const CUT: Fix = { label: 'Cut off what plays', apply: own({ atChange: 'cut' }) };
const clock = (time: string): Moment => ({ at: 'clock', time, offsetMin: 0 });
const nameOf = ({ title, id }: { title: string; id: string }): string => title || id;
const asks = ({ from, until }: ProgrammeRule, ...wanted: Moment['at'][]): boolean =>
	[from, until].some(({ at }) => wanted.includes(at));

/** Rules that show nothing, that never hold, or that ask for what the venue does not say; playlists that lack entries. */
export function assessRules(settings: ProgrammeSettings, context: Context): Finding[] {
	const { rules, lists, startAtBoot } = settings;
	if (rules.length === 0) return [];
	const listed = new Set(everything(context));
	const out: Finding[] = [];
	if (!startAtBoot)
		out.push({
			id: 'programme.rules-idle',
			level: 'caution',
			title: 'Rules decide what is on, and nothing begins by itself',
			why: 'At a rule’s hour the list is changed only while the player runs already: after a start nobody hears or sees anything.',
			setting: 'programme.startAtBoot',
			fixes: [{ label: 'Start with the board', apply: own({ startAtBoot: true }) }]
		});
	if (finishes(settings, context) && context.facts.picture?.darkWhileResting)
		out.push({
			id: 'programme.finish-dark',
			level: 'caution',
			title: 'The screen goes dark before the last title has ended',
			why: 'What plays is finished first when nothing is on any more, and the screen is off while nothing is on: the end of a film is heard and not seen.',
			setting: 'programme.atChange',
			fixes: [CUT]
		});
	const titles = finishes(settings, context) ? longestFirst(context) : [];
	rules.forEach((rule, n) => {
		const setting = `programme.rules.${n}` as const;
		const shown = lists.find(({ id }) => id === rule.show);
		if (rule.show !== 'all' && rule.show !== 'rest' && !shown)
			out.push({
				id: `programme.rule-list-${rule.id}`,
				level: 'stop',
				title: `The rule “${nameOf(rule)}” shows a playlist that is not there`,
				why: 'The player would be given a list that the card does not have. Choose another, or show everything.',
				setting,
				fixes: [{ label: 'Show everything', apply: changed(rule.id, { show: 'all' }) }, without(rule.id)]
			});
		if (asks(rule, 'opens', 'closes') && context.venue.opening.length === 0)
			out.push({
				id: `programme.rule-opening-${rule.id}`,
				level: 'stop',
				title: `The rule “${nameOf(rule)}” goes by opening hours, and the venue has none`,
				why: 'It would never hold. Say under Venue when it is open, or give the rule hours of its own.',
				setting,
				fixes: [
					{
						label: 'From 09:00 to 17:00',
						apply: changed(rule.id, {
							...(asks({ ...rule, until: rule.from }, 'opens', 'closes') ? { from: clock('09:00') } : {}),
							...(asks({ ...rule, from: rule.until }, 'opens', 'closes') ? { until: clock('17:00') } : {})
						})
					}
				]
			});
		else if (asks(rule, 'sunrise', 'sunset') && !context.venue.place)
			out.push({
				id: `programme.rule-sun-${rule.id}`,
				level: 'stop',
				title: `The rule “${nameOf(rule)}” goes by the sun, and nobody has said where the venue is`,
				why: 'Sunrise and sunset depend on the place. Give its latitude and longitude under Venue, or give the rule hours of its own.',
				setting,
				fixes: [
					{
						label: 'From 07:00 to 20:00',
						apply: changed(rule.id, {
							...(asks({ ...rule, until: rule.from }, 'sunrise', 'sunset') ? { from: clock('07:00') } : {}),
							...(asks({ ...rule, from: rule.until }, 'sunrise', 'sunset') ? { until: clock('20:00') } : {})
						})
					}
				]
			});
		else if (!hopesOf(rule, context).holds)
			out.push({
				id: `programme.rule-never-${rule.id}`,
				level: 'caution',
				title: `The rule “${nameOf(rule)}” never holds`,
				why: `No day has all that it asks for${asks(rule, 'opens', 'closes') ? ': on its days the venue is closed' : ''}. What it shows is not shown by it.`,
				setting,
				fixes: [...movedTo(rule, hopesOf(rule, context)), without(rule.id)]
			});
		out.push(...tooLate(rule, shown, titles, setting));
		// Shuffled, each entry has its turn; and the first one alone has no end that is missed.
		if (!settings.shuffle && settings.loop !== 'one') out.push(...tooShort(rule, shown, setting, context));
		if (rule.each && rule.each.forMin >= rule.each.everyMin)
			out.push({
				id: `programme.rule-each-${rule.id}`,
				level: 'note',
				title: `The rule “${nameOf(rule)}” comes again before it has ended`,
				why: `It lasts ${rule.each.forMin} minutes and comes every ${rule.each.everyMin}: it is on all the while.`,
				setting,
				fixes: [{ label: 'Let it be on all the while', apply: changed(rule.id, { each: null }) }]
			});
	});
	lists.forEach((list, n) => {
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
	});
	const bySun = rules.findIndex((rule) => asks(rule, 'sunrise', 'sunset'));
	const { place } = context.venue;
	if (bySun >= 0 && place) {
		const { worstMin, days } = sunSure(place);
		if (days > 0)
			out.push({
				id: 'programme.sun-unsure',
				level: 'note',
				title: `On ${days} days a year the sun skims the horizon here`,
				why: `So far from the equator it rises and sets so flatly that the bending of the air and the hills of the horizon move sunrise by ${worstMin < 60 ? `up to ${worstMin.toFixed(0)} minutes` : 'more than an hour'}. Where that matters, let the rule begin by the clock in those weeks.`,
				setting: `programme.rules.${bySun}`,
				fixes: []
			});
	}
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

/** A playlist that is longer than its rule lasts is begun anew each time: its end is never seen. */
function tooShort(
	rule: ProgrammeRule,
	list: ProgrammeSettings['lists'][number] | undefined,
	setting: SettingPath,
	context: Context
): Finding[] {
	const lastsMin = rule.each?.forMin ?? minutesOf(rule);
	if (!list || lastsMin === null) return [];
	const { ms, unknown } = listLength(list, context);
	const needMin = Math.ceil(ms / 60_000);
	if (unknown > 0 || needMin <= lastsMin) return [];
	const longer = {
		label: `Let it last ${needMin}\u2009min`,
		apply: changed(rule.id, { each: { ...rule.each!, forMin: needMin } })
	};
	return [
		{
			id: `programme.rule-short-${rule.id}`,
			level: 'caution',
			title: `The end of “${nameOf(list)}” is never seen`,
			why: `It takes ${formatSeconds(ms)}, and the rule “${nameOf(rule)}” lasts ${lastsMin}\u2009min: each time it begins with the first entry.`,
			setting,
			fixes: rule.each
				? needMin < rule.each.everyMin
					? [longer]
					: []
				: [
						{
							label: `Let it last ${needMin}\u2009min`,
							apply: changed(rule.id, { until: stretchedBy(rule, needMin - lastsMin).until })
						}
					]
		}
	];
}

interface Title {
	readonly id: string;
	readonly title: string;
	readonly lastsMs: number;
}
/** All that has an end. */
const longestFirst = (context: Context): Title[] =>
	everything(context)
		.flatMap((id) => {
			const item = itemOf(id, context);
			return item && item.lastsMs !== null ? [{ id, title: item.title, lastsMs: item.lastsMs }] : [];
		})
		.sort((a, b) => b.lastsMs - a.lastsMs);

/** Where what plays is finished first, a rule that is shorter than a title may be over before that is. */
function tooLate(
	rule: ProgrammeRule,
	list: ProgrammeList | undefined,
	titles: readonly Title[],
	setting: SettingPath
): Finding[] {
	const lastsMin = rule.each?.forMin ?? minutesOf(rule);
	if (lastsMin === null || (rule.show !== 'rest' && !list)) return [];
	const own = new Set(list?.items);
	const longest = titles.find(({ id }) => !own.has(id));
	if (!longest || longest.lastsMs < lastsMin * 60_000) return [];
	return [
		{
			id: `programme.rule-late-${rule.id}`,
			level: 'caution',
			title: `The rule “${nameOf(rule)}” may be over before its turn comes`,
			why: `What plays is finished first: “${longest.title}” takes ${formatSeconds(longest.lastsMs)}, and the rule lasts ${lastsMin}\u2009min.`,
			setting,
			fixes: [CUT]
		}
	];
}

/** How long a rule lasts by the clock; null: it goes by something else. */
function minutesOf({ from, until }: ProgrammeRule): number | null {
	if (from.at !== 'clock' || until.at !== 'clock') return null;
	return (minuteOfTime(until.time) - minuteOfTime(from.time) + 1440) % 1440 || 1440;
}

/** Days that are tried: four years have a leap day, each weekday in each month, and both kinds of week. */
const TRIED_DAYS = 1461;
const FIRST_DAY = dayOf('2026-01-01');

/** Whether any day has all that a rule asks for. */
function everHolds(rule: ProgrammeRule, { venue }: Context): boolean {
	return ruleLines([rule], venue).some((line) => {
		const days = line.only
			? line.only.map((ymd) => dayOf(String(ymd).replace(/^(....)(..)(..)$/, '$1-$2-$3')))
			: Array.from(
					{ length: TRIED_DAYS },
					(_, n) => Math.max(FIRST_DAY, rule.validFrom === '' ? FIRST_DAY : dayOf(rule.validFrom)) + n
				);
		// A rule that ended before today may still be tried on its own last days.
		if (!line.only && rule.validUntil !== '' && dayOf(rule.validUntil) < FIRST_DAY) days.push(dayOf(rule.validUntil));
		return days.some((day) => holdsOn(line, dayFacts(day)));
	});
}

const DAY_NAMES = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'];

/** Whether a rule ever holds, and the nearest weekday on which it would. */
interface Hopes {
	readonly holds: boolean;
	readonly weekday: Weekday | undefined;
}
/** Years of days are gone through once for each rule, and not at every keystroke in another. */
const known = new WeakMap<ProgrammeRule, { readonly venue: Context['venue']; readonly hopes: Hopes }>();

function hopesOf(rule: ProgrammeRule, context: Context): Hopes {
	const before = known.get(rule);
	if (before?.venue === context.venue) return before.hopes;
	const holds = everHolds(rule, context);
	const first = WEEKDAYS.indexOf(rule.weekdays[0] ?? 'Mon');
	const hopes = {
		holds,
		weekday:
			holds || rule.weekdays.length === 0
				? undefined
				: WEEKDAYS.map((_, n): Weekday => WEEKDAYS[(first + n) % 7]!).find((weekday) =>
						everHolds({ ...rule, weekdays: [weekday] }, context)
					)
	};
	known.set(rule, { venue: context.venue, hopes });
	return hopes;
}

const movedTo = (rule: ProgrammeRule, { weekday }: Hopes): Fix[] =>
	weekday === undefined
		? []
		: [
				{
					label: `Move it to ${DAY_NAMES[WEEKDAYS.indexOf(weekday)]}`,
					apply: changed(rule.id, { weekdays: [weekday] })
				}
			];
