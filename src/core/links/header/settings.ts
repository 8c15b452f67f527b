import { z } from 'zod';
import { idText } from '../../basics/text';

/** Where movable lines are wired, by part: GPIO numbers in the order of the part's own list. Absent: as its maker suggests. */
export const headerSettings = z.object({
	lines: z.record(idText, z.array(z.number().int().min(0).max(27)).max(8))
});
/** The header's slice of a plan. */
export type HeaderSettings = z.infer<typeof headerSettings>;
