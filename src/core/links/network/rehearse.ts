import { linesOf } from '../../formats/lines';
import { readSeedAccount } from '../../formats/seed/account';
import { readKeyfile } from '../../formats/keyfile/keyfile';
import { tellerFor, type DiskFile, type Fault, type Machine, type Said, type Teller } from '../../engines/machine';
import { CABLE_PROFILE, RADIO_PROFILE } from './files';
import { knock } from './knock';
import type { Visited } from './track';
import { NETWORK_WORDS } from './words';

export const NETWORK_FAULTS = {
	'network-late': { label: 'Network comes late', lastsMs: 40_000 }
} as const satisfies Record<string, Fault>;

type Tell = Teller<typeof NETWORK_WORDS>;
/** How it joins: by which way, with which address of its own ("" for whatever it is given); or why it cannot. */
type Joining = { readonly way: 'radio' | 'cable'; readonly address: string } | { readonly refused: Said };

/** Left by apply.sh; before it has run, the endpoint is in its first start. */
const APPLIED = '/var/lib/yphos-card';
/** From joining to answering by name. Typical. */
const ANNOUNCE_MS = 900;

/** Joins what the files ask for, if the bench has it. Being online lets those start that wait for it. */
export function rehearseNetwork(machine: Machine): void {
	const tell = tellerFor(machine, 'network', NETWORK_WORDS);
	const join = (): void => {
		if (!machine.powered || machine.online || machine.activeFaults.has('network-late')) return;
		const joining = howToJoin(machine, tell);
		if ('refused' in joining) {
			if (joining.refused.code !== 'no-network') machine.tell(joining.refused, 'bad');
			return tell.stateFor('reach', 'away', joining.refused);
		}
		tell.event(joining.way === 'radio' ? 'radio-joined' : 'cable-joined', 'good', { address: joining.address });
		tell.state('reach', 'there', 'joined');
		machine.setOnline(true);
		machine.after(ANNOUNCE_MS, () => announce(machine, tell));
	};
	machine.on('userspace', () => {
		if (machine.activeFaults.has('network-late')) tell.event('not-yet', 'bad');
		machine.after(machine.bench.network.joinMs, join);
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
		const address = readKeyfile(profile.text).ipv4?.address1?.split(/[/,]/)[0] ?? '';
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
	return config === undefined || linesOf(config).some((line) => /^dhcp4: (?:true|yes)$/.test(line.trim()))
		? { way: 'cable', address: '' }
		: { refused: tell.said('config-unusable') };
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
		machine.assumed.add(`a radio network called "${radio.ssid}" is there, with the pass phrase that is typed`);
	// Without the pass phrase typed the key is not known yet; the bench then asks for none.
	return radio.pskHex !== null && security?.psk !== radio.pskHex
		? tell.said('key-refused', { ssid: radio.ssid })
		: null;
}

/** It says its name, if the program for that is on the card, and each visitor of the bench knocks once. */
function announce(machine: Machine, tell: Tell): void {
	const { hostName } = readSeedAccount(machine.card.get('boot/user-data')?.text ?? '');
	if (hostName && machine.disk.packages.get('avahi-daemon') === 'installed') {
		tell.event('named', 'good', { name: `${hostName}.local` });
		tell.mark('reach', 'name', `${hostName}.local`);
	}
	for (const visitor of machine.bench.network.visitors) {
		const answer = knock(machine, visitor);
		const visited: Visited = { ...answer, from: visitor.from, welcome: visitor.welcome };
		tell.event('visit', answer.open === visitor.welcome ? 'good' : 'bad', {
			from: visitor.from,
			port: visitor.port,
			answer: answer.words
		});
		tell.mark('reach', `${visitor.from} ${visitor.with}`, visited);
	}
}
