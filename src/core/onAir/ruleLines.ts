import { dayOf, dayFacts, minuteOfTime } from '../basics/calendar';
import { WEEKDAYS, type Weekday } from '../basics/weekdays';
import { ALWAYS, spanOf, type LineMoment, type RuleLine } from './line';
import type { Venue } from '../plan/venue';
import type { Moment, ProgrammeRule } from './when';

const ALL_DAY_MIN = 1440;
const numberOf = (date: string): number => Number(date.replaceAll('-', ''));
const daysOf = (weekdays: readonly Weekday[]): number[] | null =>
	weekdays.length === 0 ? null : weekdays.map((day) => WEEKDAYS.indexOf(day) + 1).sort();

const isByHours = ({ from, until }: ProgrammeRule): boolean =>
	[from, until].some(({ at }) => at === 'opens' || at === 'closes');

type Hours = Pick<Venue, 'opening' | 'closedOnHolidays' | 'holidays'>;

/** What rules come to at a venue, in their order. */
export const ruleLines = (rules: readonly ProgrammeRule[], venue: Hours): RuleLine[] =>
	rules.flatMap((rule) => linesOf(rule, venue));

function linesOf(rule: ProgrammeRule, venue: Hours): RuleLine[] {
	const holidays = venue.holidays.map(({ date }) => numberOf(date)).sort((a, b) => a - b);
	const byHours = isByHours(rule);
	const closed = byHours && venue.closedOnHolidays;
	const only = [
		...(rule.dates.length ? [rule.dates.map(numberOf)] : []),
		...(rule.holidays === 'only' ? [holidays] : [])
	];
	const base = {
		rule: rule.id,
		title: rule.title,
		show: rule.show,
		nth: rule.nth,
		weekParity: rule.everyOther === '' ? null : dayFacts(dayOf(rule.everyOther)).weekParity,
		validFrom: rule.validFrom === '' ? ALWAYS.from : numberOf(rule.validFrom),
		validUntil: rule.validUntil === '' ? ALWAYS.until : numberOf(rule.validUntil),
		only: only.length === 0 ? null : only.reduce((a, b) => a.filter((day) => b.includes(day))).sort((a, b) => a - b),
		never: rule.holidays === 'never' || closed ? holidays : [],
		everyMin: rule.each?.everyMin ?? 0,
		forMin: rule.each?.forMin ?? 0,
		quieterDb: rule.quieterDb
	};
	const seasons = rule.season ? [spanOf(rule.season)] : [];
	const days = daysOf(rule.weekdays);
	if (!byHours) return [{ ...base, days, seasons, from: momentOf(rule.from, null), until: momentOf(rule.until, null) }];
	return venue.opening.flatMap((hours): RuleLine[] => {
		const open = daysOf(hours.weekdays);
		const both = days === null ? open : open === null ? days : days.filter((day) => open.includes(day));
		if (both?.length === 0) return [];
		return [
			{
				...base,
				days: both,
				seasons: [...seasons, ...(hours.season ? [spanOf(hours.season)] : [])],
				from: momentOf(rule.from, hours),
				until: momentOf(rule.until, hours)
			}
		];
	});
}

function momentOf({ at, time, offsetMin }: Moment, hours: { from: string; until: string } | null): LineMoment {
	switch (at) {
		case 'clock':
			return { by: 'clock', min: minuteOfTime(time) };
		case 'sunrise':
			return { by: 'rise', min: offsetMin };
		case 'sunset':
			return { by: 'set', min: offsetMin };
		case 'opens':
		case 'closes': {
			const open = minuteOfTime(hours!.from);
			const until = minuteOfTime(hours!.until);
			// Closing after midnight belongs to the day on which it opened.
			const min = at === 'opens' ? open : until <= open ? until + ALL_DAY_MIN : until;
			return { by: 'clock', min: Math.max(0, min + offsetMin) };
		}
	}
}
