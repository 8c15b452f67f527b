import { claimsOn, type Claim } from '../../claims';
import { ASK_PATH, lines, rootPath, textFile } from '../../files/cardFile';
import { contains, readAddress, readCidr } from '../../formats/ip/cidr';
import type { CardFile } from '../../link/file';
import type { Finding } from '../../link/finding';
import askScript from './ask.sh?raw';
import { patch } from './patch';
import type { NetworkSettings } from './settings';

/** There where the plan lets it ask who is near; `ask.sh` looks for it. */
const NEAR_PATH = '/opt/yphos/ask-near';

/** What fetches from the web does so by one script, which looks at whom it asks. */
export const askFiles = ({ fetchesNear }: NetworkSettings, claims: readonly Claim[]): CardFile[] =>
	claimsOn(claims, 'fetch').length === 0
		? []
		: [
				textFile(
					rootPath(ASK_PATH),
					'Fetches from the web, from nobody near unless that is allowed, and no more than is wanted.',
					lines('network.fetchesNear', ...askScript.trimEnd().split('\n')),
					'0755'
				),
				...(fetchesNear
					? [
							textFile(
								rootPath(NEAR_PATH),
								'It may fetch from its own network, too.',
								lines('network.fetchesNear', 'yes')
							)
						]
					: [])
			];

/** Ranges that are nobody's but a home's own. Source: RFC 1918, RFC 1122, RFC 3927, RFC 6598, RFC 4193, RFC 4291. */
const NEAR_RANGES = ['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', '127.0.0.0/8', '169.254.0.0/16', '100.64.0.0/10'];

/** Whether an address leads to somebody near, as far as it can be told without asking. Source: RFC 6762, 3 (.local). */
export function isNear(address: string): boolean {
	let host: string;
	try {
		host = new URL(address).hostname;
	} catch {
		return false;
	}
	if (host.startsWith('[')) return !/^\[[23][0-9a-f]{3}:/.test(host);
	const number = readAddress(host);
	if (!number.ok) return !host.includes('.') || /\.(?:local|lan|home|internal|home\.arpa|localhost)$/.test(host);
	return NEAR_RANGES.some((range) => {
		const known = readCidr(range);
		return known.ok && contains(known.value, number.value);
	});
}

/** Whether what is to be fetched may be asked for. */
export function assessFetching({ fetchesNear }: NetworkSettings, claims: readonly Claim[]): Finding[] {
	const fetched = claimsOn(claims, 'fetch');
	const near = fetched.filter(({ address }) => isNear(address));
	if (near.length > 0 && !fetchesNear)
		return [
			{
				id: 'network.near-closed',
				level: 'stop',
				title: `${near[0]!.what} would not be fetched: it lies in your own network`,
				why: `${near.map(({ address }) => address).join(', ')} leads to somebody near, and the endpoint asks nobody near unless you let it: a feed or a server from outside could else send it to your router or file server.`,
				setting: 'network.fetchesNear',
				fixes: [patch('Let it fetch from its own network', { fetchesNear: true })]
			}
		];
	return fetched.length > 0 && near.length === 0 && fetchesNear
		? [
				{
					id: 'network.near-open',
					level: 'note',
					title: 'It may fetch from its own network, and nothing that it fetches lies there',
					why: 'A server or a feed outside can then lead it to your router or file server. A name that only your own name server knows may be a reason for it.',
					setting: 'network.fetchesNear',
					fixes: [patch('Let it ask the internet alone', { fetchesNear: false })]
				}
			]
		: [];
}
