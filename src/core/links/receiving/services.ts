import type { Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { SettingPath } from '../../link/setting';
import type { ReceivingSettings } from './settings';
import {
	GIVES_WAY_UNIT,
	givesWay,
	PAIRING_UNIT,
	PLAYS_UNIT,
	RTP_UNIT,
	SERVER_UNIT,
	SINK_UNIT,
	soundingUnits
} from './ways';

/** What the sound server is to do, and to leave. */
export const SERVER_SCRIPT_PATH = '/opt/yphos/receiving/sound-server.pa';
/** asound.conf leads it to the converter, converted and shared as that says. */
export const DEVICE = 'default';

type Own = { readonly unit: string; readonly what: string; readonly setting: SettingPath };

/** Packages, the units that receive, and what each may use. */
export const serviceClaims = (settings: ReceivingSettings, context: Context): Claim[] => [
	...(settings.bluetooth ? bluetoothClaims(settings) : []),
	...(settings.server ? serverClaims(settings, context) : []),
	...(settings.rtp ? rtpClaims(settings, context) : []),
	...(givesWay(settings, context) ? [unitOf(GIVES_WAY_UNIT, 'giving way', 'receiving.meanwhile')] : []),
	...(settings.quietToo
		? soundingUnits(settings).map((unit): Claim => ({
				on: 'hushed',
				from: 'receiving',
				what: 'receiving',
				unit,
				setting: 'receiving.quietToo'
			}))
		: [])
];

const packageOf = (name: string, setting: SettingPath): Claim => ({
	on: 'package',
	from: 'receiving',
	what: 'receiving',
	name,
	setting
});
const unitOf = (name: string, what: string, setting: SettingPath): Claim => ({
	on: 'unit',
	from: 'receiving',
	what,
	name,
	setting
});
const checkOf = ({ unit, what, setting }: Own, label: string): Claim => ({
	on: 'check',
	from: 'receiving',
	what,
	label,
	command: `systemctl is-active ${unit}`,
	setting
});

/** It opens the sound hardware, once that is there, and is kept from it in quiet hours. */
function soundingService(own: Own, words: readonly string[], settings: ReceivingSettings, context: Context): Claim[] {
	const { unit, what, setting } = own;
	const { maySound } = context.facts.programme ?? {};
	const { cardId = '', endpointName } = context.facts;
	const start = { on: 'start', of: unit, from: 'receiving', what, setting } as const;
	return [
		{
			on: 'service',
			from: 'receiving',
			what,
			setting,
			unit,
			why: `Plays what is sent by ${what}.`,
			described: { text: `Plays for ${endpointName} what comes by ${what}`, setting: 'brief.name' },
			exec: { words, setting: 'receiving.bufferMs' },
			home: unit.replace(/\.service$/, ''),
			restart: { when: 'always', setting },
			...(settings.quietToo && maySound ? { condition: { path: maySound, setting: 'receiving.quietToo' } } : {}),
			boots: setting
		},
		{ ...start, after: 'sound.target', group: 'audio', device: 'char-alsa' },
		{ ...start, after: 'modprobe@snd.service', wants: true },
		...(cardId === ''
			? []
			: [{ ...start, before: ['/opt/yphos/bin/wait-for-sound.sh', cardId, '30'], mayFail: true } as const]),
		unitOf(unit, what, setting)
	];
}

/** Their units stand in `files.ts`: who speaks to the system bus must be known to it, which a user of the moment is not. */
const bluetoothClaims = (settings: ReceivingSettings): Claim[] => [
	packageOf('bluez', 'receiving.bluetooth'),
	packageOf('bluez-alsa-utils', 'receiving.bluetooth'),
	packageOf('bluez-tools', 'receiving.pairing'),
	unitOf(SINK_UNIT, 'Bluetooth', 'receiving.bluetooth'),
	unitOf(PLAYS_UNIT, 'Bluetooth', 'receiving.bluetooth'),
	...(settings.pairing === 'open' ? [unitOf(PAIRING_UNIT, 'pairing', 'receiving.pairing')] : []),
	checkOf({ unit: PLAYS_UNIT, what: 'Bluetooth', setting: 'receiving.bluetooth' }, 'phones are waited for')
];

/** As an ordinary user with a folder of its own: nothing here needs the system-wide kind. Source: pulseaudio(1). */
function serverClaims(settings: ReceivingSettings, context: Context): Claim[] {
	const own: Own = { unit: SERVER_UNIT, what: 'sound server', setting: 'receiving.server' };
	return [
		packageOf('pulseaudio', 'receiving.server'),
		...soundingService(
			own,
			[
				'/usr/bin/pulseaudio',
				'-n',
				`--file=${SERVER_SCRIPT_PATH}`,
				'--daemonize=no',
				'--exit-idle-time=-1',
				'--disallow-exit',
				'--disallow-module-loading',
				'--use-pid-file=no',
				'--disable-shm',
				'--realtime=no',
				'--high-priority=no',
				'--log-target=stderr'
			],
			settings,
			context
		),
		checkOf(own, 'the sound server waits for computers')
	];
}

/**
 * Told what the stream is made of, it plays at once: by itself it takes some of them for something else. It waits again when nothing has come for two seconds, and
 * lets go of the converter meanwhile. Tried with mpv 0.35. Source: mpv(1), --profile=low-latency, --loop-playlist=force.
 */
function rtpClaims(settings: ReceivingSettings, context: Context): Claim[] {
	const own: Own = { unit: RTP_UNIT, what: 'RTP', setting: 'receiving.rtp' };
	return [
		packageOf('mpv', 'receiving.rtp'),
		...soundingService(
			own,
			[
				'/usr/bin/mpv',
				'--no-config',
				'--load-scripts=no',
				'--ytdl=no',
				'--input-terminal=no',
				'--video=no',
				'--profile=low-latency',
				'--demuxer-lavf-format=mpegts',
				'--cache=no',
				'--gapless-audio=no',
				'--network-timeout=2',
				'--loop-playlist=force',
				'--ao=alsa',
				`--audio-device=alsa/${DEVICE}`,
				`--audio-buffer=${settings.bufferMs / 1000}`,
				'--msg-level=all=fatal',
				`rtp://0.0.0.0:${settings.rtpPort}`
			],
			settings,
			context
		),
		checkOf(own, 'RTP is waited for')
	];
}
