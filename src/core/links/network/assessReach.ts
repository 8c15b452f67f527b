/** Is it on the network at all, under a name and an address of its own? */
import { claimsOn, type Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import { freeAddress, judgeAddress } from './addresses';
import { networkWays, type NetworkWays } from '../../parts/networkOf';
import type { PartOf } from '../../parts/schema';
import { patch } from './patch';
import type { NetworkSettings } from './settings';

/** Whether the board has the socket or the Wi-Fi that the plan connects by. */
export function assessWay(network: NetworkSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const findings: Finding[] = [];
	const board = context.part('board', context.facts.parts.board);
	const ways = networkWays(context);
	const streams = claimsOn(claims, 'path');
	const go = (way: 'wired' | 'radio'): Fix => patch(way === 'wired' ? 'Use Ethernet' : 'Use Wi-Fi', { way });
	if (network.way === 'none' && streams.length)
		findings.push({
			id: 'network.streams-without',
			level: 'stop',
			title: streams.length === 1 ? 'A stream, but no network' : `${streams.length} streams, but no network`,
			why: `${streams
				.map((claim) => claim.what)
				.slice(0, 3)
				.join(', ')} cannot be fetched. Join a network, or play only what is on the card.`,
			setting: 'network.way',
			fixes: [...(ways?.wiredMbps === null ? [] : [go('wired')]), ...(ways?.radio ? [go('radio')] : [])]
		});
	if (network.way === 'radio' && board && !ways?.radio)
		findings.push({
			id: 'network.no-radio',
			level: 'stop',
			title: 'This board has no Wi-Fi',
			why: `${board.name} joins by Ethernet only. Use that, add a Wi-Fi adapter, or choose a board with Wi-Fi.`,
			setting: 'network.way',
			fixes: [...(ways?.wiredMbps === null ? [] : [go('wired')]), ...addAdapter(context, (part) => part.radio)]
		});
	if (network.way === 'wired' && board && ways?.wiredMbps === null)
		findings.push({
			id: 'network.no-socket',
			level: 'stop',
			title: 'This board has no Ethernet socket',
			why: `${board.name} joins by Wi-Fi only. A network adapter on USB brings a socket.`,
			setting: 'network.way',
			fixes: [...(ways.radio ? [go('radio')] : []), ...addAdapter(context, (part) => part.wiredMbps !== null)]
		});
	findings.push(...assessRadio(network, ways?.radio ?? null));
	if (network.way === 'radio' && network.ssid === '')
		findings.push({
			id: 'network.no-ssid',
			level: 'stop',
			title: 'Which Wi-Fi network?',
			why: 'Type its name exactly as your phone shows it: capitals and spaces count.',
			setting: 'network.ssid',
			fixes: []
		});
	if (network.way === 'radio' && network.countryCode === '')
		findings.push({
			id: 'network.no-country',
			level: 'caution',
			title: 'The Wi-Fi does not know its country',
			why: 'Some boards keep their Wi-Fi off until the country is set, and others may use channels that are not allowed where you are.',
			setting: 'network.countryCode',
			fixes: []
		});
	return findings;
}

/** Adapters of the drawer that bring what is missing, the cheapest first. */
const addAdapter = (context: Context, suits: (part: PartOf<'network-adapter'>) => boolean): Fix[] =>
	context.drawer
		.flatMap((part) => (part.kind === 'network-adapter' && suits(part) ? [part] : []))
		.sort((a, b) => (a.price ?? 0) - (b.price ?? 0))
		.slice(0, 1)
		.map((part) => ({ label: `Add ${part.name}`, apply: context.change.addPart(part.id) }));

/** Small boards have one antenna, and some of them one band. */
function assessRadio({ way, radio }: NetworkSettings, own: NetworkWays['radio']): Finding[] {
	if (way !== 'radio' || !own) return [];
	if (radio.bandGhz === 5 && !own.fiveGhz)
		return [
			{
				id: 'network.no-five',
				level: 'stop',
				title: 'Its Wi-Fi knows 2.4\u2009GHz only',
				why: 'It never sees a network in the upper band. Most access points have a second name, or the same one, at 2.4\u2009GHz.',
				setting: 'network.radio',
				fixes: [patch('Use 2.4\u2009GHz', { radio: { ...radio, bandGhz: 2.4, widthMhz: 20 } })]
			}
		];
	const widthMhz = Math.min(radio.widthMhz, own.radioWidthMhz) as typeof radio.widthMhz;
	const streams = Math.min(radio.streams, own.radioStreams) as typeof radio.streams;
	if (widthMhz === radio.widthMhz && streams === radio.streams) return [];
	return [
		{
			id: 'network.radio-less',
			level: 'note',
			title: `Its own Wi-Fi does ${streams} stream${streams > 1 ? 's' : ''} in ${widthMhz}\u2009MHz`,
			why: 'What the access point can do beyond that stays unused; the figures here take the lesser of the two.',
			setting: 'network.radio',
			fixes: [patch('Calculate with that', { radio: { ...radio, widthMhz, streams } })]
		}
	];
}

/** The network that some images open for their set-up: it takes such an image, and a radio. */
export function assessSchool(network: NetworkSettings, context: Context): Finding[] {
	if (network.school !== 'hotspot') return [];
	const board = context.part('board', context.facts.parts.board);
	const withoutRadio = board !== null && !networkWays(context)?.radio;
	if (context.facts.system !== 'plain' && !withoutRadio) return [];
	return [
		{
			id: 'network.no-hotspot',
			level: 'stop',
			title: withoutRadio ? 'No radio, so no network for its set-up' : 'A plain system opens no network of its own',
			why: `You would wait for a network that never comes. ${withoutRadio ? `${board.name} has no radio.` : 'Only ready-made images bring one.'} Files on the card do the same without it; so do a borrowed screen and a keyboard.`,
			setting: 'network.school',
			fixes: [patch('By files on the card', { school: 'files' }), patch('With a borrowed screen', { school: 'screen' })]
		}
	];
}

/** Findings on the host name, twins in the venue included. */
export function assessName(settings: NetworkSettings, context: Context): Finding[] {
	const { hostName } = settings;
	const twin = context.others.find((other) => other.hostName === hostName);
	if (!twin) return [];
	const name = freeName(hostName, context);
	return [
		{
			id: 'network.same-name',
			level: 'stop',
			title: `${twin.endpointName} has this host name too`,
			why: 'Two endpoints of one name hide each other on the network.',
			setting: 'network.hostName',
			fixes: [patch(`Name it ${name}`, { hostName: name })]
		}
	];
}

function freeName(name: string, context: Context): string {
	const taken = new Set(context.others.map((other) => other.hostName));
	for (let n = 2; ; n++) if (!taken.has(`${name}-${n}`)) return `${name}-${n}`;
}

/** Findings on an address chosen by hand or reserved. */
export function assessAddress(settings: NetworkSettings, context: Context): Finding[] {
	const { kind, ip } = settings.address;
	const free = freeAddress(settings, context);
	const fixes: Fix[] = [
		...(free && free !== ip ? [patch(`Use ${free}`, { address: { kind, ip: free } })] : []),
		patch('Take whatever the router gives', { address: { kind: 'free', ip: '' } })
	];
	const say = (id: string, title: string, why: string): Finding[] => [
		{ id: `network.${id}`, level: 'stop', title, why, setting: 'network.address', fixes }
	];
	if (kind !== 'free' && ip === '')
		return say('no-address', 'Which address?', 'Choose one in the venue\u2019s range that nobody has.');
	if (kind === 'fixed' && !context.venue.lan)
		return say(
			'no-lan',
			'The venue\u2019s network is not known',
			'A fixed address needs the range and the router\u2019s own address: enter them under Venue, or let the router give the address.'
		);
	const trouble = judgeAddress(settings, context);
	if (trouble === null) return [];
	if (typeof trouble === 'object')
		return say(
			'same-address',
			`${trouble.twin} has this address too`,
			'Two endpoints at one address are both unreachable, in turn.'
		);
	const lan = context.venue.lan!;
	switch (trouble) {
		case 'outside':
			return say(
				'address-outside',
				`${ip} is not in the venue\u2019s range`,
				`The venue has ${lan.cidr}. Nobody there could reach this address.`
			);
		case 'not-a-host':
			return say(
				'address-no-host',
				`${ip} is not for a single device`,
				'The first and the last address of a range stand for the whole of it.'
			);
		case 'gateway':
			return say(
				'address-gateway',
				`${ip} is the router itself`,
				'Nothing would reach the internet any more, for nobody.'
			);
		case 'in-pool':
			return say(
				'address-in-pool',
				`${ip} lies in the router\u2019s own pool`,
				`The router gives away ${lan.poolFrom} to ${lan.poolTo}, one day this one too. Choose one outside, or reserve it in the router.`
			);
	}
}
