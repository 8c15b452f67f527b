import { z } from 'zod';
import { lineText } from '../../plan/text';

export const networkSettings = z.object({
	/** One label of a host name. Source: RFC 1123, 2.1. */
	hostName: z
		.string()
		.regex(
			/^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/,
			'Small letters, digits and hyphens, at most 63; no hyphen at either end. Example: lounge.'
		),
	way: z.enum(['wired', 'radio', 'none']),
	/** The radio network's name; its pass phrase is asked for when the card set is written and never kept. */
	ssid: lineText(32).refine(
		(text) => new TextEncoder().encode(text).length <= 32,
		'A network name has at most 32 bytes; letters outside English take two or more.'
	),
	/** The radio's rules follow the country: two letters. Source: ISO 3166-1 alpha-2. */
	countryCode: z.string().regex(/^([A-Z]{2})?$/, 'Two capital letters, such as GB or NO.')
});
export type NetworkSettings = z.infer<typeof networkSettings>;
