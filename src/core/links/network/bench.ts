import { z } from 'zod';
import type { Bench } from '../../engines/machine';
import { formatAddress, hostRange } from '../../formats/ip/cidr';
import type { Context } from '../../link/context';
import { lanOf } from './addresses';
import { JOIN_MS } from './joining';
import type { NetworkSettings } from './settings';

const visitor = z.object({
	from: z.string(),
	/** Not over the network: a screen and a keyboard are joined to it, and the port counts for nothing. */
	at: z.enum(['screen']).optional(),
	port: z.number().int(),
	with: z.enum(['nothing', 'key', 'password']),
	/** The public keys of whoever comes by key; none: any. */
	keys: z.array(z.string()).default([]),
	/** Somebody who shall get in, and knows the password. */
	welcome: z.boolean().default(false)
});
/** One who tries to reach a port of the endpoint, and may or may not. */
export type Visitor = z.infer<typeof visitor>;

const network = z.object({
	/** A cable leads to it. */
	wired: z.boolean(),
	/** `assumed`: nobody has seen that name in the air yet, it is the plan's own. */
	radio: z.object({ ssid: z.string(), pskHex: z.string().nullable(), assumed: z.boolean().default(false) }).nullable(),
	joinMs: z.number().min(0),
	/** Somebody near, by both kinds of address, who looks for it by name. */
	near: z.array(z.string()).default(['192.168.1.50', 'fe80::5']),
	/** Who knocks once it is there, from where, and with what. */
	visitors: z.array(visitor).default([])
});

declare module '../../engines/machine/bench' {
	interface Bench {
		network: z.infer<typeof network>;
	}
}
/** What a rehearsal knows of the network outside: cable, access point, who knocks. */
export const networkBenchShape = {
	network: network.default({ wired: true, radio: null, joinMs: 0, near: [], visitors: [] })
};

/** The bench's network, from the venue and the plan's own connection. */
export const networkBench = (settings: NetworkSettings, context: Context): Partial<Bench> => ({
	network: {
		wired: settings.way === 'wired',
		radio: settings.way === 'radio' && settings.ssid ? { ssid: settings.ssid, pskHex: null, assumed: true } : null,
		joinMs: JOIN_MS[settings.way],
		near: nearOnes(context),
		visitors: visitorsOf(settings, context)
	}
});

function nearOnes(context: Context): string[] {
	const lan = lanOf(context);
	return [lan ? formatAddress(hostRange(lan.network).last) : '192.168.1.50', 'fe80::5'];
}

/** Somebody near with what the plan lets in, and a stranger from afar who guesses (RFC 5737, an address that nobody has). */
function visitorsOf(settings: NetworkSettings, context: Context): Visitor[] {
	if (settings.way === 'none')
		return settings.user
			? [{ from: settings.user, at: 'screen', port: 0, with: 'password', keys: [], welcome: true }]
			: [];
	if (!settings.user || settings.login === 'none') return [];
	const [near, nearBySix] = nearOnes(context);
	const own = settings.login === 'password' ? 'password' : 'key';
	return [
		{ from: near!, port: 22, with: own, keys: settings.sshKeys, welcome: true },
		{ from: nearBySix!, port: 22, with: own, keys: settings.sshKeys, welcome: true },
		{ from: '203.0.113.9', port: 22, with: 'password', keys: [], welcome: false }
	];
}
