import { NOT_THE_SET } from '../../files/sandbox';
import { lines, PLAYER_UNIT, rootPath, textFile } from '../../files/cardFile';
import type { CardFile, CardLine } from '../../link/file';
import type { Context } from '../../link/context';
import { GIVE_WAY, PAIR } from './scripts';
import { DEVICE, SERVER_SCRIPT_PATH } from './services';
import type { ReceivingSettings } from './settings';
import {
	announced,
	GIVES_WAY_UNIT,
	givesWay,
	PAIRING_UNIT,
	PLAYS_UNIT,
	SERVER_PORT,
	SINK_UNIT,
	soundingUnits
} from './ways';

/** Lets phones pair within three minutes. */
export const PAIR_PATH = '/opt/yphos/bin/pair.sh';
/** Stops the list while somebody sends. */
export const GIVE_WAY_PATH = '/opt/yphos/bin/give-way.sh';
/** The name by which a person knows the machine; BlueZ announces it before all others. Source: machine-info(5); bluez 5.66, plugins/hostname.c. */
export const NAME_PATH = '/etc/machine-info';
/** What computers send as a rule. */
const USUAL_HZ = 48_000;
const UNITS = '/etc/systemd/system/';

/** A second door behind the firewall: nobody from afar. Sources: RFC 1918, 3; RFC 4193, 3.1; RFC 4291, 2.5.6. */
const PRIVATE = ['127.0.0.1', '10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', 'fc00::/7', 'fe80::/10'];

/** A value in double quotes, as a shell reads it. Source: machine-info(5). */
const quoted = (text: string): string => `"${text.replace(/[\\"$`]/g, '\\$&')}"`;

/** The announced name, the units that no service claim can say, and their scripts. */
export function receivingFiles(settings: ReceivingSettings, context: Context): CardFile[] {
	return [
		...(settings.bluetooth ? bluetoothFiles(settings, context) : []),
		...(settings.server ? [serverScript(settings, context)] : []),
		...(givesWay(settings, context) ? givesWayFiles(settings) : [])
	];
}

/**
 * As the packages' own guards have it: no capability, nothing to write to, no network. They are no users of the moment: the system bus
 * hangs up on whom it does not know by name. Seen at a real start of Debian 12 without libnss-systemd. Source: nss-systemd(8).
 */
const GUARDS = [
	'CapabilityBoundingSet=',
	'IPAddressDeny=any',
	'LockPersonality=yes',
	'NoNewPrivileges=yes',
	'PrivateTmp=yes',
	'ProtectControlGroups=yes',
	'ProtectHome=yes',
	'ProtectKernelModules=yes',
	'ProtectKernelTunables=yes',
	'ProtectSystem=strict',
	'RestrictNamespaces=yes',
	'SystemCallFilter=@system-service',
	'SystemCallErrorNumber=EPERM',
	NOT_THE_SET
];
/** They begin when the kernel has found an adapter. Source: systemd.special(7), bluetooth.target. */
const INSTALL = ['', '[Install]', 'WantedBy=bluetooth.target'];

/** The packages' own units offer what a phone could be sent, too; here phones only send. */
function bluetoothFiles(settings: ReceivingSettings, context: Context): CardFile[] {
	const of = (...texts: string[]): CardLine[] => lines('receiving.bluetooth', ...texts);
	return [
		textFile(rootPath(NAME_PATH), 'The name that phones show.', [
			...lines('receiving.name', `PRETTY_HOSTNAME=${quoted(announced(settings, context))}`)
		]),
		textFile(rootPath(UNITS + SINK_UNIT), 'Gives phones a place to send their sound to.', [
			...of(
				'[Unit]',
				'Description=Takes sound from phones by Bluetooth',
				'Requisite=dbus.service',
				'After=bluetooth.service',
				'',
				'[Service]',
				'Type=dbus',
				'BusName=org.bluealsa'
			),
			...lines(
				'receiving.beginsPercent',
				`ExecStart=/usr/bin/bluealsa --profile=a2dp-sink --initial-volume=${settings.beginsPercent}`
			),
			...of(
				'Restart=on-failure',
				'RestartSec=2',
				...GUARDS,
				'PrivateDevices=yes',
				'RestrictAddressFamilies=AF_UNIX AF_BLUETOOTH',
				...INSTALL
			)
		]),
		playsUnit(settings, context),
		...(settings.pairing === 'once'
			? [
					textFile(
						rootPath(PAIR_PATH),
						'Lets phones pair within three minutes, and knows them from then on.',
						lines('receiving.pairing', ...PAIR),
						'0755'
					)
				]
			: [
					textFile(
						rootPath(UNITS + PAIRING_UNIT),
						'Lets any phone in reach pair.',
						lines(
							'receiving.pairing',
							'[Unit]',
							'Description=Lets phones pair',
							'After=bluetooth.service',
							'',
							'[Service]',
							'ExecStartPre=-/usr/bin/bluetoothctl discoverable-timeout 0',
							'ExecStartPre=-/usr/bin/bluetoothctl discoverable on',
							'ExecStart=/usr/bin/bt-agent --capability=NoInputNoOutput',
							'Restart=always',
							'RestartSec=10',
							...GUARDS,
							'PrivateDevices=yes',
							'RestrictAddressFamilies=AF_UNIX',
							...INSTALL
						)
					)
				])
	];
}

/** Its periods are a fifth of what it keeps ready: whole frames at 44.1 and 48 kHz. Source: bluealsa-aplay(1), --pcm-period-time. */
function playsUnit(settings: ReceivingSettings, { facts }: Context): CardFile {
	const { maySound = null } = facts.programme ?? {};
	const { cardId = '' } = facts;
	const micros = settings.bufferMs * 1000;
	const of = (...texts: string[]): CardLine[] => lines('receiving.bluetooth', ...texts);
	return textFile(rootPath(UNITS + PLAYS_UNIT), 'Plays what phones send.', [
		...of(
			'[Unit]',
			'Description=Plays what phones send by Bluetooth',
			`After=${SINK_UNIT} sound.target`,
			`Wants=${SINK_UNIT}`,
			'',
			'[Service]'
		),
		...(settings.quietToo && maySound ? lines('receiving.quietToo', `ExecCondition=${maySound}`) : []),
		...(cardId ? of(`ExecStartPre=-/opt/yphos/bin/wait-for-sound.sh ${cardId} 30`) : []),
		...lines(
			'receiving.bufferMs',
			`ExecStart=/usr/bin/bluealsa-aplay --pcm=${DEVICE} --pcm-buffer-time=${micros} --pcm-period-time=${micros / 5} --single-audio`
		),
		...of(
			'Restart=always',
			'RestartSec=2',
			'# What is mixed belongs to this group, whoever began it.',
			'SupplementaryGroups=audio',
			'DevicePolicy=closed',
			'DeviceAllow=char-alsa rw',
			...GUARDS,
			'RestrictAddressFamilies=AF_UNIX',
			...INSTALL
		)
	]);
}

/** In quarters, one of which is on its way. Source: PulseAudio 16.1, module-alsa-sink, fragments=, fragment_size= (bytes). */
function serverScript(settings: ReceivingSettings, { facts }: Context): CardFile {
	const FRAGMENTS = 4;
	const rateHz = facts.soundRateHz ?? USUAL_HZ;
	const bytes = Math.round((settings.bufferMs / 1000 / FRAGMENTS) * rateHz) * 4;
	return textFile(rootPath(SERVER_SCRIPT_PATH), 'What the sound server does, and for whom.', [
		...lines(
			'receiving.bufferMs',
			`load-module module-alsa-sink device=${DEVICE} sink_name=converter rate=${rateHz} tsched=0 fragments=${FRAGMENTS} fragment_size=${bytes}`
		),
		...lines(
			'receiving.server',
			'# It lets go of the converter when nobody sends.',
			'load-module module-suspend-on-idle timeout=2',
			`load-module module-native-protocol-tcp port=${SERVER_PORT} auth-cookie-enabled=0 auth-ip-acl=${PRIVATE.join(';')}`
		)
	]);
}

const givesWayFiles = (settings: ReceivingSettings): CardFile[] => {
	const of = (...texts: string[]): CardLine[] => lines('receiving.meanwhile', ...texts);
	return [
		textFile(rootPath(GIVE_WAY_PATH), 'Stops the list while somebody sends.', of(...GIVE_WAY), '0755'),
		textFile(
			rootPath(UNITS + GIVES_WAY_UNIT),
			'Watches who opens the converter.',
			of(
				'[Unit]',
				'Description=The list rests while somebody sends sound',
				'',
				'[Service]',
				`ExecStart=${[GIVE_WAY_PATH, PLAYER_UNIT, ...soundingUnits(settings)].join(' ')}`,
				'Restart=always',
				'RestartSec=5',
				'NoNewPrivileges=yes',
				'ProtectHome=yes',
				'ProtectSystem=full',
				NOT_THE_SET,
				'',
				'[Install]',
				'WantedBy=multi-user.target'
			)
		)
	];
};
