import { dayFacts, dayOf } from '../../../basics/calendar';
import { WEEKDAYS, type Weekday } from '../../../basics/weekdays';
import type { Context } from '../../../link/context';
import { holdsOn } from '../../../onAir/line';
import { ruleLines } from '../../../onAir/ruleLines';
import type { ProgrammeRule } from '../../../onAir/when';

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

/** Whether a rule ever holds, and the nearest weekday on which it would. */
export interface Hopes {
	readonly holds: boolean;
	readonly weekday: Weekday | undefined;
}
/** Years of days are gone through once for each rule, and not at every keystroke in another. */
const known = new WeakMap<ProgrammeRule, { readonly venue: Context['venue']; readonly hopes: Hopes }>();

/** Whether it ever holds at this venue; found out once for each rule. */
export function hopesOf(rule: ProgrammeRule, context: Context): Hopes {
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
