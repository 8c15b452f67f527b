/**
 * The sound: which converter, by which lasting name, what becomes of each source's samples, and how loud it is at the ear.
 * Standards: ALSA's device names and configuration; IEC 60268-5 for speakers. Start at `treatment.ts` and `gainChain.ts`.
 */
import { claimsOn } from '../../claims';
import { formatHz, withUnit } from '../../basics/format';
import type { Context, Figure, Link } from '../../link';
import { soundBench, soundBenchShape } from './bench';
import { soundClaims } from './claims';
import { soundFiles } from './files';
import { assessSound } from './findings';
import { computeLevels } from './levels';
import { rehearseSound, SOUND_FAULTS } from './rehearse';
import { playbackOf } from './route';
import { calmSound, soundSettings, type SoundSettings } from './settings';
import { earTrack } from './track';
import { SOUND_WORDS } from './words';
import './offers';

const TRAVELS = { follow: 'direct', fixed: 'one rate', shared: 'shared' } as const;
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

/** The link from samples to the listener. */
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
	claims: soundClaims,
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
