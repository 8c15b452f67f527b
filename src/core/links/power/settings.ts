import { z } from 'zod';

/** The lead between supply and board. */
export const powerSettings = z.object({
	leadLengthM: z.number().min(0).max(20),
	/** Cross-section of one conductor; 0.33 mm² is common in thick leads, 0.08 mm² in thin ones. */
	leadAreaMm2: z.number().min(0.03).max(2.5)
});
export type PowerSettings = z.infer<typeof powerSettings>;
