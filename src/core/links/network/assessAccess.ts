/** Who gets in: to log in, to knock, to its pages; and who brings the updates that keep others out. */
import { withUnit } from '../../basics/format';
import { formatAddress, hostRange, isPrivate, readCidr } from '../../formats/ip/cidr';
import { readPublicKey } from '../../formats/ssh/publicKey';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import { outsideOf, rangeOf } from '../../probe/fill';
import { allowedRanges } from './addresses';
import { patch } from './patch';
import type { NetworkSettings } from './settings';

/** Without a user nobody can mend anything, from afar or at its screen. */
export const assessKeeper = ({ user, way }: NetworkSettings): Finding[] =>
	user !== ''
		? []
		: [
				{
					id: 'network.no-user',
					level: 'caution',
					title: way === 'none' ? 'Nobody can log in at its screen' : 'Nobody can log in to look after it',
					why: `No user is made. ${way === 'none' ? 'What the run sheet types needs one, unless the image brings its own.' : 'What goes wrong later can only be mended with a screen and a keyboard, or by writing the card anew.'}`,
					setting: 'network.user',
					fixes: [patch('Make a user keeper', { user: 'keeper' })]
				}
			];

/** Findings on who logs in, and by what. */
export function assessLogin(network: NetworkSettings): Finding[] {
	if (network.school !== 'files') return [];
	if (network.user === '') return assessKeeper(network);
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

/** Findings on the firewall and on pages without a password. */
export function assessGuard(network: NetworkSettings): Finding[] {
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
						title: 'The firewall lets everybody in',
						why: 'Guests of the venue\u2019s Wi-Fi network, too. With rules only the ranges you allow reach its pages and its login.',
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

/** The board has been seen in a network that the firewall would not let in. */
export function assessSeen(settings: NetworkSettings, context: Context): Finding[] {
	const { guard } = settings;
	if (!guard.limited || !context.probe) return [];
	const outside = outsideOf(context.probe, allowedRanges(settings, context));
	const range = rangeOf(context.probe);
	if (outside.length === 0) return [];
	const cidr = range ? `${formatAddress(range)}/${range.prefixLength}` : null;
	return [
		{
			id: 'network.seen-outside',
			level: 'caution',
			title: `The board was at ${outside[0]!}, which the firewall does not let in`,
			why: `${context.venue.lan ? `The venue has ${context.venue.lan.cidr}` : 'Only private ranges are allowed'}: from where the board stood when it was probed, nobody would reach it. If that is its place, correct the range under Venue, or allow that one as well.`,
			setting: 'network.guard',
			fixes: cidr
				? [
						patch(`Allow ${cidr} as well`, {
							guard: { ...guard, ranges: [...allowedRanges(settings, context), cidr] }
						})
					]
				: []
		}
	];
}

/** Whether a time of day lies within hours that may cross midnight, whatever the weekday. */
const isWithin = ({ from, until }: { from: string; until: string }, at: string): boolean =>
	from < until ? at >= from && at < until : at >= from || at < until;

/** Updates that are forgotten, that come while it is off, and those that nobody brings. */
export function assessUpdates(settings: NetworkSettings, context: Context): Finding[] {
	const { guard, updates } = settings;
	const put = (label: string, nightly: boolean): Fix => patch(label, { updates: { ...updates, nightly } });
	if (updates.nightly && context.facts.root === 'overlay')
		return [
			{
				id: 'network.updates-forgotten',
				level: 'caution',
				title: 'Each restart forgets the updates',
				why: 'They go into the layer in memory, fill it, and are gone with it. With a read-only root, updates are brought in below the layer by hand; or the root is written to.',
				setting: 'network.updates',
				fixes: [
					put('Update by hand', false),
					{ label: 'Make the root writable', apply: context.change.makeRootWritable() }
				]
			}
		];
	const { onHoursPerDay, programme } = context.facts;
	if (updates.nightly && onHoursPerDay < 24) {
		const quiet = programme?.quiet ?? [];
		const isOff = (at: string): boolean => quiet.length === 0 || quiet.some((hours) => isWithin(hours, at));
		const day = ['12:00', '15:00', '09:00', '18:00'].find((at) => !isOff(at));
		if (isOff(updates.at))
			return [
				{
					id: 'network.updates-off',
					level: 'caution',
					title: `At ${updates.at} it may be switched off`,
					why: `It is on for ${withUnit(onHoursPerDay, 0, 'h')} a day. A night that was missed is made up for at the next start, beside the first music; choose an hour at which it is surely on, or update by hand.`,
					setting: 'network.updates',
					fixes: [
						...(day ? [patch(`Update at ${day}`, { updates: { ...updates, at: day } })] : []),
						put('Update by hand', false)
					]
				}
			];
	}
	if (!updates.nightly && guard.exposed && context.facts.root === 'writable')
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
