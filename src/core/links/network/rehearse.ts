import { readKeyfile } from '../../formats/keyfile/keyfile';
import { contains, readAddress, readCidr } from '../../formats/ip/cidr';
import { sha512crypt } from '../../formats/crypt/sha512crypt';
import { readNftables } from '../../formats/nftables/nftables';
import type { Machine } from '../../engines/machine';
import { CABLE_PROFILE, NFT_CONF, RADIO_PROFILE, SSHD_DROP_IN } from './files';

/** Joins what the files ask for, if the bench has it. Reaching network-online.target lets those start that wait for it. */
export function rehearseNetwork(machine: Machine): void {
	const join = (): void => {
		if (!machine.powered || machine.networkUp || machine.activeFaults.has('network-late')) return;
		const refusal = whyNot(machine);
		if (refusal) return machine.log('network', refusal, '', 'bad');
		machine.networkUp = true;
		const profile = machine.disk.files.get(RADIO_PROFILE) ?? machine.disk.files.get(CABLE_PROFILE);
		const address = profile && readKeyfile(profile.text).ipv4?.address1?.split(/[/,]/)[0];
		machine.log(
			'network',
			machine.disk.files.has(RADIO_PROFILE)
				? 'Radio network joined'
				: address
					? 'Cable joined'
					: 'Address taken on the cable',
			address ?? '',
			'good'
		);
		machine.systemd.reach('network-online.target');
		machine.emit('network-up');
		machine.after(ANNOUNCE_MS, () => announce(machine));
	};
	machine.on('userspace', () => {
		const asked = [RADIO_PROFILE, CABLE_PROFILE].some((path) => machine.disk.files.has(path));
		if (!machine.card.has('boot/network-config') && !asked) return;
		if (machine.activeFaults.has('network-late')) machine.log('network', 'The network is not there yet', '', 'bad');
		machine.after(machine.bench.network.joinMs, join);
	});
	machine.on('fault', ({ name, on }) => {
		if (name !== 'network-late') return;
		if (on && machine.networkUp) {
			machine.networkUp = false;
			machine.log('network', 'Network gone', '', 'fault');
			machine.emit('network-down');
		} else if (!on && machine.powered) {
			machine.log('network', 'Network back', '', 'fault');
			machine.after(machine.bench.network.joinMs, join);
		}
	});
}

/** From joining to answering by name. Typical. */
const ANNOUNCE_MS = 900;

/** Null when the endpoint may join. */
function whyNot(machine: Machine): string | null {
	const profile = machine.disk.files.get(RADIO_PROFILE);
	if (!profile) return machine.bench.network.wired ? null : 'No cable leads to the endpoint';
	const { radio } = machine.bench.network;
	const { wifi, 'wifi-security': security } = readKeyfile(profile.text);
	if (!radio) return 'There is no radio network on this bench';
	if (wifi?.ssid !== radio.ssid) return `No radio network is called "${wifi?.ssid ?? ''}"`;
	// In the plan view the key is not known yet; the bench then asks for none.
	if (radio.pskHex !== null && security?.psk !== radio.pskHex)
		return `The radio network "${radio.ssid}" refuses the key`;
	return null;
}

/** It says its name, if the program for that is on the card, and each visitor of the bench knocks once. */
function announce(machine: Machine): void {
	const hostName = /^hostname: "?([^"\n]+)"?$/m.exec(machine.card.get('boot/user-data')?.text ?? '')?.[1];
	if (hostName && machine.disk.packages.get('avahi-daemon') === 'installed')
		machine.log('network', 'Found by name', `${hostName}.local`, 'good');
	for (const visitor of machine.bench.network.visitors) {
		const answer = knock(machine, visitor);
		machine.log(
			'network',
			`${visitor.from} at port ${visitor.port}: ${answer.words}`,
			'',
			answer.open ? 'info' : 'good'
		);
	}
}

/** Passwords that a stranger begins with. */
const GUESSES = ['password', 'admin', '12345678'];

/** Tries them against what the seed holds, as the endpoint itself would. */
function guess(seed: string): { open: boolean; words: string } {
	const crypt = /hashed_passwd: "(\$6\$[^"]*)"/.exec(seed)?.[1];
	const salt = crypt && /^\$6\$([^$]*)\$/.exec(crypt)?.[1];
	const fits =
		salt !== undefined &&
		GUESSES.some((word) => {
			const made = sha512crypt(word, salt);
			return made.ok && made.value === crypt;
		});
	return fits
		? { open: true, words: 'let in with a password that is tried first' }
		: { open: false, words: 'asked for the password, and this one is wrong' };
}

interface Visitor {
	readonly from: string;
	readonly port: number;
	readonly with: 'nothing' | 'key' | 'password';
}

/** What the files answer to somebody who knocks. */
export function knock(machine: Pick<Machine, 'disk' | 'card'>, visitor: Visitor): { open: boolean; words: string } {
	const conf = machine.disk.files.get(NFT_CONF)?.text;
	if (conf) {
		const rules = readNftables(conf);
		const address = readAddress(visitor.from);
		const near = rules.near.some((range) => {
			const network = readCidr(range);
			return network.ok && address.ok && contains(network.value, address.value);
		});
		const opened = rules.openings.some(({ protocol, port }) => protocol === 'tcp' && port === visitor.port);
		if (rules.dropsRest && !(near && opened))
			return { open: false, words: near ? 'nothing answers there' : 'turned away, not from near' };
	}
	if (visitor.port !== 22) return { open: true, words: 'let in' };
	const sshd = machine.disk.files.get(SSHD_DROP_IN)?.text ?? '';
	const allows = (word: string): boolean => new RegExp(`^${word} yes$`, 'm').test(sshd);
	if (visitor.with === 'password')
		return allows('PasswordAuthentication')
			? guess(machine.card.get('boot/user-data')?.text ?? '')
			: { open: false, words: 'passwords are not taken' };
	if (visitor.with === 'key')
		return allows('PubkeyAuthentication') && /ssh_authorized_keys:/.test(machine.card.get('boot/user-data')?.text ?? '')
			? { open: true, words: 'let in by key' }
			: { open: false, words: 'keys are not taken' };
	return { open: false, words: 'asked who it is' };
}
