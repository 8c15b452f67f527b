import type { Context } from '../../link';
import { amplifierFigures } from '../../parts/amplifier';
import { computeGainChain, type GainChain } from './gainChain';
import type { SoundSettings } from './settings';

/** Average of music mastered for streaming, below a full-scale sine. Typical. */
const AVERAGE_DBFS = -14;

/** One stage of the path from file to ear: average and peak in dB below the point where that stage clips. */
export interface Stage {
	readonly name: string;
	readonly averageDb: number;
	readonly peakDb: number;
	readonly text: string;
}

/** The chain at full scale and at the average of music. */
export interface Levels {
	readonly peak: GainChain;
	readonly average: GainChain;
	readonly stages: readonly Stage[];
}

/** Gain set before the converter's output, wherever it is set. */
export const volumeDb = (settings: SoundSettings): number => (settings.volumeAt === 'fixed' ? 0 : settings.volumeDb);

/** Null until converter, amplifier and speakers are chosen. The amplifier's own knob is taken as fully open: the loudest case. */
export function computeLevels(settings: SoundSettings, context: Context): Levels | null {
	const converter = context.part('converter', context.facts.parts.converter);
	const amplifier = context.part('amplifier', context.facts.parts.amplifier);
	const speakers = context.part('speakers', context.facts.parts.speakers);
	if (!converter || !amplifier || !speakers) return null;
	const { gainDb, clipVrms: limitVrms } = amplifierFigures(amplifier);
	const at = (signalDbfs: number): GainChain =>
		computeGainChain({
			dacFullScaleVrms: converter.fullScaleVrms,
			signalDbfs,
			digitalVolumeDb: volumeDb(settings),
			ampGainDb: gainDb,
			ampClipVrms: limitVrms,
			speakerOhm: speakers.ohm,
			sensitivityDb: speakers.sensitivityDb,
			sensitivityUnit: 'dB/2.83V/1m',
			distanceM: settings.distanceM,
			speakers: speakers.count,
			summing: 'power'
		});
	const peak = at(0);
	const average = at(AVERAGE_DBFS);
	const clip = (volts: number): number => 20 * Math.log10(volts / limitVrms);
	const volume = volumeDb(settings);
	const minus = (value: number, digits: number): string => value.toFixed(digits).replace('-', '\u2212');
	const stages: Stage[] = [
		{ name: 'file', averageDb: AVERAGE_DBFS, peakDb: 0, text: `${minus(AVERAGE_DBFS, 0)}\u2009dB` },
		{
			name: settings.volumeAt === 'fixed' ? 'no volume' : 'volume',
			averageDb: AVERAGE_DBFS + volume,
			peakDb: volume,
			text: `${minus(volume, 1)}\u2009dB`
		},
		{
			name: 'converter',
			averageDb: AVERAGE_DBFS + volume,
			peakDb: volume,
			text: `${average.ampInputVrms.toFixed(2)}\u2009V`
		},
		{
			name: 'amplifier',
			averageDb: clip(average.ampOutputVrms),
			peakDb: clip(peak.ampOutputVrms),
			text: `${average.powerPerSpeakerW < 0.1 ? average.powerPerSpeakerW.toFixed(3) : average.powerPerSpeakerW.toFixed(1)}\u2009W`
		},
		{
			name: 'at the seat',
			averageDb: clip(average.ampOutputVrms),
			peakDb: clip(peak.ampOutputVrms),
			text: `${average.splDb.toFixed(0)}\u2009dB`
		}
	];
	return { peak, average, stages };
}
