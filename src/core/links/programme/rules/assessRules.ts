import { minuteOfTime } from '../../../basics/calendar';
import { WEEKDAYS } from '../../../basics/weekdays';
import { changing } from '../../../changes';
import { formatSeconds } from '../../../basics/format';
import type { Context } from '../../../link/context';
import type { Finding, Fix } from '../../../link/finding';
import type { SettingPath } from '../../../link/setting';
import { everything, itemOf } from '../../../onAir/items';
import { finishes } from '../lists/finish';
import { listLength } from '../lists/listLength';
import { stretchedBy } from './ruleEdits';
import { sunSure } from '../../../onAir/sun';
import type { ProgrammeSettings } from '../settings';
import type { Moment, ProgrammeList, ProgrammeRule } from '../../../onAir/when';
import { assessList } from './assessLists';
import { hopesOf, type Hopes } from './hopes';

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
	rules.forEach((rule, n) => out.push(...assessRule(rule, n, settings, context, titles)));
	lists.forEach((list, n) => out.push(...assessList(list, n, settings, listed)));
	out.push(...assessSun(rules, context));
	return out;
}

/** What one rule shows, and for how long. */
function assessRule(
	rule: ProgrammeRule,
	n: number,
	settings: ProgrammeSettings,
	context: Context,
	titles: readonly Title[]
): Finding[] {
	const out: Finding[] = [];
	const setting = `programme.rules.${n}` as const;
	const shown = settings.lists.find(({ id }) => id === rule.show);
	if (rule.show !== 'all' && rule.show !== 'rest' && !shown)
		out.push({
			id: `programme.rule-list-${rule.id}`,
			level: 'stop',
			title: `The rule “${nameOf(rule)}” shows a playlist that is not there`,
			why: 'The player would be given a list that the card does not have. Choose another, or show everything.',
			setting,
			fixes: [{ label: 'Show everything', apply: changed(rule.id, { show: 'all' }) }, without(rule.id)]
		});
	out.push(...assessTimes(rule, setting, context));
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
	return out;
}

/** What a rule asks for before it holds: opening hours, the sun, a day that there is. */
function assessTimes(rule: ProgrammeRule, setting: SettingPath, context: Context): Finding[] {
	const out: Finding[] = [];
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
	return out;
}

/** How sure sunrise is where the venue lies. */
function assessSun(rules: readonly ProgrammeRule[], context: Context): Finding[] {
	const out: Finding[] = [];
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

const DAY_NAMES = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'];

const movedTo = (rule: ProgrammeRule, { weekday }: Hopes): Fix[] =>
	weekday === undefined
		? []
		: [
				{
					label: `Move it to ${DAY_NAMES[WEEKDAYS.indexOf(weekday)]}`,
					apply: changed(rule.id, { weekdays: [weekday] })
				}
			];
