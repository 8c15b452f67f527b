import { PLAYER_UNIT } from '../../files/cardFile';
import type { Claim } from '../../claims';
import { entryClaims } from '../../basics/entries';
import { controlWord } from '../../formats/alsa/controlName';
import { withUnit } from '../../basics/format';
import { deviceOf } from './deviceName';
import { volumeDb } from './levels';
import { controlOf, isUnnamed } from './route';
import type { SoundSettings } from './settings';
import type { Context } from '../../link/context';

const VOLUME = { fixed: 'fixed, full', player: 'by the player', converter: 'in the converter' } as const;

/** What sound asks of the player, of its start, of the card and of the settings sheet. */
export const soundClaims = (sound: SoundSettings, context: Context): Claim[] => [
	{ on: 'package', from: 'sound', what: 'sound', name: 'alsa-utils', setting: 'sound' },
	{
		on: 'start',
		of: PLAYER_UNIT,
		from: 'sound',
		what: 'sound cards',
		after: 'sound.target',
		group: 'audio',
		device: 'char-alsa',
		setting: 'sound'
	},
	// Else the kernel may not know that kind of device yet when DeviceAllow= is looked up. Source: systemd.resource-control(5), DeviceAllow=, example.
	{
		on: 'start',
		of: PLAYER_UNIT,
		from: 'sound',
		what: 'sound driver',
		after: 'modprobe@snd.service',
		wants: true,
		setting: 'sound'
	},
	{ on: 'player', from: 'sound', what: 'output', option: 'ao', value: 'alsa', setting: 'sound' },
	...overlayClaims(sound, context),
	...entryClaims('sound', 'sound', [
		...(isUnnamed(context)
			? ([['sound.overlay', 'Overlay of the add-on board', sound.overlay || 'as its maker names it']] as const)
			: []),
		['sound.cardId', 'Sound output', sound.cardId || 'not chosen yet'],
		['sound.volumeAt', 'Volume', VOLUME[sound.volumeAt]],
		...(sound.volumeAt === 'fixed'
			? []
			: ([['sound.volumeDb', 'Volume to begin with', withUnit(sound.volumeDb, 0, 'dB')]] as const))
	]),
	...deviceClaims(sound, context)
];

/** An add-on board that carries no memory is named in the board's start file. */
const overlayClaims = (sound: SoundSettings, context: Context): Claim[] =>
	isUnnamed(context) && sound.overlay !== ''
		? [
				{
					on: 'overlay',
					from: 'sound',
					what: context.part('converter', context.facts.parts.converter)!.name,
					name: sound.overlay,
					setting: 'sound.overlay'
				}
			]
		: [];

/** Once it is known which device: the player opens it, waits for it, and it is seen to be there. */
function deviceClaims(sound: SoundSettings, context: Context): Claim[] {
	const device = deviceOf(sound);
	if (!device) return [];
	const converter = { from: 'sound', what: 'converter', setting: 'sound.cardId' } as const;
	return [
		{ on: 'player', ...converter, what: 'device', option: 'audio-device', value: `alsa/${device.name}` },
		{
			on: 'start',
			of: PLAYER_UNIT,
			...converter,
			before: ['/opt/yphos/bin/wait-for-sound.sh', sound.cardId, '30']
		},
		{
			on: 'check',
			...converter,
			label: `the converter ${sound.cardId} is present`,
			command: `test -e /proc/asound/${sound.cardId}`
		},
		{
			on: 'check',
			...converter,
			label: 'something is being played',
			whilePlaying: true,
			// Between two titles, and at the seam of a loop, nothing is open for a moment.
			command: `timeout 10 sh -c 'until grep -qs RUNNING /proc/asound/${sound.cardId}/pcm${sound.deviceNumber}p/sub0/status; do sleep 0.2; done'`,
			setting: 'sound.deviceNumber'
		},
		...(sound.travel === 'follow'
			? []
			: ([
					{
						on: 'player',
						from: 'sound',
						what: 'one rate',
						option: 'audio-samplerate',
						value: String(sound.fixedRateHz),
						setting: 'sound.fixedRateHz'
					}
				] as const)),
		...volumeClaims(sound, context)
	];
}

/** The player's volume is cubed: 100 · 10^(dB/60). */
function volumeClaims(sound: SoundSettings, context: Context): Claim[] {
	const control = sound.volumeAt === 'converter' ? sound.mixerName : (controlOf(sound, context)?.name ?? '');
	const percent = sound.volumeAt === 'player' ? 100 * 10 ** (sound.volumeDb / 60) : 100;
	return [
		{
			on: 'player',
			from: 'sound',
			what: 'volume',
			option: 'volume',
			value: String(Number(percent.toFixed(3))),
			setting: sound.volumeAt === 'player' ? 'sound.volumeDb' : 'sound.volumeAt'
		},
		// Its own control stands anywhere when power comes; where the volume is set elsewhere, it is opened.
		...(control
			? ([
					{
						on: 'start',
						of: PLAYER_UNIT,
						from: 'sound',
						what: 'volume',
						before: [
							...['/usr/bin/amixer', '--quiet', '--card', sound.cardId, '--', 'sset'],
							controlWord(control),
							`${(sound.volumeAt === 'converter' ? volumeDb(sound) : 0).toFixed(2)}dB`
						],
						...(sound.volumeAt === 'converter' ? {} : { mayFail: true }),
						setting: sound.volumeAt === 'converter' ? 'sound.volumeDb' : 'sound.volumeAt'
					}
				] as const)
			: [])
	];
}
