import { z } from 'zod';
import { calculation, orInvalid, type Calculations } from '../../basics/calculation';
import {
	contains,
	formatAddress,
	hostRange,
	isLinkLocal,
	isMulticast,
	isPrivate,
	lastOf,
	netmaskOf,
	readAddress,
	readCidr,
	type Network
} from './cidr';

function describeCidr(network: Network): object {
	const { version, prefixLength } = network;
	const text = (value: bigint): string => formatAddress({ version, value });
	const last = lastOf(network).value;
	if (version === 6)
		return {
			version,
			address: text(network.address),
			network: text(network.value),
			lastAddress: text(last),
			prefixLength,
			multicast: isMulticast(network),
			linkLocal: isLinkLocal(network)
		};
	const hosts = hostRange(network);
	return {
		version,
		network: text(network.value),
		netmask: formatAddress(netmaskOf(network)),
		broadcast: text(last),
		firstHost: formatAddress(hosts.first),
		lastHost: formatAddress(hosts.last),
		usableHosts: Number(hosts.count),
		private: isPrivate(network),
		multicast: isMulticast(network)
	};
}

export default {
	cidr: calculation(
		z.union([z.object({ cidr: z.string() }), z.object({ address: z.string(), inNetwork: z.string() })]),
		(input) => {
			if ('cidr' in input) return orInvalid(readCidr(input.cidr), describeCidr);
			const address = readAddress(input.address);
			const network = readCidr(input.inNetwork);
			if (!address.ok || !network.ok) return { valid: false };
			return { contained: contains(network.value, address.value) };
		}
	)
} satisfies Calculations;
