import type { Claim } from '../../../claims';
import type { NoticesSettings } from '../settings';
import { FEEDS_DIR } from '../places';

/** The service that fetches feeds, and its timer. */
export const FEEDS_UNIT = 'yphos-feeds';

/** Feeds that the endpoint fetches. */
export const fetchedFeeds = ({ feeds }: NoticesSettings): NoticesSettings['feeds'] =>
	feeds.filter(({ address }) => address !== '');

/** What fetching needs: the program, the network, its units. */
export function fetchClaims(settings: NoticesSettings): Claim[] {
	const feeds = fetchedFeeds(settings);
	if (feeds.length === 0) return [];
	const own = { from: 'notices', what: 'feeds', setting: 'notices.feeds' } as const;
	return [
		{ ...own, on: 'package', name: 'curl' },
		...(['service', 'timer'] as const).map((ending): Claim => ({
			...own,
			on: 'unit',
			name: `${FEEDS_UNIT}.${ending}`
		})),
		...feeds.map(({ id, title, text }): Claim => ({
			from: 'notices',
			on: 'path',
			what: title || id,
			// Spread over the time between two fetches it is next to nothing.
			bitsPerSec: Math.max(1, Math.round((text.length * 8) / (settings.fetchEveryMin * 60)))
		})),
		...settings.feeds.flatMap(({ id, title, address }, n): Claim[] =>
			address ? [{ on: 'fetch', from: 'notices', what: title || id, address, setting: `notices.feeds.${n}` }] : []
		),
		...feeds.map(({ id, title }): Claim => ({
			...own,
			on: 'check',
			label: `${title || id} has been fetched`,
			command: `test -s ${FEEDS_DIR}/${id}`
		}))
	];
}
