import { lines, rootPath, textFile } from '../../cardFile';
import type { Claim } from '../../claims';
import { keyfileBytes } from '../../formats/keyfile/keyfile';
import { yamlText } from '../../formats/seed/yamlText';
import type { CardFile, CardLine, Context, Secrets } from '../../link';
import type { Plan } from '../../plan/plan';

/** The seed of a first start (cloud-init, NoCloud), and a profile for the radio network. */
export function networkFiles(plan: Plan, context: Context, _claims: readonly Claim[], secrets: Secrets): CardFile[] {
	const { network } = plan;
	const userData: CardLine[] = [
		...lines('card', '#cloud-config'),
		...lines('network.hostName', `hostname: ${yamlText(network.hostName)}`),
		...lines('programme.quiet', `timezone: ${yamlText(context.venue.timeZone)}`),
		...lines(
			'card',
			'ssh_pwauth: false',
			'runcmd:',
			'  - [bash, /boot/firmware/yphos/apply.sh]',
			'power_state: {mode: reboot, condition: "test -e /run/yphos-restart"}'
		)
	];
	const files = [
		textFile(
			'boot/user-data',
			'Names the endpoint and runs apply.sh at the first start, where the system reads it.',
			userData
		),
		textFile(
			'boot/meta-data',
			'Marks this first start as its own.',
			lines('network.hostName', `instance-id: ${yamlText(`yphos-${network.hostName}`)}`)
		)
	];
	if (network.way === 'wired')
		files.push(
			textFile('boot/network-config', 'Takes an address on the cable, whatever the socket is called.', [
				...lines(
					'network.way',
					'version: 2',
					'renderer: NetworkManager',
					'ethernets:',
					'  cable:',
					'    match: {name: "e*"}',
					'    dhcp4: true',
					'    optional: true'
				)
			])
		);
	if (network.way === 'radio' && network.ssid) files.push(radioProfile(plan, secrets));
	return files;
}

function radioProfile({ network }: Plan, { radioPskHex }: Secrets): CardFile {
	const profile: CardLine[] = [
		...lines(
			'network.way',
			'[connection]',
			'id=yphos-radio',
			'type=wifi',
			'autoconnect=true',
			'',
			'[wifi]',
			'mode=infrastructure'
		),
		...lines('network.ssid', `ssid=${keyfileBytes(network.ssid)}`),
		...(radioPskHex
			? ([
					...lines('network.ssid', '', '[wifi-security]', 'key-mgmt=wpa-psk'),
					{ text: `psk=${radioPskHex}`, setting: 'network.ssid', secret: true }
				] satisfies CardLine[])
			: []),
		...lines('network.way', '', '[ipv4]', 'method=auto', '', '[ipv6]', 'method=auto')
	];
	return textFile(
		rootPath('/etc/NetworkManager/system-connections/yphos-radio.nmconnection'),
		'Joins the radio network.',
		profile,
		'0600'
	);
}
