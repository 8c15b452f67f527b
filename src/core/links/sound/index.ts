/**
 * The sound: which converter, by which lasting name, what becomes of each source's samples, and how loud it is at the ear.
 * Standards: ALSA's device names and configuration; IEC 60268-5 for speakers. Start at `treatment.ts` and `gainChain.ts`.
 */
import { controlWord } from '../../formats/alsa/controlName';
import { claimsOn, type Claim } from '../../claims';
import { entryClaims } from '../../entries';
import { formatHz, withUnit } from '../../format';
import type { Context, Figure, Link } from '../../link';
import { soundBench, soundBenchShape } from './bench';
import { deviceOf } from './deviceName';
import { soundFiles } from './files';
import { assessSound } from './findings';
import { computeLevels, volumeDb } from './levels';
import { rehearseSound, SOUND_FAULTS } from './rehearse';
import { playbackOf } from './route';
import { calmSound, soundSettings, type SoundSettings } from './settings';
import { earTrack } from './track';
import { SOUND_WORDS } from './words';
import './offers';
import { PLAYER_UNIT } from '../../cardFile';

const TRAVELS = { follow: 'direct', fixed: 'one rate', shared: 'shared' } as const;
const VOLUME = { fixed: 'fixed, full', player: 'by the player', converter: 'in the converter' } as const;
const JOINTS = {
	usb: 'USB converter',
	header: 'header converter',
	jack: 'jack',
	optical: 'optical out',
	display: 'display sound'
} as const;

function figures(settings: SoundSettings, context: Context): Figure[] {
	const converter = context.part('converter', context.facts.parts.converter);
	const found = playbackOf(settings, context);
	const levels = computeLevels(settings, context);
	const out: Figure[] = [
		{
			id: 'way',
			label: 'Way out',
			text: converter ? `${JOINTS[converter.joint]}, ${TRAVELS[settings.travel]}` : 'no converter',
			value: null,
			sure: 'exact',
			from: 'The converter among the parts, and how samples travel.',
			telling: true
		}
	];
	if (found)
		out.push({
			id: 'rates',
			label: 'It takes',
			text: `${found.playback.ratesHz.length > 4 ? `${formatHz(found.playback.ratesHz[0]!)} to ${formatHz(found.playback.ratesHz.at(-1)!)}` : found.playback.ratesHz.map((hz) => formatHz(hz)).join(', ')}`,
			value: found.playback.ratesHz.length,
			sure: found.sure,
			from:
				found.sure === 'measured'
					? 'As the board itself reported.'
					: 'Typical of the class; a probe report makes it certain.'
		});
	if (levels)
		out.push(
			{
				id: 'average',
				label: 'Music at the listener',
				text: withUnit(levels.average.splDb, 0, 'dB'),
				value: levels.average.splDb,
				sure: 'typical',
				from: `Music 14\u2009dB below full scale, amplifier fully open, free field at ${settings.distanceM}\u2009m.`
			},
			{
				id: 'loudest',
				label: 'Loudest passage',
				text: withUnit(levels.peak.splDb, 0, 'dB'),
				value: levels.peak.splDb,
				sure: 'typical',
				from: `Full scale; you allow ${settings.loudestDb}\u2009dB.`
			},
			{
				id: 'watts',
				label: 'Amplifier at its loudest',
				text: withUnit(levels.peak.powerPerSpeakerW, 1, 'W'),
				value: levels.peak.powerPerSpeakerW,
				sure: 'typical',
				from: 'Into each speaker.'
			}
		);
	return out;
}

function claims(sound: SoundSettings): Claim[] {
	const device = deviceOf(sound);
	const out: Claim[] = [
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
		{ on: 'player', from: 'sound', what: 'way out', option: 'ao', value: 'alsa', setting: 'sound' }
	];
	out.push(
		...entryClaims('sound', 'sound', [
			['sound.cardId', 'Sound output', sound.cardId || 'not chosen yet'],
			['sound.volumeAt', 'Volume', VOLUME[sound.volumeAt]],
			...(sound.volumeAt === 'fixed'
				? []
				: ([['sound.volumeDb', 'Volume to begin with', withUnit(sound.volumeDb, 0, 'dB')]] as const))
		])
	);
	if (!device) return out;
	out.push(
		{
			on: 'player',
			from: 'sound',
			what: 'device',
			option: 'audio-device',
			value: `alsa/${device.name}`,
			setting: 'sound.cardId'
		},
		{
			on: 'start',
			of: PLAYER_UNIT,
			from: 'sound',
			what: 'converter',
			before: ['/opt/yphos/bin/wait-for-sound.sh', sound.cardId, '30'],
			setting: 'sound.cardId'
		},
		{
			on: 'check',
			from: 'sound',
			what: 'converter',
			label: `the converter ${sound.cardId} is present`,
			command: `test -e /proc/asound/${sound.cardId}`,
			setting: 'sound.cardId'
		},
		{
			on: 'check',
			from: 'sound',
			what: 'converter',
			label: 'something is being played',
			whilePlaying: true,
			command: `grep -q RUNNING /proc/asound/${sound.cardId}/pcm${sound.deviceNumber}p/sub0/status`,
			setting: 'sound.deviceNumber'
		}
	);
	if (sound.travel !== 'follow')
		out.push({
			on: 'player',
			from: 'sound',
			what: 'one rate',
			option: 'audio-samplerate',
			value: String(sound.fixedRateHz),
			setting: 'sound.fixedRateHz'
		});
	// The player's volume is cubed: 100 · 10^(dB/60).
	const percent = sound.volumeAt === 'player' ? 100 * 10 ** (sound.volumeDb / 60) : 100;
	out.push({
		on: 'player',
		from: 'sound',
		what: 'volume',
		option: 'volume',
		value: String(Number(percent.toFixed(3))),
		setting: sound.volumeAt === 'player' ? 'sound.volumeDb' : 'sound.volumeAt'
	});
	if (sound.volumeAt === 'converter' && sound.mixerName)
		out.push({
			on: 'start',
			of: PLAYER_UNIT,
			from: 'sound',
			what: 'volume',
			before: [
				'/usr/bin/amixer',
				'--quiet',
				'--card',
				sound.cardId,
				'--',
				'sset',
				controlWord(sound.mixerName),
				`${volumeDb(sound).toFixed(2)}dB`
			],
			setting: 'sound.volumeDb'
		});
	return out;
}

export const sound: Link<'sound', SoundSettings> = {
	id: 'sound',
	title: 'Sound',
	settings: soundSettings,
	version: 2,
	migrations: { 1: (saved) => ({ used: true, ...saved }) },
	empty: ({ kind }) => ({ ...calmSound, used: kind !== 'recorder' }),
	use: { is: ({ used }) => used, set: (settings, used) => ({ ...settings, used }) },
	key: 'a',
	place: {
		column: 'out',
		row: 1,
		wires: [{ from: 'parts', carries: 'signal' }],
		end: { sense: 'ear', figure: 'average', words: 'music at the listener', without: 'choose amplifier and speakers' }
	},
	publish: ({ cardId }) => ({ cardId }),
	bench: { shape: soundBenchShape, of: soundBench },
	faults: SOUND_FAULTS,
	tracks: [earTrack],
	words: SOUND_WORDS,
	claims,
	figures,
	assess: assessSound,
	files: soundFiles,
	steps: (settings, _context, all) => [
		{
			id: 'first-sound',
			phase: 'check',
			do: 'Turn the amplifier\u2019s knob right down, switch it to the right input, then turn up slowly.',
			expect: claimsOn(all, 'sound').length
				? `You hear "${claimsOn(all, 'sound')[0]!.what}".`
				: 'You hear the first entry of the list.',
			caution: 'A full-scale tone through an open amplifier can harm ears and speakers. Begin quietly.',
			reading: 'position of the knob'
		},
		...(settings.cardId
			? [
					{
						id: 'rate-light',
						phase: 'check' as const,
						do: 'Read what rate the converter really gets.',
						command: `cat /proc/asound/${settings.cardId}/pcm${settings.deviceNumber}p/sub0/hw_params`,
						expect: 'The rate and format that the rehearsal foretold.',
						reading: 'rate and format'
					}
				]
			: [])
	],
	rehearse: rehearseSound
};
