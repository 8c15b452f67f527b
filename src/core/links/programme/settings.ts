import { z } from 'zod';
import { quietHours, rulesShape } from '../../onAir/when';

/** The schema of the programme's slice of a plan. */
export const programmeSettings = z.object({
	/** Off: nothing is played by itself. */
	used: z.boolean(),
	startAtBoot: z.boolean(),
	/** list: the whole list again and again. one: the first entry again and again. once: to the end, then silence. */
	loop: z.enum(['list', 'one', 'once']),
	shuffle: z.boolean(),
	quiet: z.array(quietHours).max(20),
	/**
	 * list: the list goes on, and the stream's turn comes round. back: it goes on, and back to the stream when that is there again.
	 * file: the first file of the list stands in. sign: a soft tone now and then, so that silence is not taken for a fault.
	 */
	whenGone: z.enum(['list', 'back', 'file', 'sign']),
	/** A stream that is gone is tried again so often, s. */
	lookSec: z.number().int().min(10).max(86_400),
	/** When a rule begins or ceases to hold. cut: what plays is broken off. finish: it is played to its end, but for what has none. */
	atChange: z.enum(['cut', 'finish']),
	...rulesShape
});
/** The programme's slice of a plan. */
export type ProgrammeSettings = z.infer<typeof programmeSettings>;
