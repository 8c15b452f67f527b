import { fault, ok, type Result } from '../../basics/result';

/** An IPv4 or IPv6 address as a number. Source: RFC 791; RFC 4291. */
export interface Address {
	readonly version: 4 | 6;
	readonly value: bigint;
}
/** A network, by its lowest address and the length of its prefix in bits. Source: RFC 4632, 3.1. */
export interface Network extends Address {
	readonly prefixLength: number;
	/** The address as it was given, inside the network. */
	readonly address: bigint;
}

const BITS = { 4: 32, 6: 128 } as const;

/** Dotted decimal without leading zeros (RFC 6943, 3.1.1), or IPv6 in any of its forms (RFC 4291, 2.2). Fault: `address-bad`. */
export function readAddress(text: string): Result<Address> {
	const value = text.includes(':') ? readV6(text) : readV4(text);
	return value === null
		? fault('address-bad', `${text} is no address. Write it like 192.168.1.20.`)
		: ok({ version: text.includes(':') ? 6 : 4, value });
}

function readV4(text: string): bigint | null {
	const parts = text.split('.');
	if (parts.length !== 4 || parts.some((part) => !/^(?:0|[1-9]\d{0,2})$/.test(part) || Number(part) > 255)) return null;
	return parts.reduce((sum, part) => (sum << 8n) | BigInt(part), 0n);
}

function readV6(text: string): bigint | null {
	const tail = /^(.*:)(\d+\.\d+\.\d+\.\d+)$/.exec(text);
	const v4 = tail ? readV4(tail[2]!) : null;
	if (tail && v4 === null) return null;
	const plain = tail ? `${tail[1]!}${(v4! >> 16n).toString(16)}:${(v4! & 0xffffn).toString(16)}` : text;
	const halves = plain.split('::');
	if (halves.length > 2) return null;
	const [left, right] = halves.map((half) => (half === '' ? [] : half.split(':'))) as [string[], string[]?];
	const groups = [...left, ...(right ?? [])];
	if (groups.some((group) => !/^[0-9a-f]{1,4}$/i.test(group))) return null;
	if (right ? groups.length > 7 : groups.length !== 8) return null;
	const all = [...left, ...Array<string>(8 - groups.length).fill('0'), ...(right ?? [])];
	return all.reduce((sum, group) => (sum << 16n) | BigInt(`0x${group}`), 0n);
}

/** An address as text; IPv6 in its one canonical form (RFC 5952, 4). */
export function formatAddress({ version, value }: Address): string {
	if (version === 4) return [24n, 16n, 8n, 0n].map((shift) => (value >> shift) & 255n).join('.');
	return shorten(Array.from({ length: 8 }, (_, n) => ((value >> BigInt(112 - 16 * n)) & 0xffffn).toString(16)));
}

/** The longest run of two or more zero groups, the first of equals, becomes "::". */
function shorten(groups: readonly string[]): string {
	let best = { from: 0, length: 1 };
	for (let from = 0; from < 8; from++) {
		let length = 0;
		while (groups[from + length] === '0') length++;
		if (length > best.length) best = { from, length };
	}
	if (best.length < 2) return groups.join(':');
	return `${groups.slice(0, best.from).join(':')}::${groups.slice(best.from + best.length).join(':')}`;
}

const mask = (version: 4 | 6, prefixLength: number): bigint =>
	((1n << BigInt(prefixLength)) - 1n) << BigInt(BITS[version] - prefixLength);

/** An address with its prefix length. Source: RFC 4632, 3.1. Fault: `cidr-bad`. */
export function readCidr(text: string): Result<Network> {
	const [head = '', tail, more] = text.split('/');
	const address = readAddress(head);
	const bad = fault('cidr-bad', `${text} is no range of addresses. Write it like 192.168.1.0/24.`);
	if (!address.ok || tail === undefined || more !== undefined || !/^(?:0|[1-9]\d{0,2})$/.test(tail)) return bad;
	const prefixLength = Number(tail);
	const { version, value } = address.value;
	if (prefixLength > BITS[version]) return bad;
	return ok({ version, prefixLength, address: value, value: value & mask(version, prefixLength) });
}

/** The network's highest address; in IPv4 the broadcast address. Source: RFC 919, 7. */
export const lastOf = ({ version, value, prefixLength }: Network): Address => ({
	version,
	value: value | (mask(version, BITS[version]) ^ mask(version, prefixLength))
});

/** Whether an address lies in a network; never across versions. */
export const contains = (network: Network, address: Address): boolean =>
	network.version === address.version &&
	(address.value & mask(network.version, network.prefixLength)) === network.value;

/** 255.255.255.0 and the like. Source: RFC 950. */
export const netmaskOf = ({ version, prefixLength }: Network): Address => ({
	version,
	value: mask(version, prefixLength)
});

/** Addresses that hosts may have: without network and broadcast, except where there are but two or one (RFC 3021). */
export function hostRange(network: Network): { first: Address; last: Address; count: bigint } {
	const { version, value, prefixLength } = network;
	const last = lastOf(network);
	const all = prefixLength >= 31 || version === 6;
	return {
		first: all ? { version, value } : { version, value: value + 1n },
		last: all ? last : { version, value: last.value - 1n },
		count: last.value - value + 1n - (all ? 0n : 2n)
	};
}

const within = (text: string, { version, value }: Network): boolean => {
	const range = readCidr(text);
	return range.ok && contains(range.value, { version, value });
};
/** Source: RFC 1918, 3. */
export const isPrivate = (network: Network): boolean =>
	['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16'].some((text) => within(text, network));
/** Source: RFC 5771, RFC 4291 2.7. */
export const isMulticast = (network: Network): boolean => within('224.0.0.0/4', network) || within('ff00::/8', network);
/** Source: RFC 4291, 2.5.6. */
export const isLinkLocal = (network: Network): boolean =>
	within('fe80::/10', network) || within('169.254.0.0/16', network);
