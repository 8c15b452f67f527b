import { lookup } from 'node:dns/promises';
import { request as plain, type IncomingMessage } from 'node:http';
import { request as secure } from 'node:https';
import { BlockList, isIP, isIPv4, isIPv6 } from 'node:net';
import { networkInterfaces } from 'node:os';

/** Addresses that nobody outside is meant to reach. Source: IANA special-purpose address registries (RFC 6890 and after). */
const PRIVATE = new BlockList();
for (const [net, bits] of [
	['0.0.0.0', 8],
	['10.0.0.0', 8],
	['100.64.0.0', 10],
	['169.254.0.0', 16],
	['172.16.0.0', 12],
	['192.0.0.0', 24],
	['192.0.2.0', 24],
	['192.88.99.0', 24],
	['192.168.0.0', 16],
	['198.18.0.0', 15],
	['198.51.100.0', 24],
	['203.0.113.0', 24],
	['224.0.0.0', 3]
] as const)
	PRIVATE.addSubnet(net, bits, 'ipv4');
/** This machine: no permission reaches it. */
const SELF = new BlockList();
SELF.addSubnet('127.0.0.0', 8, 'ipv4');
SELF.addAddress('0.0.0.0', 'ipv4');
SELF.addAddress('::1', 'ipv6');
SELF.addAddress('::', 'ipv6');
/** Next door on the same wire, and what answers there in place of a host: no permission reaches it. Source: RFC 3927, 2.7; RFC 4291, 2.5.6. */
const LINK_LOCAL = new BlockList();
LINK_LOCAL.addSubnet('169.254.0.0', 16, 'ipv4');
LINK_LOCAL.addSubnet('fe80::', 10, 'ipv6');

/** This machine by any of its numbers, those of today. */
function isSelf(address: string): boolean {
	const family = isIPv4(address) ? 'ipv4' : 'ipv6';
	return (
		SELF.check(address, family) ||
		Object.values(networkInterfaces()).some((all) => all?.some((own) => own.address.split('%')[0] === address))
	);
}

/** Of IPv6 only what is given out for the world. */
const WORLD6 = new BlockList();
WORLD6.addSubnet('2000::', 3, 'ipv6');
/** Within it: documentation, benchmarks, and ways in which an IPv4 address is wrapped. */
const NOT_WORLD6 = new BlockList();
for (const [net, bits] of [
	['2001::', 23],
	['2001:db8::', 32],
	['2002::', 16],
	['3fff::', 20]
] as const)
	NOT_WORLD6.addSubnet(net, bits, 'ipv6');

/** "192.168.40.0/24" as a range; null: it is none. */
function rangeOf(text: string | null): BlockList | null {
	const m = /^(\d{1,3}(?:\.\d{1,3}){3})\/(\d{1,2})$/.exec(text ?? '');
	if (!m || !isIPv4(m[1]!) || Number(m[2]) < 8 || Number(m[2]) > 32) return null;
	const range = new BlockList();
	range.addSubnet(m[1]!, Number(m[2]), 'ipv4');
	return range;
}

/** The IPv4 address within ::ffff:a.b.c.d, however it is spelt. */
function unwrapped(address: string): string {
	if (!isIPv6(address)) return address;
	const url = new URL(`http://[${address}]`).hostname.slice(1, -1);
	const hex = /^::ffff:([0-9a-f]{1,4}):([0-9a-f]{1,4})$/.exec(url);
	if (!hex) return address;
	const [high, low] = [parseInt(hex[1]!, 16), parseInt(hex[2]!, 16)];
	return [high >> 8, high & 255, low >> 8, low & 255].join('.');
}

/** Whether we may fetch from that address for somebody: the world's, and of private ones those within the range that is allowed. */
export function mayReach(address: string, allowed: string | null): boolean {
	const plainAddress = unwrapped(address);
	if (isIP(plainAddress) === 0 || isSelf(plainAddress)) return false;
	if (LINK_LOCAL.check(plainAddress, isIPv4(plainAddress) ? 'ipv4' : 'ipv6')) return false;
	if (isIPv4(plainAddress)) {
		return !PRIVATE.check(plainAddress, 'ipv4') || (rangeOf(allowed)?.check(plainAddress, 'ipv4') ?? false);
	}
	return isIPv6(plainAddress) && WORLD6.check(plainAddress, 'ipv6') && !NOT_WORLD6.check(plainAddress, 'ipv6');
}

/** Why something was not fetched, in words for the person. */
export class Refused extends Error {}

/** An address as we fetch it: http or https, no name and password within it. */
export function fetchable(text: string): URL {
	const url = URL.canParse(text) ? new URL(text) : null;
	if (!url || (url.protocol !== 'http:' && url.protocol !== 'https:'))
		throw new Refused('Only addresses that begin with http:// or https:// can be tried here.');
	if (url.username !== '' || url.password !== '')
		throw new Refused('The address holds a name and password; Yphos does not send those on.');
	return url;
}

const CONNECT_MS = 8000;

/** One request, to an address that was looked at before: what the name leads to later does not matter. */
export async function fetchOnce(
	url: URL,
	headers: Record<string, string>,
	allowed: string | null,
	signal: AbortSignal
): Promise<IncomingMessage> {
	const host = url.hostname.replace(/^\[|\]$/g, '');
	const found = isIP(host)
		? [{ address: host, family: isIPv6(host) ? 6 : 4 }]
		: await lookup(host, { all: true }).catch(() => {
				throw new Refused(`The name ${host} leads nowhere: mistyped, or there is no network here.`);
			});
	const usable = found.find(({ address }) => mayReach(address, allowed));
	if (!usable)
		throw new Refused(
			`${host} is ${found.some(({ address }) => isSelf(unwrapped(address))) ? 'this computer itself, which is never asked' : 'in a private network. Allow the venue\u2019s own range if it is yours'}.`
		);
	return new Promise((resolve, reject) => {
		const asked = (url.protocol === 'https:' ? secure : plain)(
			url,
			{
				headers,
				signal,
				agent: false,
				timeout: CONNECT_MS,
				lookup: (_, options, done) =>
					options.all
						? (done as (e: null, all: object[]) => void)(null, [usable])
						: (done as (e: null, address: string, family: number) => void)(null, usable.address, usable.family)
			},
			resolve
		);
		asked.on('timeout', () => asked.destroy(new Refused(`${host} did not answer within ${CONNECT_MS / 1000} s.`)));
		asked.on('error', (error) =>
			reject(error instanceof Refused ? error : new Refused(`${host}: ${error.message || 'the connection failed'}.`))
		);
		asked.end();
	});
}
