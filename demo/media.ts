import { writeTone } from '$core/formats/wav/wav';
import type { Media } from '$core/parts/media';

/** Made-up sounds: each is computed when it is first asked for, so that none has to be shipped. */
const TONES = {
	'Harbour bell in A.wav': { pitchHz: 440, peakDbfs: -6, sampleRateHz: 44_100, channels: 2, durationMs: 4000 },
	'Night ferry.wav': { pitchHz: 262, peakDbfs: -9, sampleRateHz: 48_000, channels: 2, durationMs: 3000 },
	'Fog signal.wav': { pitchHz: 147, peakDbfs: -3, sampleRateHz: 48_000, channels: 1, durationMs: 5000 },
	'Line-up tone 440.wav': { pitchHz: 440, peakDbfs: -12, sampleRateHz: 44_100, channels: 2, durationMs: 5000 }
} as const;

const made = new Map<string, Uint8Array>();

/** The bytes of a piece of demo media, or null when it is none. */
export function demoMediaBytes(location: string): Uint8Array | null {
	const tone = (TONES as Record<string, (typeof TONES)[keyof typeof TONES]>)[location];
	if (!tone) return null;
	let bytes = made.get(location);
	if (!bytes) made.set(location, (bytes = writeTone({ ...tone, bitDepth: 16 })));
	return bytes;
}

const tones = Object.entries(TONES).map(([location, tone]): Media => ({
	location,
	codec: 'pcm',
	lossless: true,
	sampleRateHz: tone.sampleRateHz,
	bitDepth: 16,
	channels: tone.channels,
	bitRateBps: null,
	durationMs: tone.durationMs,
	sizeBytes: 44 + (tone.durationMs / 1000) * tone.sampleRateHz * tone.channels * 2,
	sha256: '',
	kept: 'demo',
	from: 'file'
}));

const stream = (location: string, codec: string, sampleRateHz: number, bitRateBps: number): Media => ({
	location,
	codec,
	lossless: false,
	sampleRateHz,
	bitDepth: 24,
	channels: 2,
	bitRateBps,
	durationMs: null,
	sizeBytes: null,
	sha256: '',
	kept: 'person',
	from: 'typed'
});

export const demoMedia: Media[] = [
	...tones,
	{
		location: 'Lens turning, studio.flac',
		codec: 'flac',
		lossless: true,
		sampleRateHz: 192_000,
		bitDepth: 24,
		channels: 2,
		bitRateBps: null,
		durationMs: 213_000,
		sizeBytes: 168_400_000,
		sha256: '',
		kept: 'person',
		from: 'file'
	},
	stream('http://radio.skerrin.example:8000/harbour', 'aac', 48_000, 128_000),
	stream('http://radio.skerrin.example:8000/night', 'mp3', 44_100, 192_000)
];
