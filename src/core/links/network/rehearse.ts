import { readNetworkConfig } from '../../formats/seed/networkConfig';
import { readKeyfile } from '../../formats/keyfile/keyfile';
import {
	rulesOf,
	HOST_NAME_PATH,
	tellerFor,
	type DiskFile,
	type Machine,
	type Said,
	type Teller
} from '../../engines/machine';
import { CABLE_PROFILE, RADIO_PROFILE } from './files';
import { knock, logInAtScreen } from './knock';
import { VISIT, type Visited } from './track';
import { rehearseUpdates } from './updates';
import { NETWORK_WORDS } from './words';

type Tell = Teller<typeof NETWORK_WORDS>;
/** How it joins: by which way, with which address of its own ("" for whatever it is given); or why it cannot. */
type Joining = { readonly way: 'radio' | 'cable'; readonly address: string } | { readonly refused: Said };

/** Left by apply.sh; before it has run, the endpoint is in its first start. */
const APPLIED = '/var/lib/yphos-card';
/** From joining to answering by name. Typical. */
const ANNOUNCE_MS = 900;
/** From the first services to a prompt. Typical. */
const PROMPT_MS = 2000;

/** Joins what the files ask for, if the bench has it. Being online lets those start that wait for it. */
function rehearseNetwork(machine: Machine): void {
	const tell = tellerFor(machine, 'network', NETWORK_WORDS);
	const join = (): void => {
		if (!machine.powered || machine.online || machine.activeFaults.has('network-late')) return;
		const joining = howToJoin(machine, tell);
		if ('refused' in joining) {
			if (joining.refused.code !== 'no-network') machine.tell(joining.refused, 'bad');
			return tell.stateFor('reach', 'away', joining.refused);
		}
		tell.event(joining.way === 'radio' ? 'radio-joined' : 'cable-joined', 'good', { address: joining.address });
		tell.mark('reach', 'address', joining.address);
		tell.state('reach', 'there', 'joined');
		if (!loadRules(machine, tell)) return;
		machine.setOnline(true);
		machine.after(ANNOUNCE_MS, () => announce(machine, tell));
	};
	machine.on('userspace', () => {
		if (machine.activeFaults.has('network-late')) {
			tell.event('not-yet', 'bad');
			tell.state('reach', 'away', 'not-yet');
		}
		machine.after(machine.bench.network.joinMs, join);
		machine.after(PROMPT_MS, () => visitAtScreen(machine, tell));
	});
	machine.on('fault', ({ name, on }) => {
		if (name !== 'network-late') return;
		if (on && machine.online) {
			machine.setOnline(false);
			tell.event('gone', 'fault');
			tell.state('reach', 'away', 'gone');
		} else if (!on && machine.powered) {
			tell.event('back', 'fault');
			machine.after(machine.bench.network.joinMs, join);
		}
	});
}

/** A profile of NetworkManager where there is one, else what the image does with the seed's network-config. */
function howToJoin(machine: Machine, tell: Tell): Joining {
	const { wired, radio } = machine.bench.network;
	const radioProfile = machine.disk.get(RADIO_PROFILE);
	const cableProfile = machine.disk.get(CABLE_PROFILE);
	const profile = radioProfile ?? cableProfile;
	if (profile) {
		const unread = whyUnread(machine, tell, profile);
		if (unread) return { refused: unread };
		judgeAddress(machine, tell, profile);
		const address = addressIn(profile);
		if (!radioProfile) return wired ? { way: 'cable', address } : { refused: tell.said('no-cable') };
		const refused = whyNotRadio(machine, tell, radioProfile);
		return refused ? { refused } : { way: 'radio', address };
	}
	const config = machine.card.get('boot/network-config')?.text;
	const isFirst = machine.disk.kind(APPLIED) === null;
	if (!wired && isFirst) {
		machine.assumed.add('a cable to a router is joined for the first start, over which packages come');
		return { way: 'cable', address: '' };
	}
	if (!wired) return { refused: tell.said(radio ? 'no-cable' : 'no-network') };
	// Without a network-config the image asks for an address on any cable. Source: cloud-init, fallback network configuration.
	if (config === undefined) return { way: 'cable', address: '' };
	const read = readNetworkConfig(config, machine.parseYaml);
	if (!read.ok) return { refused: tell.said('config-unreadable', { why: read.faults[0]!.message }) };
	for (const key of read.value.unknown) machine.unknown(`network-config: ${key}`);
	return read.value.asksOnCable ? { way: 'cable', address: '' } : { refused: tell.said('config-unusable') };
}

/** What a profile with an address of its own lacks, as far as it can be seen. */
function judgeAddress(machine: Machine, tell: Tell, { text }: DiskFile): void {
	const { ipv4 = {} } = readKeyfile(text);
	if (!ipv4.address1) return;
	if (ipv4.method === undefined) machine.unknown('a profile with an address and no method');
	if (ipv4.method === 'manual' && !ipv4.dns) tell.event('no-dns', 'bad');
}

/** An address of its own, beside which one may be asked for. Source: nm-settings-keyfile(5), ipv4. */
function addressIn({ text }: DiskFile): string {
	const { ipv4 = {} } = readKeyfile(text);
	const own = ipv4.address1?.split(/[/,]/)[0] ?? '';
	return own !== '' && ipv4.method === 'auto' ? `${own}, and one that the router gives` : own;
}

/** Why NetworkManager passes over a profile; null: it takes it. Source: NetworkManager's nm-settings-keyfile(5), FILE FORMAT. */
function whyUnread(machine: Machine, tell: Tell, profile: DiskFile): Said | null {
	if (machine.disk.packages.get('network-manager') !== 'installed') return tell.said('no-manager');
	if ((parseInt(profile.mode, 8) & 0o077) !== 0 || !profile.owner.startsWith('root:'))
		return tell.said('profile-open', { mode: profile.mode });
	return readKeyfile(profile.text).connection?.type ? null : tell.said('profile-unusable');
}

function whyNotRadio(machine: Machine, tell: Tell, profile: DiskFile): Said | null {
	const { radio } = machine.bench.network;
	const { wifi, 'wifi-security': security } = readKeyfile(profile.text);
	if (!radio) return tell.said('no-radio');
	if (wifi?.ssid !== radio.ssid) return tell.said('no-such-radio', { ssid: wifi?.ssid ?? '' });
	if (radio.assumed)
		machine.assumed.add(`a Wi-Fi network called "${radio.ssid}" is there, with the password that is typed`);
	// Without the pass phrase typed the key is not known yet; the bench then asks for none.
	return radio.pskHex !== null && security?.psk !== radio.pskHex
		? tell.said('key-refused', { ssid: radio.ssid })
		: null;
}

/** Somewhere outside (RFC 5737), and the router. */
const OUTSIDE = '203.0.113.1';
/** What must come in besides visitors, whatever the rules are for them; what is lost without it. */
const NEEDED = [
	{ packet: { from: '127.0.0.1', protocol: 'tcp', port: 40_000, isOwn: true }, lost: 'drops-own' },
	{ packet: { from: OUTSIDE, protocol: 'icmp', port: 0 }, lost: 'drops-icmp' },
	{ packet: { from: OUTSIDE, protocol: 'udp', port: 68 }, lost: 'drops-dhcp' },
	{ packet: { from: 'fe80::1', protocol: 'udp', port: 546 }, lost: 'drops-dhcp' }
] as const;

/** The rules for what may come in, as they are loaded; false when they drop even what the endpoint has asked for. */
function loadRules(machine: Machine, tell: Tell): boolean {
	const rules = rulesOf(machine);
	if (rules === null) return true;
	if (!rules.ok) {
		tell.event('rules-refused', 'bad', { why: rules.faults[0]!.message });
		return true;
	}
	for (const { packet, lost } of NEEDED) if (!rules.value.accepts(packet)) tell.event(lost, 'bad');
	if (rules.value.accepts({ from: OUTSIDE, protocol: 'tcp', port: 40_000, isAnswer: true })) return true;
	tell.event('drops-answers', 'bad');
	return false;
}

/** It says its name, if the program for that is on the card, and each visitor of the bench knocks once. */
function announce(machine: Machine, tell: Tell): void {
	const hostName = machine.disk.get(HOST_NAME_PATH)?.text.trim() ?? '';
	const rules = rulesOf(machine);
	const asksByName = (from: string): boolean =>
		!rules?.ok || rules.value.accepts({ from, protocol: 'udp', port: 5353 });
	const isHeard = machine.bench.network.near.every(asksByName);
	tell.mark('reach', 'guard', asksByName(OUTSIDE) ? 'open to strangers' : 'closed to strangers');
	if (hostName && isHeard && machine.disk.packages.get('avahi-daemon') === 'installed') {
		tell.event('named', 'good', { name: `${hostName}.local` });
		tell.mark('reach', 'name', `${hostName}.local`);
	}
	for (const visitor of machine.bench.network.visitors.filter(({ at }) => at === undefined)) {
		const answer = knock(machine, visitor);
		const visited: Visited = { ...answer, from: visitor.from, welcome: visitor.welcome };
		tell.event('visit', answer.open === visitor.welcome ? 'good' : 'bad', {
			from: visitor.from,
			port: visitor.port,
			answer: answer.words
		});
		tell.mark('reach', `${VISIT}${visitor.from} ${visitor.with}`, visited);
	}
}

/** Who comes with a keyboard where no network leads. */
function visitAtScreen(machine: Machine, tell: Tell): void {
	for (const { at, from, welcome } of machine.bench.network.visitors) {
		if (at !== 'screen' || !machine.powered) continue;
		const answer = logInAtScreen(machine, from);
		tell.event('visit-at-screen', answer.open === welcome ? 'good' : 'bad', { from, answer: answer.words });
		tell.mark('reach', `${VISIT}${from} screen`, { ...answer, from, welcome } satisfies Visited);
	}
}

export default (machine: Machine): void => {
	rehearseNetwork(machine);
	rehearseUpdates(machine);
};
