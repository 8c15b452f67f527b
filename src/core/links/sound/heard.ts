/** What reaches the ear while there is sound. */
export interface Heard {
	readonly title: string;
	/** The place by which it was opened. */
	readonly id: string;
	readonly sampleRateHz: number;
	readonly bitDepth: number;
	readonly channels: number;
	readonly treatment: string;
	/** RMS at the converter's input as a meter shows it (full-scale square = 0 dB); null when the source's level is unknown. */
	readonly rmsDbfs: number | null;
	readonly pitchHz: number | null;
	/** Sound pressure at the listener for a full-scale sine at this volume; null without amplifier and speakers. */
	readonly loudestDb: number | null;
}
