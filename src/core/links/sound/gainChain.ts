/**
 * Levels from file to ear. 0 dBFS is a full-scale sine, which the converter puts out as `fullScaleVrms`.
 * Sources: Ohm's law; IEC 60268-5, clause 20 (sensitivity at 2.83 V, 1 m). What distance and room do stands in `room.ts`.
 */
interface GainChainInput {
	readonly dacFullScaleVrms: number;
	readonly signalDbfs: number;
	readonly digitalVolumeDb: number;
	/** Voltage gain of the amplifier; from its rating by `amplifierFigures`. */
	readonly ampGainDb: number;
	/** Output voltage at which it clips. */
	readonly ampClipVrms: number;
	readonly speakerOhm: number;
	readonly sensitivityDb: number;
	readonly sensitivityUnit: 'dB/2.83V/1m' | 'dB/1W/1m';
	/** What distance and room make of the level at 1 m. */
	readonly fieldDb: number;
	/** Speakers in a row on one output, each with its share of the voltage. */
	readonly inSeries?: number;
	readonly speakers: number;
	/** power: unlike signals add 3 dB a pair. voltage: like signals in phase add 6 dB. */
	readonly summing: 'power' | 'voltage';
}

/** Volts along the way, and the level that they make. */
export interface GainChain {
	readonly ampInputVrms: number;
	readonly ampOutputVrms: number;
	readonly clipped: boolean;
	readonly powerPerSpeakerW: number;
	readonly splDb: number;
}

const ratioDb = (ratio: number): number => 20 * Math.log10(ratio);

/** Converter, volume, amplifier with its clip point, speakers: volts RMS, dB SPL at the listener. */
export function computeGainChain(chain: GainChainInput): GainChain {
	const ampInputVrms = chain.dacFullScaleVrms * 10 ** ((chain.digitalVolumeDb + chain.signalDbfs) / 20);
	const wantedVrms = ampInputVrms * 10 ** (chain.ampGainDb / 20);
	const ampOutputVrms = Math.min(wantedVrms, chain.ampClipVrms);
	const speakerVrms = ampOutputVrms / (chain.inSeries ?? 1);
	const powerPerSpeakerW = speakerVrms ** 2 / chain.speakerOhm;
	const atOneMetre =
		chain.sensitivityDb +
		(chain.sensitivityUnit === 'dB/1W/1m' ? 10 * Math.log10(powerPerSpeakerW) : ratioDb(speakerVrms / 2.83));
	const together = (chain.summing === 'voltage' ? 20 : 10) * Math.log10(chain.speakers);
	return {
		ampInputVrms,
		ampOutputVrms,
		clipped: wantedVrms > chain.ampClipVrms,
		powerPerSpeakerW,
		splDb: atOneMetre + chain.fieldDb + together
	};
}

/** What a volume in the samples costs: bits pushed out below the word. 6.0206 dB a bit. */
export function computeDigitalVolume(options: { volumeDb: number; sourceBits: number; wordBits: number }): {
	shiftBits: number;
	lostBits: number;
	bitsLeft: number;
	dynamicRangeDb: number;
} {
	const dbPerBit = 20 * Math.log10(2);
	const shiftBits = -options.volumeDb / dbPerBit;
	const lostBits = Math.min(options.sourceBits, Math.max(0, shiftBits - (options.wordBits - options.sourceBits)));
	const bitsLeft = options.sourceBits - lostBits;
	return { shiftBits, lostBits, bitsLeft, dynamicRangeDb: dbPerBit * bitsLeft };
}
