import { minuteOfTime } from '../../basics/calendar';
import { WEEKDAYS } from '../../basics/weekdays';
import type { Venue } from '../../plan/venue';
import { bookOf } from './book';
import { resolve, type OnAir, type Rulebook } from '../../onAir/onAir';
import { ALWAYS, type RuleLine } from '../../onAir/line';
import type { ProgrammeSettings, QuietHours } from './settings';

/** Quiet hours go before every rule. */
const quietAsLine = (hours: QuietHours, n: number): RuleLine => ({
	rule: `quiet-${n}`,
	title: 'Quiet hours',
	show: 'quiet',
	days: hours.weekdays.length ? hours.weekdays.map((day) => WEEKDAYS.indexOf(day) + 1) : null,
	nth: 0,
	weekParity: null,
	seasons: [],
	validFrom: ALWAYS.from,
	validUntil: ALWAYS.until,
	only: null,
	never: [],
	from: { by: 'clock', min: minuteOfTime(hours.from) },
	until: { by: 'clock', min: minuteOfTime(hours.until) },
	everyMin: 0,
	forMin: 0
});

/** All that decides what an endpoint does at an hour: quiet hours, then its rules, then what is on otherwise; "off" while nothing starts by itself. */
export function programmeBook(settings: ProgrammeSettings, venue: Venue): Rulebook {
	if (!settings.used || !settings.startAtBoot) return { lines: [], otherwise: 'off', zone: venue.timeZone, sun: [] };
	const { lines, ...book } = bookOf(settings, venue);
	return { ...book, lines: [...settings.quiet.map(quietAsLine), ...lines] };
}

/** The week that is looked ahead for the next change. */
const AHEAD_MS = 8 * 86_400_000;

/** What is on at an instant, and the instant at which that changes; null: not within a week. */
export function whatsOn(book: Rulebook, utcMs: number): OnAir & { readonly untilUtcMs: number | null } {
	const { show, line, untilUtcMs } = resolve(book, utcMs, utcMs + AHEAD_MS)[0]!;
	return { show, line, untilUtcMs: untilUtcMs < utcMs + AHEAD_MS ? untilUtcMs : null };
}

/** What is shown, in words. */
export function showWords(show: string, { lists }: Pick<ProgrammeSettings, 'lists'>, listTitle: string): string {
	switch (show) {
		case 'all':
			return listTitle || 'the whole list';
		case 'rest':
			return 'nothing';
		case 'quiet':
			return 'quiet';
		case 'off':
			return 'not by itself';
		default:
			return lists.find(({ id }) => id === show)?.title || show;
	}
}

/** Why it is on, in words. */
export function becauseWords({ show, line }: OnAir, { lines }: Rulebook): string {
	if (line) return line.show === 'quiet' ? 'quiet hours' : `rule: ${line.title || line.rule}`;
	if (show === 'off') return 'nothing starts it';
	return lines.some((known) => known.show !== 'quiet') ? 'no rule holds' : 'at any hour';
}
