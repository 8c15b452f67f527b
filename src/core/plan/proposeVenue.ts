import { CALM_THEME } from '../standards/pageTheme';
import type { Venue } from './venue';

/** Where the sockets give about 120 V or 100 V instead of 230 V. Source: IEC 60083, IEC "World plugs". */
const LOW_MAINS_V: Readonly<Record<string, number>> = {
	JP: 100,
	TW: 110,
	...Object.fromEntries(
		['US', 'CA', 'MX', 'CO', 'VE', 'EC', 'CU', 'DO', 'HN', 'GT', 'SV', 'NI', 'CR', 'PA', 'PR', 'JM', 'BS'].map(
			(region) => [region, 120]
		)
	),
	BR: 127
};

/** Money of regions outside the euro. Source: ISO 4217. */
const CURRENCIES: Readonly<Record<string, string>> = {
	...{ GB: 'GBP', US: 'USD', CA: 'CAD', AU: 'AUD', NZ: 'NZD', JP: 'JPY', CN: 'CNY', IN: 'INR', BR: 'BRL', MX: 'MXN' },
	...{ CH: 'CHF', SE: 'SEK', NO: 'NOK', DK: 'DKK', IS: 'ISK', PL: 'PLN', CZ: 'CZK', HU: 'HUF', RO: 'RON', TR: 'TRY' },
	...{ ZA: 'ZAR', IL: 'ILS', KR: 'KRW', TW: 'TWD', SG: 'SGD', HK: 'HKD', AR: 'ARS', CL: 'CLP', UA: 'UAH' }
};

/** What a browser tells of where it is, as a venue to begin with: to be looked at once, not to be relied on. `language` is a BCP 47 tag. */
export function proposeVenue(timeZone: string, language: string): Venue {
	const region = /-([A-Z]{2})\b/.exec(language)?.[1] ?? '';
	return {
		name: 'My workshop',
		timeZone,
		currency: CURRENCIES[region] ?? 'EUR',
		pricePerKwh: 0.3,
		mainsV: LOW_MAINS_V[region] ?? 230,
		lan: null,
		opening: [],
		closedOnHolidays: false,
		holidays: [],
		place: null,
		noticeTheme: CALM_THEME
	};
}
