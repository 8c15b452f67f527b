import { z } from 'zod';

export const cardSettings = z.object({
	/** Kept free, so that the card can spread its wear and updates have room. */
	reservePercent: z.number().int().min(0).max(50),
	/** Log in memory only: fewer writes and fewer torn files after a power cut, but no log of what came before it. */
	logsInMemory: z.boolean()
});
export type CardSettings = z.infer<typeof cardSettings>;
