import type { Context } from '../../link/context';
import { amplifierFigures, driverOf, loadOf, outputVrms } from '../../parts/amplifier';
import { computeGainChain, type GainChain } from './gainChain';
import { fieldOf } from './room';
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
	/** In the room that makes most of it: what must hold for ears. */
	readonly peak: GainChain;
	readonly average: GainChain;
	/** How much less it may be, dB. */
	readonly uncertainDb: number;
	readonly stages: readonly Stage[];
}

/** Gain set before the converter's output, wherever it is set. */
export const volumeDb = (settings: SoundSettings): number => (settings.volumeAt === 'fixed' ? 0 : settings.volumeDb);

/** "84–92 dB"; one figure where both ends round to the same. */
export function rangeDb(mostDb: number, uncertainDb: number): string {
	const [least, most] = [(mostDb - uncertainDb).toFixed(0), mostDb.toFixed(0)];
	return least === most ? `${most}\u2009dB` : `${least}\u2013${most}\u2009dB`;
}

/** Null until converter, amplifier and speakers are chosen. The amplifier's own knob is taken as fully open: the loudest case. */
export function computeLevels(settings: SoundSettings, context: Context): Levels | null {
	const converter = context.part('converter', context.facts.parts.converter);
	const driver = driverOf(context);
	const speakers = context.part('speakers', context.facts.parts.speakers);
	if (!converter || !driver || !speakers) return null;
	const { gainDb, clipVrms: limitVrms } = amplifierFigures(driver);
	const field = fieldOf(settings, speakers.atEar);
	const { inSeries } = loadOf(speakers, driver.channels, settings.wiring);
	const at = (signalDbfs: number): GainChain =>
		computeGainChain({
			dacFullScaleVrms: outputVrms(converter, context),
			signalDbfs,
			digitalVolumeDb: volumeDb(settings),
			ampGainDb: gainDb,
			ampClipVrms: limitVrms,
			speakerOhm: speakers.ohm,
			sensitivityDb: speakers.sensitivityDb,
			sensitivityUnit: 'dB/2.83V/1m',
			fieldDb: field.most,
			inSeries,
			speakers: speakers.atEar ? 1 : speakers.count,
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
			text: rangeDb(average.splDb, field.most - field.least)
		}
	];
	return { peak, average, uncertainDb: field.most - field.least, stages };
}
