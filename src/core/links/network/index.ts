/**
 * The network: the endpoint's name and address, how its first start is set up, who may log in and who may knock,
 * and whether the way to it carries what it needs. IEEE 802.11 and 802.3 for rates, RFC 4632 for ranges.
 */
import type { Claim } from '../../claims';
import { entryClaims } from '../../basics/entries';
import { formatBps, withUnit } from '../../basics/format';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import type { Link } from '../../link';
import type { SettingPath } from '../../link/setting';
import { changing } from '../../changes';
import { shellQuote } from '../../formats/shell/quote';
import { readPublicKey } from '../../formats/ssh/publicKey';
import { listenClaims } from './listen';
import { computeNeed, latencyMs, pathOf } from './need';
import { NETWORK_FAULTS } from './faults';
import { calmNetwork, networkSettings, type NetworkSettings } from './settings';
import { updateClaims } from './updates';
import { JOIN_MS } from './joining';
import { reachTrack } from './track';
import './offers';

const WAYS = { wired: 'Ethernet', radio: 'Wi-Fi', none: 'no network' } as const;

/** What the settings sheet says of it. */
function entries(network: NetworkSettings, { venue }: Context): Claim[] {
	const { kind, ip } = network.address;
	return entryClaims('network', 'name and network', [
		['network.hostName', 'Name of the device, host name', network.hostName],
		['network', 'Time zone', venue.timeZone],
		['network.locale', 'Language', network.locale],
		['network.keyboard', 'Keyboard', network.keyboard],
		['network.way', 'Network', { wired: 'Ethernet', radio: 'Wi-Fi', none: 'none' }[network.way]],
		...(network.way === 'radio'
			? ([
					['network.ssid', 'Wi-Fi network', network.ssid],
					['network.countryCode', 'Wi-Fi country', network.countryCode || 'not set']
				] as const)
			: []),
		...(kind === 'fixed' && venue.lan
			? ([['network.address', 'Address, range, router', `${ip}, ${venue.lan.cidr}, ${venue.lan.gateway}`]] as const)
			: []),
		[
			network.way === 'none' ? 'network.way' : 'network.user',
			'User',
			network.user || 'as the image brings; give it another password'
		]
	]);
}

function claims(settings: NetworkSettings, context: Context): Claim[] {
	return [
		...entries(settings, context),
		...onCard(settings),
		...asSetUp(settings, context),
		...(settings.way === 'none' ? [] : listenClaims(settings)),
		...updateClaims(settings)
	];
}

/** That somebody set it up: the seed, or setup.sh. */
function asSetUp(network: NetworkSettings, { venue }: Context): Claim[] {
	const check = (setting: SettingPath, label: string, command: string): Claim => ({
		on: 'check',
		from: 'network',
		what: 'set up',
		label,
		command,
		setting
	});
	const { user, way, login } = network;
	const key = network.sshKeys.map(readPublicKey).find(({ ok }) => ok);
	return [
		check(
			'network',
			'its clock shows the planned time zone',
			`test "$(timedatectl show --property=Timezone --value)" = ${venue.timeZone}`
		),
		...(user ? [check('network.user', 'its user is there', `id ${user}`)] : []),
		...(user && key?.ok && way !== 'none' && (login === 'key' || login === 'both')
			? [
					check(
						'network.sshKeys',
						'the key of its user is there',
						`grep -qxF ${shellQuote(key.value.text)} /home/${user}/.ssh/authorized_keys`
					)
				]
			: [])
	];
}

/** What its files ask of the system. */
function onCard(network: NetworkSettings): Claim[] {
	const pack = (name: string, what: string, setting: SettingPath): Claim => ({
		on: 'package',
		from: 'network',
		what,
		name,
		setting
	});
	const language = network.locale === 'C.UTF-8' ? [] : [pack('locales', 'language', 'network.locale')];
	if (network.way === 'none') return language;
	const managed = network.way === 'radio' || network.address.kind === 'fixed';
	return [
		...language,
		...(managed ? [pack('network-manager', 'network profile', 'network.way')] : []),
		pack('avahi-daemon', 'its name', 'network.hostName'),
		...(network.user && network.login !== 'none'
			? [pack('openssh-server', 'sign-in over the network', 'network.login')]
			: []),
		...(network.guard.limited
			? ([
					pack('nftables', 'who may knock', 'network.guard'),
					{ on: 'unit', from: 'network', what: 'who may knock', name: 'nftables.service', setting: 'network.guard' },
					{
						on: 'check',
						from: 'network',
						what: 'who may knock',
						label: 'the firewall lets in only the allowed addresses',
						command: 'nft list table inet yphos',
						setting: 'network.guard'
					}
				] as const)
			: []),
		{
			on: 'check',
			from: 'network',
			what: 'its name',
			label: 'it is called as planned',
			command: `test "$(hostname)" = ${network.hostName}`,
			setting: 'network.hostName'
		}
	];
}

function figures(network: NetworkSettings, context: Context, claims: readonly Claim[]): Figure[] {
	const path = pathOf(network, context);
	const need = computeNeed(claims);
	const where = network.address.kind === 'free' || network.address.ip === '' ? network.hostName : network.address.ip;
	return [
		{
			id: 'way',
			setting: 'network.way',
			label: 'Connection',
			text: `${WAYS[network.way]} · ${where}`,
			value: null,
			sure: 'exact',
			from: 'You set it.',
			telling: true
		},
		{
			id: 'needed',
			setting: 'sources.items',
			label: 'Needed at the busiest',
			text: need.busiestBps ? formatBps(need.busiestBps) : 'nothing',
			value: need.busiestBps,
			sure: 'typical',
			from: `The largest that plays, and all beside it: ${need.who}.`
		},
		...(path
			? ([
					{
						id: 'rate',
						setting: 'network.way' as const,
						label: network.way === 'radio' ? 'Rate in the air' : 'Rate on the cable',
						text: formatBps(path.rateBps),
						value: path.rateBps,
						sure: 'typical',
						from:
							network.way === 'radio'
								? `Band, width, streams and ${network.radio.signalDbm}\u2009dBm; IEEE 802.11, tables 19-27 and 21-30.`
								: 'The board\u2019s socket, or what the probe report says.'
					},
					{
						id: 'real',
						setting: 'network.way' as const,
						label: 'Of that for programs',
						text: formatBps(path.realBps),
						value: path.realBps,
						sure: 'typical',
						from:
							network.way === 'radio'
								? `A little over half of the rate, of the ${100 - network.radio.othersPercent}\u2009% of the air that others leave.`
								: 'Without headers: 1460 of 1538 bytes.'
					}
				] as const)
			: []),
		...(path ? [latency(network)] : [])
	];
}

function latency(settings: NetworkSettings): Figure {
	const { usual, worst, lossPercent } = latencyMs(settings);
	return {
		id: 'latency',
		setting: 'network.way',
		label: 'Answer after',
		text: `${withUnit(usual, 1, 'ms')}, ${withUnit(worst, 0, 'ms')} at worst`,
		value: worst,
		sure: 'typical',
		from: `One hop; ${lossPercent.toFixed(1)}\u2009% of the packets are lost or come too late for a moving picture.`
	};
}

/** The link that joins the endpoint to the venue's network. */
export const network: Link<'network', NetworkSettings> = {
	id: 'network',
	title: 'Network',
	settings: networkSettings,
	version: 2,
	// What was planned before could ask anybody.
	migrations: { 1: (saved) => ({ fetchesNear: true, ...saved }) },
	empty: ({ hostName }) => calmNetwork(hostName),
	key: 'n',
	place: { column: 'world', row: 1, wires: [{ to: 'sources', carries: 'data' }] },
	publish: ({ way, hostName, school, address, user, login, radio }) => ({
		bandGhz: way === 'radio' ? radio.bandGhz : null,
		joinMs: JOIN_MS[way],
		keeper: way === 'none' || login !== 'none' ? user : '',
		way,
		hostName,
		school,
		address: address.kind === 'free' ? '' : address.ip
	}),
	changes: {
		useWired: () => changing<NetworkSettings>('network')({ way: 'wired' }),
		useUpperBand: () =>
			changing<NetworkSettings>('network')((all) => ({ ...all, radio: { ...all.radio, bandGhz: 5 } })),
		setUpBy: (school) => changing<NetworkSettings>('network')({ school })
	},
	faults: NETWORK_FAULTS,
	tracks: [reachTrack],
	claims,
	figures
};
