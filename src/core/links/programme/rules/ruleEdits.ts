import { minuteOfTime } from '../../../basics/calendar';
import type { Moment, ProgrammeRule } from '../../../onAir/when';

const DAY_MIN = 1440;
const OFFSET_MIN = 720;

/** A time so many minutes later: by the clock round midnight, else by what is added to it, as far as that goes. */
function later(moment: Moment, byMin: number): Moment {
	if (moment.at !== 'clock')
		return { ...moment, offsetMin: Math.max(-OFFSET_MIN, Math.min(OFFSET_MIN, moment.offsetMin + byMin)) };
	const minutes = minuteOfTime(moment.time) + byMin;
	const within = ((minutes % DAY_MIN) + DAY_MIN) % DAY_MIN;
	return {
		...moment,
		time: `${String(Math.floor(within / 60)).padStart(2, '0')}:${String(within % 60).padStart(2, '0')}`
	};
}

/** The whole rule later, on all its days; earlier where negative. */
export const movedBy = (rule: ProgrammeRule, byMin: number): ProgrammeRule => ({
	...rule,
	from: later(rule.from, byMin),
	until: later(rule.until, byMin)
});

/** Its end later, on all its days. It is never drawn together to nothing, which would be a whole day. */
export function stretchedBy(rule: ProgrammeRule, byMin: number): ProgrammeRule {
	const until = later(rule.until, byMin);
	const isNothing =
		rule.from.at === until.at &&
		(until.at === 'clock' ? rule.from.time === until.time : rule.from.offsetMin === until.offsetMin);
	return isNothing ? rule : { ...rule, until };
}
