import { entryClaims } from '../../basics/entries';
import type { Claim } from '../../claims';
import { PLAYER_UNIT } from '../../files/cardFile';
import { CONTENT_NOW } from '../../files/content';
import { placeKind } from '../../files/mediaPlace';
import type { Context } from '../../link/context';
import { CONTENT_UNIT, RENEW_UNIT } from './places';
import { isWeb, type DeliverySettings } from './settings';

/** What fetching needs: programs, units that start with the board, and the player after the look at what it is to show. */
export function deliveryClaims({ from, times, publicKey }: DeliverySettings, context: Context): Claim[] {
	const own = { from: 'delivery', what: 'new content', setting: 'delivery' } as const;
	return [
		{ ...own, on: 'package', name: 'curl' },
		...(isWeb({ from }) ? [{ ...own, on: 'fetch', address: from, setting: 'delivery.from' } as const] : []),
		...(publicKey ? [{ ...own, on: 'package', name: 'openssl', setting: 'delivery.publicKey' } as const] : []),
		// While one is on trial, the one before stands beside it, and both beside what the card brought.
		{ on: 'store', from: 'delivery', what: 'sets of content', bytes: 2 * contentBytes(context) },
		{ ...own, on: 'unit', name: CONTENT_UNIT },
		{ ...own, on: 'unit', name: `${RENEW_UNIT}.timer` },
		{ ...own, on: 'start', of: PLAYER_UNIT, after: CONTENT_UNIT, wants: true },
		{ ...own, on: 'check', label: 'new content is looked for', command: `systemctl is-active ${RENEW_UNIT}.timer` },
		{ ...own, on: 'check', label: 'what is shown can be read', command: `test -e ${CONTENT_NOW}/` },
		...entryClaims('delivery', 'delivery', [
			['delivery.from', 'New content from', from || 'nowhere yet'],
			['delivery.times', 'Looked for', whenInWords(times)],
			['delivery.publicKey', 'Signed', publicKey ? 'must be' : 'need not be']
		])
	];
}

/** Pages with their typefaces and program, and the media that the set brings. */
const PAGES_BYTES = 1e6;
const contentBytes = ({ facts, media }: Context): number =>
	[...new Set((facts.entries ?? []).map(({ location }) => location))]
		.filter((location) => placeKind(location) === 'card')
		.reduce((sum, location) => sum + (media(location)?.sizeBytes ?? 0), PAGES_BYTES);

/** "at 04:30 and 12:00, and after each start" */
export const whenInWords = (times: readonly string[]): string =>
	times.length ? `at ${times.join(', ')}, and after each start` : 'after each start';
