import type { SoundShape } from '../../parts/media';
import { SAMPLE_BITS, type Playback } from '../../parts/schema';

/** What becomes of a source on its way into a converter. */
export type Verdict = 'untouched' | 'decoded' | 'scaled' | 'narrowed' | 'mixed' | 'resampled' | 'refused' | 'unknown';

/** What becomes of one source's samples. */
export interface Treatment {
	readonly verdict: Verdict;
	readonly sampleRateHz: number;
	readonly bitDepth: number;
	readonly channels: number;
	/** For people: "untouched", "resampled from 192 kHz". */
	readonly words: string;
}

/** All that decides what becomes of samples on their way. */
export interface Route {
	readonly playback: Playback;
	readonly door: 'hw' | 'iec958' | 'hdmi';
	/** All sources are brought to this rate, or each keeps its own where it can. */
	readonly forcedRateHz: number | null;
	/** Gain applied to the samples before they reach the converter. */
	readonly gainDb: number;
}

/** The device's rate nearest to the wanted one, as ALSA chooses (snd_pcm_hw_params_set_rate_near). */
const nearest = (wanted: number, offered: readonly number[]): number =>
	offered.reduce((best, rate) => (Math.abs(rate - wanted) < Math.abs(best - wanted) ? rate : best));

const kHz = (hz: number): string => `${hz / 1000}\u2009kHz`;

/** The rules by which the player and ALSA agree on rate, width and channels. */
export function treat(shape: SoundShape | null, route: Route): Treatment {
	const { playback } = route;
	const linear = playback.formats.filter((format) => format !== 'IEC958_SUBFRAME_LE');
	const bits = Math.max(...(linear.length ? linear : playback.formats).map((format) => SAMPLE_BITS[format]));
	if (route.door === 'hw' && linear.length === 0)
		return { verdict: 'refused', sampleRateHz: 0, bitDepth: 0, channels: 0, words: 'refused by this output' };
	if (!shape) return { verdict: 'unknown', sampleRateHz: 0, bitDepth: 0, channels: 0, words: 'unknown' };

	const sampleRateHz = nearest(route.forcedRateHz ?? shape.sampleRateHz, playback.ratesHz);
	const channels = playback.channels.includes(shape.channels)
		? shape.channels
		: nearest(shape.channels, playback.channels);
	const bitDepth = shape.lossless ? Math.min(shape.bitDepth, bits) : Math.min(24, bits);
	const at = { sampleRateHz, bitDepth, channels };
	if (sampleRateHz !== shape.sampleRateHz)
		return { ...at, verdict: 'resampled', words: `resampled from ${kHz(shape.sampleRateHz)}` };
	if (channels < shape.channels)
		return { ...at, verdict: 'mixed', words: `${shape.channels} channels mixed to ${channels}` };
	if (shape.lossless && bitDepth < shape.bitDepth)
		return { ...at, verdict: 'narrowed', words: `cut from ${shape.bitDepth} to ${bitDepth} bit` };
	if (route.gainDb < 0) return { ...at, verdict: 'scaled', words: 'own rate, volume set in the player' };
	if (!shape.lossless) return { ...at, verdict: 'decoded', words: `decoded ${shape.codec}, own rate` };
	if (channels > shape.channels)
		return { ...at, verdict: 'mixed', words: `${shape.channels} channel spread to ${channels}` };
	return { ...at, verdict: 'untouched', words: 'untouched' };
}
