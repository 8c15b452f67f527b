import { z } from 'zod';
import { idText, uniqueList } from '../../basics/text';

const partId = idText.nullable();

/** Which parts are used: those with a place of their own, by place, and the rest as a list. Null: nothing chosen. */
export const partsSettings = z.object({
	board: partId,
	supply: partId,
	lead: partId,
	card: partId,
	converter: partId,
	amplifier: partId,
	speakers: partId,
	screen: partId,
	case: partId,
	cooler: partId,
	/** Leads, adapters, tuners, drives, fans, add-ons and all else, in the order in which they sit on the header. */
	also: uniqueList(
		z.object({ part: idText, count: z.number().int().min(1).max(20) }),
		60,
		({ part }) => part,
		'The same part stands there twice.'
	)
});
/** The parts' slice of a plan, by ids of the catalogue or the workshop. */
export type PartsSettings = z.infer<typeof partsSettings>;
/** A place that holds one part, such as board or supply. */
export type PartPlace = Exclude<keyof PartsSettings, 'also'>;
