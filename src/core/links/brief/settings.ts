import { z } from 'zod';
import { WISHES } from '../../link/wish';
import { videoShapeSchema } from '../../parts/schema';
import { lineText } from '../../basics/text';

/** What the endpoint must do, in the person's words, and the promises it is held to. */
export const briefSettings = z.object({
	name: lineText(60).min(1, 'Give the endpoint a name.'),
	room: lineText(60),
	purpose: lineText(300),
	/** The kind of endpoint wished for. */
	kind: z.enum(WISHES),
	/** The hardest film that it must show smoothly; null: none. */
	video: videoShapeSchema.nullable(),
	/** Seconds from power on to first sound that the person will put up with. */
	soundWithinSec: z.number().int().min(5).max(600),
	/** Nobody should have to touch it after a power cut. */
	comesBackAlone: z.boolean()
});
/** The brief's slice of a plan. */
export type BriefSettings = z.infer<typeof briefSettings>;
