import { z } from 'zod';
import { sentence } from '../basics/result';
import { sha512crypt } from '../formats/crypt/sha512crypt';
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
} from '../formats/ip/cidr';
import { derivePsk } from '../formats/keyfile/psk';
import { shellQuote } from '../formats/shell/quote';
import { expandRecurrence } from '../formats/recurrence';
import { nextElapses, readCalendar } from '../formats/systemd/calendar';
import { escapeUnitPath, escapeUnitText, fillUnitTemplate, unescapeUnitText } from '../formats/systemd/escape';
import { isTimeZone } from '../formats/systemd/zone';
import { computeCardRoom, computeHours, computeRetention, computeSize } from '../links/card/room';
import { computeEnergy } from '../links/power/energy';
import { computeFuse } from '../links/power/inlet';
import { awgAreaMm2, dropAtCurrent, dropAtPower, loopOhm, ohmPerMetre } from '../links/power/lead';
import { calculation, orInvalid, round, type Calculation } from './calculation';
import { pictureCalculations } from './calcPicture';

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

const positive = z.number().positive();
const leadInput = z.object({
	supplyV: positive,
	supplyRatedA: positive.optional(),
	lengthM: z.number().min(0),
	conductorMm2: positive.optional(),
	conductorAwg: z.number().min(-3).max(50).optional(),
	/** All contacts on the way together. */
	contactOhm: z.number().min(0).default(0)
});
/** By name: one JSON object in, one out, in the shapes of the check values. A bad input throws with a sentence. */
export const calculations: Readonly<Record<string, Calculation>> = {
	...pictureCalculations,

	shellQuote: calculation(z.object({ text: z.string() }), ({ text }) => ({ quoted: shellQuote(text) })),

	systemdEscape: calculation(
		z.discriminatedUnion('kind', [
			z.object({ kind: z.literal('path'), path: z.string(), suffix: z.string() }),
			z.object({ kind: z.literal('string'), text: z.string() }),
			z.object({ kind: z.literal('template'), text: z.string(), template: z.string() }),
			z.object({ kind: z.literal('unescape'), escaped: z.string() })
		]),
		(input) => {
			if (input.kind === 'path')
				return orInvalid(escapeUnitPath(input.path), (escaped) => ({ unit: `${escaped}.${input.suffix}` }));
			if (input.kind === 'string') return { escaped: escapeUnitText(input.text) };
			if (input.kind === 'template')
				return orInvalid(fillUnitTemplate(input.template, input.text), (unit) => ({ unit }));
			return orInvalid(unescapeUnitText(input.escaped), (text) => ({ text }));
		}
	),

	storage: calculation(
		z.discriminatedUnion('kind', [
			z.object({ kind: z.literal('size'), bitrateBps: positive, durationS: z.number().min(0) }),
			z.object({
				kind: z.literal('cardHours'),
				capacityGb: positive,
				reservedPercent: z.number().min(0).max(100),
				systemGb: z.number().min(0),
				bitrateBps: positive
			}),
			z.object({
				kind: z.literal('retention'),
				policy: z.enum(['keepDays', 'untilFull']),
				keepDays: z.number().int().positive().optional(),
				usableBytes: z.number().min(0),
				newBytesByDay: z.array(z.number().min(0))
			})
		]),
		(input) => {
			if (input.kind === 'size') {
				const size = computeSize(input.bitrateBps, input.durationS);
				return { bytes: size.bytes, gigabytes: round(size.gigabytes, 6), gibibytes: round(size.gibibytes, 6) };
			}
			if (input.kind === 'retention') return computeRetention(input);
			const { usableBytes } = computeCardRoom(input);
			return {
				usableBytes,
				usableGib: round(usableBytes / 2 ** 30, 4),
				hours: round(computeHours(usableBytes, input.bitrateBps), 4)
			};
		}
	),

	power: calculation(
		z.discriminatedUnion('kind', [
			z.object({ kind: z.literal('awg'), conductorAwg: z.number().min(-3).max(50) }),
			leadInput.extend({ kind: z.literal('drop'), loadA: z.number().min(0) }),
			leadInput.extend({ kind: z.literal('dropConstantPower'), loadW: z.number().min(0) }),
			z.object({
				kind: z.literal('fuse'),
				watts: positive,
				mainsV: positive,
				powerFactor: z.number().gt(0).max(1),
				marginPercent: z.number().min(0),
				fuseRatingsA: z.array(positive).min(1)
			}),
			z.object({
				kind: z.literal('energy'),
				onW: z.number().min(0),
				standbyW: z.number().min(0),
				onHoursPerDay: z.number().min(0).max(24),
				pricePerKwh: z.number().min(0)
			})
		]),
		(input) => {
			if (input.kind === 'awg') {
				const areaMm2 = awgAreaMm2(input.conductorAwg);
				return { areaMm2, ohmPerMetre: ohmPerMetre(areaMm2) };
			}
			if (input.kind === 'fuse') return computeFuse({ ...input, ratingsA: input.fuseRatingsA });
			if (input.kind === 'energy') return computeEnergy(input);
			if (input.conductorMm2 === undefined && input.conductorAwg === undefined)
				throw new TypeError('conductorMm2 or conductorAwg: one of them is needed');
			const areaMm2 = input.conductorMm2 ?? awgAreaMm2(input.conductorAwg!);
			const loop = loopOhm(input.lengthM, areaMm2, input.contactOhm);
			const drop =
				input.kind === 'drop'
					? dropAtCurrent(input.supplyV, loop, input.loadA)
					: dropAtPower(input.supplyV, loop, input.loadW);
			return drop
				? {
						possible: true,
						loopOhm: loop,
						...drop,
						...(input.supplyRatedA === undefined ? {} : { withinSupplyRating: drop.currentA <= input.supplyRatedA })
					}
				: { possible: false, loopOhm: loop };
		}
	),

	psk: calculation(z.object({ ssid: z.string(), passphrase: z.string() }), ({ ssid, passphrase }) =>
		orInvalid(derivePsk(ssid, passphrase), (pskHex) => ({ pskHex }))
	),

	sha512crypt: calculation(
		z.object({ password: z.string(), salt: z.string(), rounds: z.number().int().nullable().default(null) }),
		({ password, salt, rounds }) => orInvalid(sha512crypt(password, salt, rounds), (crypt) => ({ crypt }))
	),

	cidr: calculation(
		z.union([z.object({ cidr: z.string() }), z.object({ address: z.string(), inNetwork: z.string() })]),
		(input) => {
			if ('cidr' in input) return orInvalid(readCidr(input.cidr), describeCidr);
			const address = readAddress(input.address);
			const network = readCidr(input.inNetwork);
			if (!address.ok || !network.ok) return { valid: false };
			return { contained: contains(network.value, address.value) };
		}
	),

	onCalendar: calculation(
		z.object({
			/** The expression may name its own; UTC when neither does. */
			zone: z.string().default('UTC'),
			onCalendar: z.string(),
			afterUtc: z.string(),
			count: z.number().int().min(1).max(1000)
		}),
		(input) => {
			const after = Date.parse(input.afterUtc);
			if (Number.isNaN(after)) throw new TypeError('afterUtc: not a time');
			return orInvalid(readCalendar(input.onCalendar), (rule) => ({
				elapsesUtc: nextElapses(rule, input.zone, after, input.count).map((ms) =>
					new Date(ms).toISOString().replace('.000Z', 'Z')
				)
			}));
		}
	),

	rrule: calculation(
		z.object({
			zone: z.string().refine(isTimeZone, 'no time zone of the tz database'),
			dtstartLocal: z.string().max(40),
			rrule: z.string().max(500),
			exdatesLocal: z.array(z.string().max(40)).max(1000).default([]),
			windowStartUtc: z.string(),
			windowEndUtc: z.string()
		}),
		({ windowStartUtc, windowEndUtc, ...rule }) => {
			const [start, end] = [windowStartUtc, windowEndUtc].map((text) => Date.parse(text)) as [number, number];
			if (Number.isNaN(start) || Number.isNaN(end)) throw new TypeError('windowStartUtc, windowEndUtc: not a time');
			const found = expandRecurrence({ ...rule, windowStartUtcMs: start, windowEndUtcMs: end });
			if (!found.ok) throw new TypeError(sentence(found.faults));
			return { occurrencesUtc: found.value.map((ms) => new Date(ms).toISOString().replace('.000Z', 'Z')) };
		}
	)
};
