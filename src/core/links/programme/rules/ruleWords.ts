import type { Moment, ProgrammeList, ProgrammeRule } from '../../../onAir/when';
import { showWords } from './whatsOn';

const NTH = ['', 'first ', 'second ', 'third ', 'fourth ', 'fifth '];
const NAMES: Readonly<Record<Exclude<Moment['at'], 'clock'>, string>> = {
	opens: 'opening',
	closes: 'closing',
	sunrise: 'sunrise',
	sunset: 'sunset'
};

/** "16:30", "15 min before opening". */
export function momentWords({ at, time, offsetMin }: Moment): string {
	if (at === 'clock') return time;
	if (offsetMin === 0) return NAMES[at];
	return `${Math.abs(offsetMin)}\u2009min ${offsetMin < 0 ? 'before' : 'after'} ${NAMES[at]}`;
}

/** What a rule says, on one line. */
export function ruleWords(rule: ProgrammeRule, lists: readonly ProgrammeList[], listTitle: string): string {
	const { weekdays, nth, season, dates, everyOther, holidays, validFrom, validUntil, each, quieterDb } = rule;
	const days = weekdays.length === 0 ? 'every day' : weekdays.join(', ');
	return [
		`shows ${showWords(rule.show, { lists: [...lists] }, listTitle)}`,
		dates.length
			? `on ${dates.length === 1 ? dates[0] : `${dates.length} dates`}`
			: `${nth < 0 ? 'last ' : NTH[nth]}${days}`,
		...(everyOther ? ['every other week'] : []),
		`${momentWords(rule.from)} to ${momentWords(rule.until)}`,
		...(each ? [`every ${each.everyMin}\u2009min for ${each.forMin}\u2009min`] : []),
		...(quieterDb ? [`${quieterDb}\u2009dB softer`] : []),
		...(season ? [`${season.from} to ${season.until}`] : []),
		...(validFrom ? [`from ${validFrom}`] : []),
		...(validUntil ? [`until ${validUntil}`] : []),
		...(holidays === 'too' ? [] : [holidays === 'only' ? 'holidays only' : 'never on holidays'])
	].join(' · ');
}
