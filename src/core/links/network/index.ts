/** The network: a name, and wired or radio. Thin: the seed that names the endpoint, and one radio profile. */
import { claimsOn } from '../../claims';
import { formatBps } from '../../format';
import type { Link } from '../../link';
import { networkFiles } from './files';
import { assessNetwork } from './findings';
import { rehearseNetwork } from './rehearse';
import { networkSettings, type NetworkSettings } from './settings';

const WAYS = { wired: 'wired', radio: 'radio', none: 'no network' } as const;
/** Time to take an address by cable or radio. Typical. */
const JOIN_MS = { wired: 2600, radio: 5200, none: 0 } as const;

export const network: Link<NetworkSettings> = {
	id: 'network',
	title: 'Network',
	settings: networkSettings,
	claims: (plan) =>
		plan.network.way === 'radio'
			? [{ on: 'package', from: 'network', what: 'radio network', name: 'network-manager', setting: 'network.way' }]
			: [],
	figures(plan, _context, claims) {
		const neededBps = Math.max(0, ...claimsOn(claims, 'path').map((claim) => claim.bitsPerSec));
		return [
			{
				id: 'way',
				label: 'Way',
				text: `${WAYS[plan.network.way]} · ${plan.network.hostName}`,
				value: null,
				sure: 'exact',
				from: 'You set it.',
				telling: true
			},
			{
				id: 'needed',
				label: 'Needed at the busiest',
				text: neededBps ? formatBps(neededBps) : 'nothing',
				value: neededBps,
				sure: 'typical',
				from: 'The largest stream; one plays at a time.'
			}
		];
	},
	assess: assessNetwork,
	files: networkFiles,
	steps: (plan) => [
		{
			id: 'find-it',
			phase: 'first start',
			do:
				plan.network.way === 'none'
					? 'Nothing to find: this endpoint has no network.'
					: `Look for ${plan.network.hostName} in your router\u2019s list of devices.`,
			expect:
				plan.network.way === 'none'
					? 'It plays what is on the card.'
					: 'It appears two to five minutes after the first power-on.',
			...(plan.network.way === 'none' ? {} : { reading: 'its address' })
		}
	],
	bench: (plan) => ({
		network: {
			wired: true,
			radio: plan.network.ssid ? { ssid: plan.network.ssid, pskHex: null } : null,
			joinMs: JOIN_MS[plan.network.way]
		}
	}),
	rehearse: rehearseNetwork
};
