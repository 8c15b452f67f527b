import { z } from 'zod';
import { lineText } from '../plan/text';

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
