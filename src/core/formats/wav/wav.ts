import { fault, ok, type Result } from '../../basics/result';

/**
 * RIFF WAVE with linear PCM. Source: "Multimedia Programming Interface and Data Specifications 1.0" (1991), chapter 3;
 * WAVE_FORMAT_EXTENSIBLE from the 1999 revision (its sub-format begins with the plain format tag).
 */
interface WavFacts {
	readonly sampleRateHz: number;
	readonly bitDepth: number;
	readonly channels: number;
	readonly frames: number;
	readonly durationMs: number;
	readonly dataOffset: number;
	readonly dataBytes: number;
}

/** Faults: `wav-none`, `wav-not-pcm`, `wav-cut`. */
export function readWav(bytes: Uint8Array): Result<WavFacts> {
	const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
	const tag = (at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));
	if (bytes.length < 12 || tag(0) !== 'RIFF' || tag(8) !== 'WAVE') return fault('wav-none', 'This is not a WAV file.');
	let format: { sampleRateHz: number; bitDepth: number; channels: number } | null = null;
	for (let at = 12; at + 8 <= bytes.length;) {
		const size = view.getUint32(at + 4, true);
		const body = at + 8;
		if (tag(at) === 'fmt ' && body + 16 <= bytes.length) {
			const code =
				view.getUint16(body, true) === 0xfffe && body + 26 <= bytes.length
					? view.getUint16(body + 24, true)
					: view.getUint16(body, true);
			if (code !== 1)
				return fault(
					'wav-not-pcm',
					`This WAV file holds format ${code}, not plain samples. Convert it to 16 or 24 bit PCM.`
				);
			format = {
				channels: view.getUint16(body + 2, true),
				sampleRateHz: view.getUint32(body + 4, true),
				bitDepth: view.getUint16(body + 14, true)
			};
		} else if (tag(at) === 'data' && format && format.sampleRateHz > 0 && format.channels > 0 && format.bitDepth >= 8) {
			const dataBytes = Math.min(size, bytes.length - body);
			const frames = Math.floor(dataBytes / (format.channels * (format.bitDepth / 8)));
			return ok({
				...format,
				frames,
				durationMs: Math.round((frames / format.sampleRateHz) * 1000),
				dataOffset: body,
				dataBytes
			});
		}
		at = body + size + (size % 2);
	}
	return fault('wav-cut', 'The WAV file ends before its samples begin. Copy it again.');
}

/** What an ear or a meter would say of a piece of sound. dBFS is relative to a full-scale sine (0 dBFS RMS = amplitude 1/√2). */
interface HeardLevel {
	readonly rmsDbfs: number;
	readonly peakDbfs: number;
	/** The pitch where the sound is one steady tone, else null. */
	readonly pitchHz: number | null;
}

const ANALYSED_FRAMES = 96_000;

/**
 * Level and pitch of the first seconds, all channels averaged as a meter's mono sum.
 * `rmsDbfs` follows the meter convention in which a full-scale square wave reads 0 dB, so a full-scale sine reads -3.01 dB.
 */
export function measureWav(bytes: Uint8Array, facts: WavFacts): HeardLevel {
	const count = Math.min(facts.frames, ANALYSED_FRAMES);
	const samples = new Float64Array(count);
	const bytesPer = facts.bitDepth / 8;
	const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
	let peak = 0;
	let sum = 0;
	for (let i = 0; i < count; i++) {
		let mono = 0;
		for (let c = 0; c < facts.channels; c++)
			mono += sampleAt(view, facts.dataOffset + (i * facts.channels + c) * bytesPer, bytesPer);
		mono /= facts.channels;
		samples[i] = mono;
		peak = Math.max(peak, Math.abs(mono));
		sum += mono * mono;
	}
	const decibels = (ratio: number): number => (ratio > 0 ? 20 * Math.log10(ratio) : -Infinity);
	return {
		rmsDbfs: decibels(Math.sqrt(sum / Math.max(1, count))),
		peakDbfs: decibels(peak),
		pitchHz: steadyPitch(samples, facts.sampleRateHz)
	};
}

function sampleAt(view: DataView, at: number, bytesPer: number): number {
	if (bytesPer === 1) return (view.getUint8(at) - 128) / 128;
	if (bytesPer === 2) return view.getInt16(at, true) / 32768;
	if (bytesPer === 3) return ((view.getInt8(at + 2) << 16) | view.getUint16(at, true)) / 8388608;
	return view.getInt32(at, true) / 2147483648;
}

/** Rising zero crossings, interpolated; steady when every period is within 3 % of their mean. */
function steadyPitch(samples: Float64Array, sampleRateHz: number): number | null {
	const crossings: number[] = [];
	for (let i = 1; i < samples.length; i++) {
		const before = samples[i - 1]!;
		const now = samples[i]!;
		if (before < 0 && now >= 0) crossings.push(i - 1 + before / (before - now));
	}
	if (crossings.length < 8) return null;
	const mean = (crossings.at(-1)! - crossings[0]!) / (crossings.length - 1);
	const steady = crossings.every((at, i) => i === 0 || Math.abs(at - crossings[i - 1]! - mean) < 0.03 * mean);
	return steady ? sampleRateHz / mean : null;
}

/** A WAV file of one sine tone: `peakDbfs` at or below 0, equal on all channels. Used for test tones. */
export function writeTone(options: {
	pitchHz: number;
	peakDbfs: number;
	sampleRateHz: number;
	bitDepth: 16;
	channels: number;
	durationMs: number;
}): Uint8Array {
	const frames = Math.round((options.durationMs / 1000) * options.sampleRateHz);
	const dataBytes = frames * options.channels * 2;
	const bytes = new Uint8Array(44 + dataBytes);
	const view = new DataView(bytes.buffer);
	const text = (at: number, value: string): void =>
		[...value].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
	text(0, 'RIFF');
	view.setUint32(4, 36 + dataBytes, true);
	text(8, 'WAVEfmt ');
	view.setUint32(16, 16, true);
	view.setUint16(20, 1, true);
	view.setUint16(22, options.channels, true);
	view.setUint32(24, options.sampleRateHz, true);
	view.setUint32(28, options.sampleRateHz * options.channels * 2, true);
	view.setUint16(32, options.channels * 2, true);
	view.setUint16(34, 16, true);
	text(36, 'data');
	view.setUint32(40, dataBytes, true);
	const amplitude = 32767 * 10 ** (options.peakDbfs / 20);
	for (let i = 0; i < frames; i++) {
		const value = Math.round(amplitude * Math.sin((2 * Math.PI * options.pitchHz * i) / options.sampleRateHz));
		for (let c = 0; c < options.channels; c++) view.setInt16(44 + (i * options.channels + c) * 2, value, true);
	}
	return bytes;
}
