import { SILENT_MEDIA, type Media } from '$core/parts/media';

/** Made-up sounds: each is computed when it is first asked for, so that none has to be shipped. */
export const TONES = {
	'Harbour bell in A.wav': { pitchHz: 440, peakDbfs: -6, sampleRateHz: 44_100, channels: 2, durationMs: 4000 },
	'Night ferry.wav': { pitchHz: 262, peakDbfs: -9, sampleRateHz: 48_000, channels: 2, durationMs: 3000 },
	'Fog signal.wav': { pitchHz: 147, peakDbfs: -3, sampleRateHz: 48_000, channels: 1, durationMs: 5000 },
	'Line-up tone 440.wav': { pitchHz: 440, peakDbfs: -12, sampleRateHz: 44_100, channels: 2, durationMs: 5000 }
} as const;

/** Posters for the ticket hatch, each drawn when it is first asked for: its lines, and the size of its file. */
export const POSTERS: Readonly<Record<string, { readonly lines: readonly string[]; readonly sizeBytes: number }>> = {
	'Ferry times.png': {
		lines: ['FERRY', '', 'OUT  09:40', 'BACK 11:15', '', 'OUT  14:05', 'BACK 16:30'],
		sizeBytes: 21_639
	},
	'Opening hours.png': {
		lines: ['OPEN', '', 'MON - SAT', '10:00 - 17:00', '', 'SUNDAY', '12:00 - 16:00'],
		sizeBytes: 21_511
	},
	'Mind the steps.png': { lines: ['MIND', 'THE STEPS', '', '144 UP', '144 DOWN'], sizeBytes: 20_944 }
};
/** All of them in portrait. */
export const POSTER = { widthPx: 1080, heightPx: 1920 };
/** The film in the lamp room. */
export const FILM = 'Lens turning.mp4';

const of = (
	location: string,
	sizeBytes: number
): Pick<Media, 'location' | 'bitRateBps' | 'sizeBytes' | 'sha256' | 'kept' | 'from'> => ({
	location,
	bitRateBps: null,
	sizeBytes,
	sha256: '',
	kept: 'demo',
	from: 'file'
});
const posters = Object.entries(POSTERS).map(([location, { sizeBytes }]): Media => ({
	...of(location, sizeBytes),
	...SILENT_MEDIA,
	codec: 'png',
	lossless: true,
	durationMs: null,
	picture: { codec: 'png', ...POSTER, bitDepth: 8, framesPerSec: null }
}));
const film: Media = {
	...of(FILM, 92_231),
	codec: 'aac',
	lossless: false,
	sampleRateHz: 48_000,
	bitDepth: 16,
	channels: 2,
	durationMs: 8000,
	picture: { codec: 'h264', widthPx: 1280, heightPx: 720, bitDepth: 8, framesPerSec: 25 }
};

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
	...posters,
	film,
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
	{
		location: '/srv/music/Evenings/Slow tide.flac',
		codec: 'flac',
		lossless: true,
		sampleRateHz: 44_100,
		bitDepth: 16,
		channels: 2,
		bitRateBps: null,
		durationMs: 254_000,
		sizeBytes: 27_900_000,
		sha256: '',
		kept: 'person',
		from: 'file'
	},
	// On the keeper’s stick, which is in no card set.
	{
		location: '/srv/stick/Lighting the lamp.mp4',
		codec: 'aac',
		lossless: false,
		sampleRateHz: 48_000,
		bitDepth: 16,
		channels: 2,
		bitRateBps: null,
		durationMs: 192_000,
		sizeBytes: 68_400_000,
		sha256: '',
		kept: 'person',
		from: 'file',
		picture: { codec: 'h264', widthPx: 720, heightPx: 576, framesPerSec: 25, bitDepth: 8 },
		// Off an old camera: each frame is two fields, which is one of the mistakes.
		details: { container: 'MP4', chroma: '4:2:0', interlaced: true, tags: {}, chapters: [] }
	},
	stream('http://radio.skerrin.example:8000/harbour', 'aac', 48_000, 128_000),
	stream('http://radio.skerrin.example:8000/night', 'mp3', 44_100, 192_000)
];
