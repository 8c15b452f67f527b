import { z } from 'zod';

const partId = z.string().min(1).nullable();

/** Which part of the workshop's drawer fills each place; null while nothing is chosen. */
export const partsSettings = z.object({
	board: partId,
	supply: partId,
	card: partId,
	converter: partId,
	amplifier: partId,
	speakers: partId
});
export type PartsSettings = z.infer<typeof partsSettings>;
