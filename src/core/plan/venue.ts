import { z } from 'zod';
import { isTimeZone } from '../formats/systemd/zone';
import { addressText, cidrText } from '../formats/ip/text';
import { lineText } from './text';

/** Where endpoints live. */
export const venueSchema = z.object({
	name: lineText(80).min(1, 'Give the venue a name.'),
	timeZone: z.string().refine(isTimeZone, 'A time zone of the tz database, spelt as there: Europe/Oslo.'),
	/** Three letters, ISO 4217. */
	currency: z.string().regex(/^[A-Z]{3}$/, 'Three capital letters, such as EUR.'),
	/** What a kilowatt hour costs, in that currency. */
	pricePerKwh: z.number().min(0).max(100),
	/** At the wall socket, in volts. */
	mainsV: z.number().min(90).max(260),
	/** The venue's own network, as its router has it; null: not known. */
	lan: z
		.object({
			cidr: cidrText,
			/** Addresses that the router gives away by itself; both empty: not known. */
			poolFrom: z.union([z.literal(''), addressText]),
			poolTo: z.union([z.literal(''), addressText]),
			/** The router itself. */
			gateway: addressText
		})
		.nullable()
});
/** The same, as a type. */
export type Venue = z.infer<typeof venueSchema>;
