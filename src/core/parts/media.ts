import { z } from 'zod';
import { CHAPTER_TITLE, MOST_CHAPTERS } from '../formats/chapters';
import { CHROMAS } from '../formats/codecString';
import { lineText } from '../basics/text';

/** How a film's frames are made, or a still picture; framesPerSec of null: a still. */
export const playedPictureSchema = z.object({
	codec: lineText(20),
	widthPx: z.number().int().min(1).max(65_535),
	heightPx: z.number().int().min(1).max(65_535),
	framesPerSec: z.number().min(0.01).max(1000).nullable(),
	bitDepth: z.number().int().min(1).max(16)
});
/** The same, as a type. */
export type PlayedPicture = z.infer<typeof playedPictureSchema>;

/** What stands in for the samples of something without sound. */
export const SILENT_MEDIA = { sampleRateHz: 48_000, bitDepth: 16, channels: 2, silent: true } as const;

const tag = lineText(300).optional();
/** Of one file, what its own head, tags and samples say beyond what a plan is reckoned with. */
export const mediaDetailsSchema = z.object({
	/** As in "MP4", "Matroska". */
	container: lineText(40),
	/** "LC"; "High, level 4.1". */
	soundProfile: lineText(80).optional(),
	pictureProfile: lineText(80).optional(),
	chroma: z.enum(CHROMAS).optional(),
	range: z.enum(['limited', 'full']).optional(),
	/** Primaries and transfer as ITU-T H.273 names them, such as "bt709"; absent: it does not say. */
	colour: lineText(80).optional(),
	/** Each frame is made of two fields, half a frame apart. */
	interlaced: z.literal(true).optional(),
	/** Brighter than a plain screen shows: by SMPTE ST 2084, or ARIB STD-B67. */
	hdr: z.enum(['pq', 'hlg']).optional(),
	/** The frames do not stand equally long. */
	rateVaries: z.literal(true).optional(),
	/** Clockwise, so that it stands upright. */
	turnedDeg: z.union([z.literal(90), z.literal(180), z.literal(270)]).optional(),
	tags: z.object({
		title: tag,
		artist: tag,
		album: tag,
		genre: tag,
		date: tag,
		track: z.number().int().min(1).max(9999).optional()
	}),
	chapters: z.array(z.object({ startMs: z.number().int().min(0), title: lineText(CHAPTER_TITLE) })).max(MOST_CHAPTERS),
	/** ITU-R BS.1770-4: LUFS, LU, dBTP; null where nothing is loud enough. Absent: not measured. */
	loudness: z
		.object({
			integratedLufs: z.number().min(-80).max(20).nullable(),
			rangeLu: z.number().min(0).max(120).nullable(),
			truePeakDbtp: z.number().min(-200).max(60).nullable()
		})
		.optional()
});
/** The same, as a type. */
export type MediaDetails = z.infer<typeof mediaDetailsSchema>;

/** Facts about one piece of media or one stream, whoever found them out. Keyed by its location. */
export const mediaSchema = z.object({
	location: lineText(2000).min(1),
	codec: lineText(40),
	lossless: z.boolean(),
	sampleRateHz: z.number().int().min(4000).max(3_000_000),
	bitDepth: z.number().int().min(8).max(64),
	channels: z.number().int().min(1).max(32),
	/** It holds no sound: what is said of samples means nothing. */
	silent: z.literal(true).optional(),
	/** What it shows; absent: only sound. */
	picture: playedPictureSchema.optional(),
	/** bit/s of a stream; null for files. */
	bitRateBps: z.number().positive().nullable(),
	durationMs: z.number().positive().nullable(),
	sizeBytes: z.number().int().min(0).nullable(),
	/** SHA-256 of the file, by which it is known again under any name; "": nobody has worked it out. */
	sha256: z.string().regex(/^([0-9a-f]{64})?$/),
	/** What else the file says of itself; absent: nobody has looked into it. */
	details: mediaDetailsSchema.optional(),
	/** Where the bytes are, when the app has them: shipped with the demo, kept in this browser, or only with the person. */
	kept: z.enum(['demo', 'browser', 'person']),
	/** From the file itself, typed by the person, or assumed from the codec. */
	from: z.enum(['file', 'typed', 'assumed'])
});
/** One file or stream, as far as its header says. */
export type Media = z.infer<typeof mediaSchema>;

/** How one source's samples are made. */
export interface SoundShape {
	readonly sampleRateHz: number;
	readonly bitDepth: number;
	readonly channels: number;
	readonly codec: string;
	readonly lossless: boolean;
}

/** Something that is played, as its samples are made. */
export interface PlayedMedia extends SoundShape {
	/** null: endless. */
	readonly durationMs: number | null;
	readonly silent?: true | undefined;
	readonly picture?: PlayedPicture | undefined;
	readonly level: { readonly rmsDbfs: number; readonly pitchHz: number | null } | null;
}
