import { claimsOn, type Claim } from '../../claims';
import { formatBps, withUnit } from '../../format';
import { hostRange, isPrivate, readCidr } from '../../formats/ip/cidr';
import { readPublicKey } from '../../formats/ssh/publicKey';
import type { Context, Finding, Fix } from '../../link';
import type { Plan } from '../../plan/plan';
import { freeAddress, judgeAddress } from './addresses';
import { computeNeed, latencyMs, pathOf } from './need';

const patch = (label: string, change: Partial<Plan['network']>): Fix => ({
	label,
	apply: (p) => ({ ...p, network: { ...p.network, ...change } })
});

export const assessNetwork = (plan: Plan, context: Context, claims: readonly Claim[]): Finding[] => [
	...assessWay(plan, context, claims),
	...assessName(plan, context),
	...(plan.network.way === 'none'
		? []
		: [
				...assessAddress(plan, context),
				...assessLogin(plan),
				...assessGuard(plan),
				...assessUpdates(plan),
				...assessCapacity(plan, context, claims),
				...assessLatency(plan, context)
			])
];

function assessWay(plan: Plan, context: Context, claims: readonly Claim[]): Finding[] {
	const { network } = plan;
	const findings: Finding[] = [];
	const board = context.part('board', plan.parts.board);
	const streams = claimsOn(claims, 'path');
	const go = (way: 'wired' | 'radio'): Fix =>
		patch(way === 'wired' ? 'Use the cable' : 'Use the radio network', { way });
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
			fixes: [go('wired'), ...(board?.radio ? [go('radio')] : [])]
		});
	if (network.way === 'radio' && board && !board.radio)
		findings.push({
			id: 'network.no-radio',
			level: 'stop',
			title: 'This board has no radio',
			why: `${board.name} joins by cable only. Use the cable, or choose a board with radio.`,
			setting: 'network.way',
			fixes: [go('wired')]
		});
	if (network.way === 'wired' && board && !board.wired)
		findings.push({
			id: 'network.no-socket',
			level: 'stop',
			title: 'This board has no network socket',
			why: `${board.name} joins by radio only.`,
			setting: 'network.way',
			fixes: board.radio ? [go('radio')] : []
		});
	if (network.way === 'radio' && network.ssid === '')
		findings.push({
			id: 'network.no-ssid',
			level: 'stop',
			title: 'Which radio network?',
			why: 'Type its name exactly as your phone shows it: capitals and spaces count.',
			setting: 'network.ssid',
			fixes: []
		});
	if (network.way === 'radio' && network.countryCode === '')
		findings.push({
			id: 'network.no-country',
			level: 'caution',
			title: 'The radio does not know its country',
			why: 'Some boards keep their radio off until the country is set, and others may use channels that are not allowed where you are.',
			setting: 'network.countryCode',
			fixes: []
		});
	return findings;
}

function assessName(plan: Plan, context: Context): Finding[] {
	const { hostName } = plan.network;
	const twin = context.others.find((other) => other.hostName === hostName);
	if (!twin) return [];
	const name = freeName(hostName, context);
	return [
		{
			id: 'network.same-name',
			level: 'stop',
			title: `${twin.name} has this host name too`,
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

function assessAddress(plan: Plan, context: Context): Finding[] {
	const { kind, ip } = plan.network.address;
	const free = freeAddress(plan, context);
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
	const trouble = judgeAddress(plan, context);
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

function assessLogin({ network }: Plan): Finding[] {
	if (network.school !== 'files') return [];
	if (network.user === '')
		return [
			{
				id: 'network.no-user',
				level: 'caution',
				title: 'Nobody can look after it from afar',
				why: 'No user is made. What goes wrong later can only be mended with a screen and a keyboard, or by writing the card anew.',
				setting: 'network.user',
				fixes: [patch('Make a user keeper', { user: 'keeper' })]
			}
		];
	const usesKey = network.login === 'key' || network.login === 'both';
	const good = network.sshKeys.filter((line) => readPublicKey(line).ok);
	return [
		...(DEFAULT_USERS.includes(network.user)
			? [
					{
						id: 'network.default-user',
						level: 'caution' as const,
						title: `${network.user} is the name that is tried first`,
						why: 'Programs that try passwords begin with the names that images bring. Another name costs them the first step.',
						setting: 'network.user' as const,
						fixes: [patch('Name it keeper', { user: 'keeper' })]
					}
				]
			: []),
		...(usesKey && good.length === 0
			? [
					{
						id: 'network.no-key',
						level: 'stop' as const,
						title: 'Login by key, but no key',
						why: 'Paste the line from your own computer\u2019s file that ends in .pub. Otherwise nobody gets in.',
						setting: 'network.sshKeys' as const,
						fixes: [patch('Use a password', { login: 'password' })]
					}
				]
			: [])
	];
}

const DEFAULT_USERS = ['root', 'admin', 'user', 'debian', 'test'];

function assessGuard({ network }: Plan): Finding[] {
	const { guard, pages } = network;
	const openPages = pages.filter(({ password }) => !password);
	const wide = guard.ranges.filter((range) => {
		const read = readCidr(range);
		return read.ok && read.value.version === 4 && !isPrivate(read.value) && hostRange(read.value).count > 256n;
	});
	return [
		...(guard.exposed
			? [
					{
						id: 'network.exposed',
						level: 'caution' as const,
						title: 'Reachable from the whole internet',
						why: 'It will be found within hours and tried without end. Updates must then come at once, logins by key only, and no page without a password. A way in by a virtual private network of the router asks for none of that.',
						setting: 'network.guard' as const,
						fixes: [patch('Only from near', { guard: { ...guard, exposed: false, limited: true } })]
					}
				]
			: []),
		...(!guard.limited
			? [
					{
						id: 'network.unguarded',
						level: 'caution' as const,
						title: 'Whoever reaches it may knock',
						why: 'Guests of the venue\u2019s radio network, too. With rules only the ranges you allow reach its pages and its login.',
						setting: 'network.guard' as const,
						fixes: [patch('Only from near', { guard: { ...guard, limited: true } })]
					}
				]
			: []),
		...(wide.length
			? [
					{
						id: 'network.wide-range',
						level: 'caution' as const,
						title: `${wide[0]!} is not a private range`,
						why: 'These addresses belong to others on the internet. Allow only what is your own.',
						setting: 'network.guard' as const,
						fixes: [
							patch('Leave it out', {
								guard: { ...guard, ranges: guard.ranges.filter((range) => !wide.includes(range)) }
							})
						]
					}
				]
			: []),
		...(openPages.length
			? [
					{
						id: 'network.open-page',
						level: guard.exposed ? ('stop' as const) : ('caution' as const),
						title: `${openPages[0]!.what}: a page without a password`,
						why: 'Whoever is near can change what is played, and how loud.',
						setting: 'network.pages' as const,
						fixes: [patch('Ask for a password', { pages: pages.map((page) => ({ ...page, password: true })) })]
					}
				]
			: [])
	];
}

/** Updates that are forgotten, and those that nobody brings. */
function assessUpdates(plan: Plan): Finding[] {
	const { guard, updates } = plan.network;
	const put = (label: string, nightly: boolean): Fix => patch(label, { updates: { ...updates, nightly } });
	if (updates.nightly && plan.card.root === 'overlay')
		return [
			{
				id: 'network.updates-forgotten',
				level: 'caution',
				title: 'Each restart forgets the updates',
				why: 'They go into the layer in memory, fill it, and are gone with it. With a read-only root, updates are brought in below the layer by hand; or the root is written to.',
				setting: 'network.updates',
				fixes: [
					put('Update by hand', false),
					{ label: 'Make the root writable', apply: (p) => ({ ...p, card: { ...p.card, root: 'writable' } }) }
				]
			}
		];
	if (!updates.nightly && guard.exposed && plan.card.root === 'writable')
		return [
			{
				id: 'network.updates-wait',
				level: 'caution',
				title: 'Reachable from the internet, and updates wait for somebody',
				why: 'Holes that become known are tried everywhere within days. Security updates every night close them.',
				setting: 'network.updates',
				fixes: [put('Update every night', true)]
			}
		];
	return [];
}

/** A hand that moves a pointer feels more than this. Source: ITU-T G.1010, interactive games and screens, 200 ms at most; a tenth of it is felt. */
const FELT_MS = 50;

function assessLatency(plan: Plan, context: Context): Finding[] {
	const { worst } = latencyMs(plan);
	if (plan.brief.kind !== 'second-screen' || worst <= FELT_MS) return [];
	return [
		{
			id: 'network.late-answers',
			level: 'caution',
			title: `A second screen that answers after up to ${withUnit(worst, 0, 'ms')}`,
			why: `More than ${FELT_MS}\u2009ms are felt when a pointer moves. A cable answers within one.`,
			setting: 'network.way',
			fixes: context.part('board', plan.parts.board)?.wired ? [patch('Use the cable', { way: 'wired' })] : []
		}
	];
}

/** Below half of the path nothing is noticed; above all of it something stutters. */
function assessCapacity(plan: Plan, context: Context, claims: readonly Claim[]): Finding[] {
	const path = pathOf(plan, context);
	const need = computeNeed(claims);
	if (!path || need.busiestBps === 0) return [];
	const shares = claimsOn(claims, 'path').filter((claim) => claim.writes);
	const radio = plan.network.way === 'radio';
	const toWire: Fix[] =
		radio && context.part('board', plan.parts.board)?.wired ? [patch('Use the cable', { way: 'wired' })] : [];
	const findings: Finding[] = [];
	if (need.busiestBps > path.realBps)
		findings.push({
			id: 'network.too-slow',
			level: 'stop',
			title: `The ${radio ? 'radio' : 'cable'} gives ${formatBps(path.realBps)}, ${formatBps(need.busiestBps)} are needed`,
			why: `${need.who} would stutter. ${radio ? 'Move the endpoint or the radio, use the upper band, or lay a cable.' : 'A faster socket is needed.'}`,
			setting: radio ? 'network.radio' : 'network.way',
			fixes: toWire
		});
	else if (need.busiestBps > path.realBps / 2)
		findings.push({
			id: 'network.thin',
			level: 'caution',
			title: `Only ${withUnit(((path.realBps - need.busiestBps) / path.realBps) * 100, 0, '%')} of the path is left`,
			why: `${need.who} takes ${formatBps(need.busiestBps)} of ${formatBps(path.realBps)}. A neighbour\u2019s evening is enough to make it stutter.`,
			setting: radio ? 'network.radio' : 'network.way',
			fixes: toWire
		});
	if (radio && shares.length)
		findings.push({
			id: 'network.record-by-radio',
			level: 'caution',
			title: 'A recording goes to a share by radio',
			why: `${formatBps(Math.max(...shares.map((claim) => claim.bitsPerSec)))} must arrive without a gap of more than some seconds, and a gap in a recording stays for ever. ${formatBps(path.realBps)} are there on average, not always.`,
			setting: 'network.way',
			fixes: toWire
		});
	return findings;
}
