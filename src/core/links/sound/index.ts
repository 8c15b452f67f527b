/**
 * The sound: which converter, by which lasting name, what becomes of each source's samples, and how loud it is at the ear.
 * Standards: ALSA's device names and configuration; IEC 60268-5 for speakers. Start at `treatment.ts` and `gainChain.ts`.
 */
import { formatHz, withUnit } from '../../basics/format';
import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import type { Link } from '../../link';
import { soundClaims } from './claims';
import { minutesADay, shareInWords } from './dose';
import { computeLevels, rangeDb } from './levels';
import { SOUND_FAULTS } from './faults';
import { playbackOf } from './route';
import { calmSound, soundSettings, type SoundSettings } from './settings';
import { earTrack } from './track';
import './offers';

const TRAVELS = { follow: 'direct', fixed: 'one rate', shared: 'shared' } as const;
const JOINTS = {
	usb: 'USB converter',
	header: 'header converter',
	jack: 'jack',
	optical: 'optical out',
	display: 'display sound'
} as const;

const PLACES = {
	unknown: 'from the open air to a small tiled room',
	room: 'from a speaker that beams to one that does not',
	outdoors: 'from open ground to a wall near by'
} as const;

function figures(settings: SoundSettings, context: Context): Figure[] {
	const converter = context.part('converter', context.facts.parts.converter);
	const found = playbackOf(settings, context);
	const levels = computeLevels(settings, context);
	const out: Figure[] = [
		{
			id: 'way',
			setting: 'parts.converter',
			label: 'Output',
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
			setting: 'parts.converter',
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
				setting: 'sound.place',
				label: 'Music at the listener',
				text: rangeDb(levels.average.splDb, levels.uncertainDb),
				value: levels.average.splDb,
				sure: 'typical',
				from: `Music 14\u2009dB below full scale, amplifier fully open, ${settings.distanceM}\u2009m away: direct and reflected sound together, ${PLACES[settings.place]}.`
			},
			{
				id: 'loudest',
				setting: 'sound.loudestDb',
				label: 'Loudest passage',
				text: rangeDb(levels.peak.splDb, levels.uncertainDb),
				value: levels.peak.splDb,
				sure: 'typical',
				from: `Full scale; you allow ${settings.loudestDb}\u2009dB.`
			},
			{
				id: 'dose',
				setting: 'sound.loudestDb',
				label: 'Music at this level, a day',
				text: shareInWords(levels.average.splDb),
				value: Math.min(24 * 60, minutesADay(levels.average.splDb)),
				sure: 'typical',
				from: 'Until ears have had a day\u2019s share: 85\u2009dB for 8 hours, half as long for each 3\u2009dB more. Source: Directive 2003/10/EC, 3; ISO 1999.'
			},
			{
				id: 'watts',
				setting: 'parts.amplifier',
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
	version: 5,
	migrations: {
		1: (saved) => ({ used: true, ...saved }),
		2: (saved) => ({
			place: 'unknown',
			roomM3: 60,
			furnishing: 'ordinary',
			reverbSec: 0.5,
			wiring: 'parallel',
			...saved
		}),
		3: (saved) => ({ overlay: '', ...saved }),
		4: (saved) => ({ cardFor: '', ...saved })
	},
	empty: ({ kind }) => ({ ...calmSound, used: kind !== 'recorder' }),
	use: { is: ({ used }) => used, set: (settings, used) => ({ ...settings, used }) },
	key: 'a',
	place: {
		column: 'out',
		row: 1,
		wires: [{ from: 'parts', carries: 'signal' }],
		end: { sense: 'ear', figure: 'average', words: 'music at the listener', without: 'choose amplifier and speakers' }
	},
	publish: ({ cardId, travel, fixedRateHz }) => ({
		cardId,
		soundShared: travel === 'shared',
		soundRateHz: travel === 'follow' ? null : fixedRateHz
	}),
	changes: { shareSound: () => changing<SoundSettings>('sound')({ travel: 'shared' }) },
	faults: SOUND_FAULTS,
	tracks: [earTrack],
	claims: soundClaims,
	figures
};
