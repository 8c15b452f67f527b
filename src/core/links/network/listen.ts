import type { Claim } from '../../claims';
import type { NetworkSettings } from './settings';

/** What the endpoint answers to: login from afar, being found by name, and its own pages. */
export const listenClaims = (network: NetworkSettings): Claim[] =>
	[
		...(network.user && network.login !== 'none'
			? [{ what: 'login', port: 22, protocol: 'tcp' as const, setting: 'network.login' as const }]
			: []),
		{ what: 'its name', port: 5353, protocol: 'udp' as const, setting: 'network.hostName' as const },
		...network.pages.map(({ what, port }, n) => ({
			what,
			port,
			protocol: 'tcp' as const,
			setting: `network.pages.${n}` as const
		}))
	].map((claim) => ({ on: 'listen', from: 'network', ...claim }));
