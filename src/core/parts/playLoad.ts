import type { PartOf, VideoCodec, VideoShape } from './schema';

/** Work per pixel against the easiest codec that is still in use. Typical of open decoders on such processors. */
const CODEC_WEIGHT: Readonly<Record<VideoCodec, number>> = { mpeg2: 0.6, h264: 1, h265: 1.8, vp9: 1.6, av1: 2.5 };
const TEN_BIT_WEIGHT = 1.35;
/** What a decoding circuit leaves to the processor: copying, timing, sound. Typical. */
const HARDWARE_SHARE = 0.15;
/** Playing sound, as million pixels a second of the same work. Typical. */
const SOUND_MPIX = 2;

/** Beyond this a busy moment of the film is late. Typical. */
export const MOST_SHARE = 0.8;

/** How busy playing keeps a board. */
export interface PlayLoad {
	/** Of all the board's processors together; above 1 it cannot keep up. */
	readonly share: number;
	readonly by: 'circuit' | 'processor';
}

/** Whether a decoding circuit takes a stream of this shape. */
export const decodes = (decoder: VideoShape, wanted: VideoShape): boolean =>
	decoder.codec === wanted.codec &&
	decoder.widthPx * decoder.heightPx >= wanted.widthPx * wanted.heightPx &&
	decoder.widthPx * decoder.heightPx * decoder.framesPerSec >= wanted.widthPx * wanted.heightPx * wanted.framesPerSec &&
	decoder.bitDepth >= wanted.bitDepth;

/** What decoding without a circuit asks, in megapixels a second of H.264 at 8 bits. */
export const softwareMpixPerSec = (video: VideoShape): number =>
	((video.widthPx * video.heightPx * video.framesPerSec) / 1e6) *
	CODEC_WEIGHT[video.codec] *
	(video.bitDepth > 8 ? TEN_BIT_WEIGHT : 1);

/** How much of the board's processors playing takes: sound alone, or a film by circuit or by program. */
export function playLoad(
	board: Pick<PartOf<'board'>, 'decoders' | 'softwareMpixPerSec'>,
	video: VideoShape | null
): PlayLoad {
	const soundShare = SOUND_MPIX / board.softwareMpixPerSec;
	if (!video) return { share: soundShare, by: 'processor' };
	if (board.decoders.some((decoder) => decodes(decoder, video)))
		return { share: Math.max(HARDWARE_SHARE, soundShare), by: 'circuit' };
	return { share: softwareMpixPerSec(video) / board.softwareMpixPerSec + soundShare, by: 'processor' };
}

/** Whether the board plays it only where its kernel has a driver for the circuit. */
export const needsCircuit = (
	board: Pick<PartOf<'board'>, 'decoders' | 'softwareMpixPerSec'>,
	video: VideoShape
): boolean => playLoad(board, video).by === 'circuit' && playLoad({ ...board, decoders: [] }, video).share > MOST_SHARE;
