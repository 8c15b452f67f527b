import {
	contains,
	formatAddress,
	hostRange,
	readAddress,
	readCidr,
	type Address,
	type Network
} from '../../formats/ip/cidr';
import type { Context } from '../../link/context';
import type { NetworkSettings } from './settings';

/** The venue's network, when it is known. */
export interface Lan {
	readonly network: Network;
	readonly pool: { readonly from: Address; readonly to: Address } | null;
	readonly gateway: Address;
}

const address = (text: string): Address | null => {
	const read = readAddress(text);
	return read.ok ? read.value : null;
};

/** The venue's network and gateway as numbers; null when it is not described. */
export function lanOf(context: Context): Lan | null {
	const { lan } = context.venue;
	if (!lan) return null;
	const network = readCidr(lan.cidr);
	const gateway = address(lan.gateway);
	if (!network.ok || !gateway) return null;
	const from = address(lan.poolFrom);
	const to = address(lan.poolTo);
	return { network: network.value, gateway, pool: from && to ? { from, to } : null };
}

const inPool = ({ pool }: Lan, { value }: Address): boolean =>
	pool !== null && value >= pool.from.value && value <= pool.to.value;

type AddressTrouble = 'outside' | 'in-pool' | 'gateway' | 'not-a-host' | { readonly twin: string } | null;

/** What is wrong with an address that was chosen by hand. A reserved one may lie in the pool: the router itself keeps it. */
export function judgeAddress(settings: NetworkSettings, context: Context): AddressTrouble {
	const { kind, ip } = settings.address;
	const chosen = kind === 'free' ? null : address(ip);
	if (!chosen) return null;
	const twin = context.others.find((other) => other.address !== '' && other.address === ip);
	if (twin) return { twin: twin.endpointName };
	const lan = lanOf(context);
	if (!lan) return null;
	if (!contains(lan.network, chosen)) return 'outside';
	const hosts = hostRange(lan.network);
	if (chosen.value < hosts.first.value || chosen.value > hosts.last.value) return 'not-a-host';
	if (chosen.value === lan.gateway.value) return 'gateway';
	return kind === 'fixed' && inPool(lan, chosen) ? 'in-pool' : null;
}

/** The first address of the venue that nobody has and the router does not give away; null when there is none. */
export function freeAddress(settings: NetworkSettings, context: Context): string | null {
	const lan = lanOf(context);
	if (!lan) return null;
	const taken = new Set(context.others.map((other) => other.address));
	const { first, last } = hostRange(lan.network);
	for (let value = first.value, tries = 0; value <= last.value && tries < 4096; value++, tries++) {
		const candidate: Address = { version: lan.network.version, value };
		const text = formatAddress(candidate);
		if (!taken.has(text) && value !== lan.gateway.value && !inPool(lan, candidate)) return text;
	}
	return null;
}

/** Who may knock, as ranges: those of the plan, else the venue's own, else whatever is private. Source: RFC 1918; RFC 4291, 2.5.6 and RFC 4193. */
export function allowedRanges(settings: NetworkSettings, context: Context): string[] {
	const { ranges } = settings.guard;
	if (ranges.length) return ranges;
	const own = context.venue.lan ? [context.venue.lan.cidr] : ['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16'];
	return [...own.map(networkText), 'fe80::/10', 'fd00::/8'];
}

/** "192.168.4.7/24" → "192.168.4.0/24": nft takes a range by its first address. */
function networkText(cidr: string): string {
	const read = readCidr(cidr);
	return read.ok ? `${formatAddress(read.value)}/${read.value.prefixLength}` : cidr;
}

/** What to type into a browser for a page of the endpoint. */
export const pageUrl = (settings: NetworkSettings, page: NetworkSettings['pages'][number]): string => {
	const host =
		settings.address.kind === 'free' || settings.address.ip === '' ? `${settings.hostName}.local` : settings.address.ip;
	const usual = page.tls ? 443 : 80;
	return `${page.tls ? 'https' : 'http'}://${host}${page.port === usual ? '' : `:${page.port}`}/`;
};
