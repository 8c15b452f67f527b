import { describe, expect, it } from 'vitest';
import { proposeVenue } from './proposeVenue';
import { venueSchema } from './venue';

describe('a venue is proposed', () => {
	it.each([
		['en-GB', 'GBP', 230],
		['en-US', 'USD', 120],
		['ja-JP', 'JPY', 100],
		['nb-NO', 'NOK', 230],
		['de', 'EUR', 230],
		['zh-Hant-TW', 'TWD', 110],
		['', 'EUR', 230]
	])('from the language %s: %s and %d V', (language, currency, mainsV) => {
		const venue = proposeVenue('Europe/Oslo', language);
		expect(venue).toMatchObject({ timeZone: 'Europe/Oslo', currency, mainsV, lan: null });
		expect(venueSchema.safeParse(venue).success).toBe(true);
	});
});
