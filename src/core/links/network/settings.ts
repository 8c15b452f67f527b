import { z } from 'zod';
import { addressText, cidrText, readable } from '../../formats/ip/text';
import { readPublicKey } from '../../formats/ssh/publicKey';
import { lineText, timeOfDay } from '../../basics/text';

const publicKeyText = readable(readPublicKey);

/** The schema of the network's slice of a plan. */
export const networkSettings = z.object({
	/** One label of a host name. Source: RFC 1123, 2.1. */
	hostName: z
		.string()
		.regex(
			/^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/,
			'Small letters, digits and hyphens, at most 63; no hyphen at either end. Example: lounge.'
		),
	way: z.enum(['wired', 'radio', 'none']),
	/** The Wi-Fi network's name; its password is asked for when the card set is written and never kept. */
	ssid: lineText(32).refine(
		(text) => new TextEncoder().encode(text).length <= 32,
		'A network name has at most 32 bytes; letters outside English take two or more.'
	),
	/** The radio's rules follow the country: two letters. Source: ISO 3166-1 alpha-2. */
	countryCode: z.string().regex(/^([A-Z]{2})?$/, 'Two capital letters, such as GB or NO.'),
	/** How the first start is set up: by files on the card, by a network that the endpoint opens itself, or with a borrowed screen. */
	school: z.enum(['files', 'hotspot', 'screen']),
	/** Who looks after it. Source: useradd(8), CAVEATS. */
	user: z
		.string()
		.regex(
			/^([a-z_][a-z0-9_-]{0,30})?$/,
			'Small letters, digits, hyphens and underscores, a letter first. Example: keeper.'
		),
	login: z.enum(['key', 'password', 'both', 'none']),
	sshKeys: z.array(publicKeyText).max(20),
	/** Source: locale(7). C.UTF-8 is on every system; any other is made when its package is installed. */
	locale: z
		.string()
		.regex(/^(?:C|[a-z]{2,3}_[A-Z]{2})\.UTF-8$/, 'C.UTF-8, or language, country and UTF-8 as in en_GB.UTF-8.'),
	/** Source: xkeyboard-config(7), the layout's short name. */
	keyboard: z.string().regex(/^[a-z]{2,8}$/, 'The short name of a layout, such as gb, de or us.'),
	/** As the router gives it; always the same from the router; or fixed on the endpoint itself. */
	address: z.object({ kind: z.enum(['free', 'reserved', 'fixed']), ip: z.union([z.literal(''), addressText]) }),
	radio: z.object({
		bandGhz: z.union([z.literal(2.4), z.literal(5)]),
		widthMhz: z.union([z.literal(20), z.literal(40), z.literal(80)]),
		streams: z.union([z.literal(1), z.literal(2)]),
		/** As a phone shows it where the endpoint will stand. */
		signalDbm: z.number().min(-100).max(-10),
		/** Part of the air that others take. */
		othersPercent: z.number().min(0).max(95)
	}),
	/** Who may knock: everybody, or these ranges only; empty: the venue's own. */
	guard: z.object({
		limited: z.boolean(),
		ranges: z.array(cidrText).max(20),
		/** Reachable from the internet, by a rule in the router. */
		exposed: z.boolean()
	}),
	/** Security updates by themselves, every night at this time of the venue; or by hand. */
	updates: z.object({ nightly: z.boolean(), at: timeOfDay }),
	/** Whether it may fetch from who is near: private and loopback ranges. Whatever else it fetches may lead there. */
	fetchesNear: z.boolean(),
	/** Pages that the endpoint itself shows to a browser. */
	pages: z
		.array(
			z.object({
				what: lineText(40).min(1, 'Say what the page is for.'),
				port: z.number().int().min(1).max(65_535),
				tls: z.boolean(),
				password: z.boolean()
			})
		)
		.max(10)
});
/** The network's slice of a plan. */
export type NetworkSettings = z.infer<typeof networkSettings>;

/** What a new plan begins with, under this host name. */
export const calmNetwork = (hostName: string): NetworkSettings => ({
	hostName,
	way: 'wired',
	ssid: '',
	countryCode: '',
	school: 'files',
	user: 'keeper',
	login: 'password',
	sshKeys: [],
	locale: 'C.UTF-8',
	keyboard: 'gb',
	address: { kind: 'free', ip: '' },
	radio: { bandGhz: 2.4, widthMhz: 20, streams: 1, signalDbm: -60, othersPercent: 40 },
	guard: { limited: true, ranges: [], exposed: false },
	updates: { nightly: false, at: '03:30' },
	fetchesNear: false,
	pages: []
});
