import { readKeyfile } from '../../formats/keyfile/keyfile';
import type { Machine } from '../../engines/machine';

const PROFILE = '/etc/NetworkManager/system-connections/yphos-radio.nmconnection';

/** Joins what the files ask for, if the bench has it. Reaching network-online.target lets those start that wait for it. */
export function rehearseNetwork(machine: Machine): void {
	const join = (): void => {
		if (!machine.powered || machine.networkUp || machine.activeFaults.has('network-late')) return;
		const refusal = whyNot(machine);
		if (refusal) return machine.log('network', refusal, '', 'bad');
		machine.networkUp = true;
		machine.log(
			'network',
			machine.disk.files.has(PROFILE) ? 'Radio network joined' : 'Address taken on the cable',
			'',
			'good'
		);
		machine.systemd.reach('network-online.target');
		machine.emit('network-up');
	};
	machine.on('userspace', () => {
		if (!machine.card.has('boot/network-config') && !machine.disk.files.has(PROFILE)) return;
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

/** Null when the endpoint may join. */
function whyNot(machine: Machine): string | null {
	const profile = machine.disk.files.get(PROFILE);
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
