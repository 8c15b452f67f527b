import { z } from 'zod';
import { isTimeZone } from '../formats/systemd/zone';
import { addressText, cidrText } from '../formats/ip/text';
import { WEEKDAYS } from '../basics/weekdays';
import { CALM_THEME, noticeTheme } from '../standards/pageTheme';
import { dateText, seasonSchema } from '../basics/dates';
import { lineText, timeOfDay, uniqueList } from '../basics/text';

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
		.nullable(),
	/** When visitors may come; of lines that hold on one day each counts. */
	opening: z
		.array(
			z.object({
				/** No day means every day. */
				weekdays: z.array(z.enum(WEEKDAYS)).max(7),
				season: seasonSchema.nullable(),
				from: timeOfDay,
				until: timeOfDay
			})
		)
		.max(20)
		.default([]),
	closedOnHolidays: z.boolean().default(false),
	holidays: uniqueList(
		z.object({ date: dateText, title: lineText(80) }),
		400,
		({ date }) => date,
		'That day is listed already.'
	).default([]),
	/** Where on the earth, for sunrise and sunset; null: not said. */
	place: z
		.object({ latitudeDeg: z.number().min(-90).max(90), longitudeDeg: z.number().min(-180).max(180) })
		.nullable()
		.default(null),
	/** How its notices look. */
	noticeTheme: noticeTheme.default(CALM_THEME)
});
/** The same, as a type. */
export type Venue = z.infer<typeof venueSchema>;
