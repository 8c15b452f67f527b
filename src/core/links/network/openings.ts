import type { Opening } from '../../formats/nftables/nftables';
import type { NetworkSettings } from './settings';

/** What the endpoint answers to: login from afar, being found by name, and its own pages. */
export const openingsOf = (network: NetworkSettings): Opening[] => [
	...(network.user && network.login !== 'none' ? [{ port: 22, protocol: 'tcp' as const }] : []),
	{ port: 5353, protocol: 'udp' },
	...network.pages.map(({ port }) => ({ port, protocol: 'tcp' as const }))
];
