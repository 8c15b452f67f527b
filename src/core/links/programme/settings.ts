import { z } from 'zod';
import { timeOfDay } from '../../plan/text';

export const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

export const quietHours = z.object({
	/** The evening on which it begins; no day means every day. */
	weekdays: z.array(z.enum(WEEKDAYS)).max(7),
	from: timeOfDay,
	/** May be earlier than `from`: then it ends the next morning. */
	until: timeOfDay
});
export type QuietHours = z.infer<typeof quietHours>;

export const programmeSettings = z.object({
	/** Off: nothing is played by itself. */
	used: z.boolean(),
	startAtBoot: z.boolean(),
	/** list: the whole list over and over. one: the first entry over and over. once: to the end, then silence. */
	loop: z.enum(['list', 'one', 'once']),
	shuffle: z.boolean(),
	quiet: z.array(quietHours).max(20)
});
export type ProgrammeSettings = z.infer<typeof programmeSettings>;
