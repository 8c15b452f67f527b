import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import { whenInWords } from './claims';
import { isWeb, type DeliverySettings } from './settings';

/** When new content comes, from where, and what of it is believed. */
export function deliveryFigures(settings: DeliverySettings, _: Context): Figure[] {
	const { from, times, publicKey } = settings;
	return [
		{
			id: 'when',
			setting: 'delivery.times',
			label: 'Looks for new content',
			text: times.length === 1 ? `${times[0]} daily` : times.length ? `${times.length}\u00d7 daily` : 'each start',
			value: times.length,
			sure: 'exact',
			from: `You set it: ${whenInWords(times)}, two minutes later, when the network is there.`,
			telling: true
		},
		{
			id: 'where',
			setting: 'delivery.from',
			label: 'From',
			text: from === '' ? 'nowhere yet' : isWeb(settings) ? from.split('/')[2]! : from,
			value: null,
			sure: 'exact',
			from: 'You set it.'
		},
		{
			id: 'believed',
			setting: 'delivery.publicKey',
			label: 'Believes',
			text: publicKey ? 'your signature alone' : 'whoever can write there',
			value: publicKey ? 1 : 0,
			sure: 'exact',
			from: publicKey
				? 'ECDSA on the curve P-256 with SHA-256, checked by openssl before anything is fetched. Source: FIPS 186-4; openssl-dgst(1).'
				: 'Digests guard against what breaks on the way, not against somebody who puts up a set of their own.'
		}
	];
}
