import type { Context } from '../link/context';
import { chosenParts } from './chosen';
import type { Draw, Part, PartOf } from './schema';

/** Gain and clipping point from an amplifier's rating: so many watts into so many ohms for its input sensitivity. */
export function amplifierFigures(amplifier: Pick<PartOf<'amplifier'>, 'ratedW' | 'ratedOhm' | 'sensitivityVrms'>): {
	gainDb: number;
	clipVrms: number;
} {
	const clipVrms = Math.sqrt(amplifier.ratedW * amplifier.ratedOhm);
	return { gainDb: 20 * Math.log10(clipVrms / amplifier.sensitivityVrms), clipVrms };
}

type Output = NonNullable<PartOf<'converter'>['amplifier']>;

/** What drives the speakers, whichever part it is in. */
export interface Driver extends Omit<Output, 'leastOhm' | 'draw'> {
	readonly part: Part;
	readonly name: string;
	readonly leastOhm: number;
	/** Its speakers are built in with it, and fit. */
	readonly builtIn: boolean;
	readonly draw: Draw | null;
}

/** The chosen amplifier; without one, the converter's own. Null when neither is there. */
export function driverOf(context: Context): Driver | null {
	const { parts } = context.facts;
	const amplifier = context.part('amplifier', parts.amplifier);
	const converter = context.part('converter', parts.converter);
	const part = amplifier ?? converter;
	const output = amplifier ?? converter?.amplifier;
	if (!part || !output) return null;
	return {
		...output,
		part,
		name: part.name,
		leastOhm: output.leastOhm ?? output.ratedOhm,
		builtIn: amplifier?.builtIn ?? false
	};
}

/** What hangs on each channel of an amplifier. */
export interface Load {
	/** Speakers on the fullest channel. */
	readonly onOneChannel: number;
	readonly ratedOhm: number;
	/** At the frequency at which it is lowest. */
	readonly leastOhm: number;
	/** Of these in a row, each has its share of the voltage. */
	readonly inSeries: number;
}

/** Speakers shared out among the channels, those of one channel all in parallel or all in series. Source: Ohm's law; IEC 60268-5, 16.1. */
export function loadOf(
	speakers: Pick<PartOf<'speakers'>, 'ohm' | 'leastOhm' | 'count'>,
	channels: number,
	wiring: 'parallel' | 'series'
): Load {
	const onOneChannel = Math.ceil(speakers.count / channels);
	const factor = wiring === 'series' ? onOneChannel : 1 / onOneChannel;
	return {
		onOneChannel,
		ratedOhm: speakers.ohm * factor,
		leastOhm: (speakers.leastOhm ?? 0.8 * speakers.ohm) * factor,
		inSeries: wiring === 'series' ? onOneChannel : 1
	};
}

/** What the converter gives at full scale, behind whatever stands between it and the amplifier, V RMS. */
export function outputVrms({ fullScaleVrms }: PartOf<'converter'>, context: Context): number {
	const lossDb = chosenParts(context).reduce(
		(sum, { part, count }) => sum + (part.kind === 'sound-accessory' ? part.lossDb * count : 0),
		0
	);
	return fullScaleVrms * 10 ** (-lossDb / 20);
}
