import { FIRST_PARTITION_AT, lines, rootPath, textFile } from '../../files/cardFile';
import { keyfileBytes, keyfileText } from '../../formats/keyfile/keyfile';
import { writeNftables } from '../../formats/nftables/nftables';
import { readPublicKey } from '../../formats/ssh/publicKey';
import { yamlText } from '../../formats/seed/yamlText';
import type { CardFile, CardLine } from '../../link/file';
import type { Context } from '../../link/context';
import type { Secrets } from '../../secrets';
import { claimsOn, type Claim } from '../../claims';
import { allowedRanges, lanOf } from './addresses';
import { formatAddress } from '../../formats/ip/cidr';
import { loginSetting, needsPassword, takesPassword } from './login';
import { askFiles } from './fetching';
import { setupFile } from './setup';
import { updateFiles } from './updates';
import type { NetworkSettings } from './settings';

/** Source: nft(8); nftables.service of Debian 12 loads this file. */
export const NFT_CONF = '/etc/nftables.conf';
/** Source: sshd_config(5); Debian's sshd_config includes this folder first. */
export const SSHD_DROP_IN = '/etc/ssh/sshd_config.d/yphos.conf';
/** Source: NetworkManager.conf(5), keyfile. Holds the pass phrase: 0600. */
export const RADIO_PROFILE = '/etc/NetworkManager/system-connections/yphos-radio.nmconnection';
/** Source: NetworkManager.conf(5), keyfile. */
export const CABLE_PROFILE = '/etc/NetworkManager/system-connections/yphos-cable.nmconnection';

/** The seed of a first start (cloud-init, NoCloud), the profiles of the network, and who may knock and log in. */
export function networkFiles(
	network: NetworkSettings,
	context: Context,
	claims: readonly Claim[],
	secrets: Secrets
): CardFile[] {
	const files = [
		textFile(
			'boot/user-data',
			'Names the endpoint, makes its keeper and runs apply.sh at the first start, where the system reads it.',
			userData(network, context, secrets)
		),
		textFile(
			'boot/meta-data',
			'Marks this first start as its own.',
			lines('network.hostName', `instance-id: ${yamlText(`yphos-${network.hostName}`)}`)
		),
		setupFile(network, context, secrets),
		textFile(rootPath('/etc/default/keyboard'), 'The layout of a keyboard, should one be joined.', [
			...lines('network.keyboard', 'XKBMODEL="pc105"', `XKBLAYOUT="${network.keyboard}"`, 'BACKSPACE="guess"')
		]),
		textFile(
			rootPath('/etc/default/locale'),
			'The language of messages.',
			lines('network.locale', `LANG=${network.locale}`)
		)
	];
	// Read when the package is installed, which comes after.
	if (network.locale !== 'C.UTF-8')
		files.push(
			textFile(rootPath('/etc/locale.gen'), 'Languages to be made.', lines('network.locale', `${network.locale} UTF-8`))
		);
	if (network.way === 'none') return files;
	files.push(...updateFiles(network));
	if (network.way === 'wired' && network.address.kind !== 'fixed') files.push(cableSeed());
	if (network.way === 'wired' && network.address.kind === 'fixed') files.push(cableProfile(network, context));
	if (network.way === 'radio' && network.ssid) files.push(radioProfile(network, context, secrets));
	if (network.way === 'radio' && network.countryCode) files.push(radioCountry(network));
	if (network.user && network.login !== 'none') files.push(sshdDropIn(network));
	files.push(...askFiles(network, claims));
	if (network.guard.limited) files.push(guardRules(network, context, claims));
	return files;
}

function userData(network: NetworkSettings, context: Context, secrets: Secrets): CardLine[] {
	return [
		...lines('card', '#cloud-config'),
		...lines('network.hostName', `hostname: ${yamlText(network.hostName)}`),
		...lines('network', `timezone: ${yamlText(context.venue.timeZone)}`),
		...(network.user ? keeper(network, secrets) : []),
		...lines(loginSetting(network), `ssh_pwauth: ${takesPassword(network)}`),
		...lines(
			'card',
			'runcmd:',
			`  - [bash, -c, ${yamlText(findAndApply(context))}]`,
			'power_state: {mode: reboot, delay: 1, condition: "test -e /run/yphos-restart"}'
		)
	];
}

/** Each image has its own place for the first partition; the planned one is looked at first. */
const findAndApply = ({ facts }: Context): string => {
	const places = [facts.firstPartition, ...FIRST_PARTITION_AT.filter((at) => at !== facts.firstPartition)];
	const run = 'if test -e $at/yphos/apply.sh; then bash $at/yphos/apply.sh; exit; fi';
	return `for at in ${places.join(' ')}; do ${run}; done; echo "apply.sh: no first partition is mounted" >&2; exit 1`;
};

/** With a password it is asked for at every administrator's command; with a key alone nothing could be typed. */
function keeper(network: NetworkSettings, secrets: Secrets): CardLine[] {
	const withPassword = needsPassword(network);
	const keys = network.sshKeys.flatMap((line) => {
		const key = readPublicKey(line);
		return key.ok ? [key.value] : [];
	});
	return [
		...lines(
			'network.user',
			'users:',
			`  - name: ${yamlText(network.user)}`,
			'    groups: [sudo, audio, video]',
			'    shell: /bin/bash',
			`    sudo: ${yamlText(withPassword ? 'ALL=(ALL) ALL' : 'ALL=(ALL) NOPASSWD:ALL')}`
		),
		...lines(loginSetting(network), `    lock_passwd: ${!withPassword}`),
		...(withPassword && secrets.userPasswordCrypt
			? [
					{
						text: `    hashed_passwd: ${yamlText(secrets.userPasswordCrypt)}`,
						setting: loginSetting(network),
						secret: true
					} as const
				]
			: []),
		...(keys.length && network.way !== 'none' && network.login !== 'password' && network.login !== 'none'
			? lines('network.sshKeys', '    ssh_authorized_keys:', ...keys.map(({ text }) => `      - ${yamlText(text)}`))
			: [])
	];
}

const cableSeed = (): CardFile =>
	textFile('boot/network-config', 'Takes an address on the cable, whatever the socket is called.', [
		...lines(
			'network.way',
			'version: 2',
			'ethernets:',
			'  cable:',
			'    match: {name: "e*"}',
			'    dhcp4: true',
			'    optional: true'
		)
	]);

/** Where it takes its address from: the router, or the plan. */
function addressLines(settings: NetworkSettings, context: Context): CardLine[] {
	const { kind, ip } = settings.address;
	const lan = lanOf(context);
	if (kind !== 'fixed' || ip === '' || !lan)
		return lines('network.address', '', '[ipv4]', 'method=auto', '', '[ipv6]', 'method=auto');
	const gateway = formatAddress(lan.gateway);
	return lines(
		'network.address',
		'',
		'[ipv4]',
		'method=manual',
		`address1=${ip}/${lan.network.prefixLength},${gateway}`,
		`dns=${gateway};`,
		'',
		'[ipv6]',
		'method=auto'
	);
}

const cableProfile = (settings: NetworkSettings, context: Context): CardFile =>
	textFile(
		rootPath(CABLE_PROFILE),
		'Takes the fixed address on the cable.',
		[
			...lines(
				'network.way',
				'[connection]',
				'id=yphos-cable',
				'type=ethernet',
				'autoconnect=true',
				'autoconnect-priority=10'
			),
			...addressLines(settings, context)
		],
		'0600'
	);

function radioProfile(network: NetworkSettings, context: Context, { radioPskHex }: Secrets): CardFile {
	const profile: CardLine[] = [
		...lines(
			'network.way',
			'[connection]',
			'id=yphos-radio',
			'type=wifi',
			'autoconnect=true',
			'autoconnect-priority=10',
			'',
			'[wifi]',
			'mode=infrastructure'
		),
		...lines('network.ssid', `ssid=${keyfileBytes(network.ssid)}`),
		...(radioPskHex
			? ([
					...lines('network.ssid', '', '[wifi-security]', 'key-mgmt=wpa-psk'),
					{ text: `psk=${keyfileText(radioPskHex)}`, setting: 'network.ssid', secret: true }
				] satisfies CardLine[])
			: []),
		...addressLines(network, context)
	];
	return textFile(rootPath(RADIO_PROFILE), 'Joins the Wi-Fi network.', profile, '0600');
}

/** Read when the radio's driver is loaded. Source: modprobe.d(5); the kernel's cfg80211, ieee80211_regdom. */
const radioCountry = (network: NetworkSettings): CardFile =>
	textFile(
		rootPath('/etc/modprobe.d/yphos-country.conf'),
		'Tells the radio whose rules it follows.',
		lines('network.countryCode', `options cfg80211 ieee80211_regdom=${network.countryCode}`)
	);

/** Source: sshd_config(5). The first value found counts, and drop-ins are read first. */
const sshdDropIn = (settings: NetworkSettings): CardFile =>
	textFile(rootPath(SSHD_DROP_IN), 'Who may log in over the network, and how.', [
		...lines('network.user', `AllowUsers ${settings.user}`, 'PermitRootLogin no'),
		...lines(
			'network.login',
			`PasswordAuthentication ${takesPassword(settings) ? 'yes' : 'no'}`,
			`PubkeyAuthentication ${settings.login === 'password' ? 'no' : 'yes'}`,
			'KbdInteractiveAuthentication no',
			'PermitEmptyPasswords no'
		)
	]);

function guardRules(settings: NetworkSettings, context: Context, claims: readonly Claim[]): CardFile {
	return textFile(
		rootPath(NFT_CONF),
		'Lets in only who is near.',
		writeNftables(claimsOn(claims, 'listen'), allowedRanges(settings, context)).map(({ text, about }): CardLine => ({
			text,
			setting: about === 'guard' ? 'network.guard' : about.setting
		})),
		'0755'
	);
}
