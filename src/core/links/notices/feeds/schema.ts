import { z } from 'zod';
import { idText, lineText } from '../../../basics/text';

/** Kinds of feeds: CSV; iCalendar; RSS and Atom; JSON as `docs/weather.schema.json` has it. */
export const FEED_KINDS = ['table', 'calendar', 'news', 'weather'] as const;
/** One of them. */
export type FeedKind = (typeof FEED_KINDS)[number];

/** Longer ones are not read, characters. */
export const LONGEST_FEED = 400_000;
/** Longer ones are not kept in the plan: they are fetched. */
const LONGEST_KEPT = 60_000;

/** The schema of a feed: what stands in a file that goes along, or is fetched from an address again and again. */
export const feedSchema = z.object({
	id: idText,
	title: lineText(80),
	kind: z.enum(FEED_KINDS),
	/** http or https; "": what is typed or chosen here goes along and stays. */
	address: z.union([
		z.literal(''),
		lineText(500).regex(/^https?:\/\/[^\s"'\\]+$/, 'An address begins with http:// or https://.')
	]),
	/** Its text as it was last seen here: shown until the endpoint has fetched it. */
	text: z.string().max(LONGEST_KEPT, 'This is too long to be kept in the plan. Give its address instead.')
});
/** A feed. */
export type Feed = z.infer<typeof feedSchema>;
