import { CODEC_WORDS, type VideoCodec, type VideoShape } from '$core/parts/schema';

/** Film shapes that people meet, by codec and size. */
const SHAPES: readonly (readonly [VideoCodec, number, number, 8 | 10])[] = [
	['mpeg2', 576, 25, 8],
	['mpeg2', 1080, 25, 8],
	['h264', 720, 25, 8],
	['h264', 720, 50, 8],
	['h264', 1080, 25, 8],
	['h264', 1080, 50, 8],
	['h264', 2160, 30, 8],
	['h265', 720, 25, 8],
	['h265', 1080, 25, 8],
	['h265', 1080, 50, 10],
	['h265', 2160, 25, 10],
	['h265', 2160, 60, 10],
	['vp9', 1080, 30, 8],
	['vp9', 2160, 60, 10],
	['av1', 1080, 30, 8],
	['av1', 2160, 60, 10]
];
const WIDTHS: Readonly<Record<number, number>> = { 576: 720, 720: 1280, 1080: 1920, 2160: 3840 };

const shape = ([codec, heightPx, framesPerSec, bitDepth]: (typeof SHAPES)[number]): VideoShape => ({
	codec,
	widthPx: WIDTHS[heightPx]!,
	heightPx,
	framesPerSec,
	bitDepth
});
const textOf = (video: VideoShape): string =>
	`${CODEC_WORDS[video.codec]}, ${video.heightPx} lines, ${video.framesPerSec} a second, ${video.bitDepth} bit`;

export const filmId = (video: VideoShape | null): string =>
	video ? `${video.codec}-${video.widthPx}x${video.heightPx}-${video.framesPerSec}-${video.bitDepth}` : '';
export const FILMS: readonly { id: string; text: string; video: VideoShape }[] = SHAPES.map(shape).map((video) => ({
	id: filmId(video),
	text: textOf(video),
	video
}));
