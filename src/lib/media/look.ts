import { ALL_FORMATS, BlobSource, Input, type InputAudioTrack, type InputVideoTrack } from 'mediabunny';
import { chplChapters, commentChapters, id3Chapters, matroskaChapters, type Chapter } from '$core/formats/chapters';
import { readCodecString } from '$core/formats/codecString';
import { readDecoderConfig } from '$core/formats/decoderConfig';
import { readStillSize } from '$core/formats/picture/size';
import { readFlac } from '$core/formats/wav/flac';
import { SILENT_MEDIA, type Media, type MediaDetails } from '$core/parts/media';
import { fitLine } from '$core/basics/text';

/** What a file says of itself. */
export type FileFacts = Pick<
	Media,
	'codec' | 'lossless' | 'sampleRateHz' | 'bitDepth' | 'channels' | 'durationMs' | 'picture' | 'silent' | 'details'
>;
/** The facts of a file, and the picture that it carries of its cover. */
export interface Looked {
	readonly facts: FileFacts;
	readonly cover: Blob | null;
}

/** All that is read of a file's beginning at once: tags with a cover, or where chapters stand before what is played. */
const HEAD_BYTES = 2_000_000;
/** The library's names, as parts have them. */
const NAMES: Readonly<Record<string, string>> = { avc: 'h264', hevc: 'h265' };
/** Tracks that the library names but does not read. */
const UNREAD: Readonly<Record<string, string>> = { alac: 'alac' };
const LOSSLESS = /^(?:pcm|flac|alac)/;
/** Frames that are looked at to tell how they follow each other. */
const LOOKED_FRAMES = 300;

/** What a file says of itself; null: it is in no format that is read here, or only in part. Throws when it cannot be read at all. */
export async function lookAt(file: Blob): Promise<Looked | null> {
	const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
	const still = readStillSize(head);
	if (still.ok) {
		const { codec, widthPx, heightPx, bitDepth } = still.value;
		return {
			facts: await stillFacts(head, { codec, widthPx, heightPx, bitDepth }),
			cover: null
		};
	}
	const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
	try {
		return (await input.canRead()) ? await played(input, head) : null;
	} finally {
		input.dispose();
	}
}

/** Degrees clockwise by the number that cameras write. Source: Exif 2.32, tag 274. */
const EXIF_TURNS: Readonly<Record<number, 90 | 180 | 270>> = { 3: 180, 4: 180, 5: 90, 6: 90, 7: 270, 8: 270 };

/** Facts of a still picture of that size. */
export async function stillFacts(
	head: Uint8Array,
	size: { codec: string; widthPx: number; heightPx: number; bitDepth: number }
): Promise<FileFacts> {
	const { orientation } = await import('exifr');
	// What a camera wrote may be anything; a picture without it stands as it is.
	const turned = EXIF_TURNS[(await orientation(head.slice().buffer).catch(() => undefined)) ?? 0];
	return {
		...SILENT_MEDIA,
		codec: size.codec,
		lossless: size.codec === 'png',
		durationMs: null,
		picture: { ...size, framesPerSec: null },
		details: {
			container: size.codec === 'mjpeg' ? 'JPEG' : size.codec.toUpperCase(),
			...(turned ? { turnedDeg: turned } : {}),
			tags: {},
			chapters: []
		}
	};
}

async function played(input: Input, head: Uint8Array): Promise<Looked | null> {
	const { name: container } = await input.getFormat();
	const [shown, heard] = [await input.getPrimaryVideoTrack(), await input.getPrimaryAudioTrack()];
	// Of a broadcast's recording, pictures of MPEG-2 are not read: it must not pass for sound alone.
	if ((!shown && !heard) || (!shown && container === 'MPEG Transport Stream')) return null;
	const picture = shown && (await pictureOf(shown));
	const sound = heard && (await soundOf(heard, head));
	if ((shown && !picture) || (heard && !sound)) return null;
	const codec = sound?.codec ?? picture?.facts.codec;
	if (codec === undefined) return null;
	// A FLAC file says itself how long it is; counting its frames never ends where it is cut or damaged.
	const flac = container === 'FLAC' ? readFlac(head) : null;
	const durationMs =
		flac?.ok && flac.value.durationMs ? flac.value.durationMs : Math.round((await input.computeDuration()) * 1000);
	const tags = await input.getMetadataTags();
	const cover = tags.images?.find(({ kind }) => kind === 'coverFront') ?? tags.images?.[0];
	return {
		facts: {
			...(sound
				? { sampleRateHz: sound.sampleRateHz, bitDepth: sound.bitDepth, channels: sound.channels }
				: SILENT_MEDIA),
			codec,
			lossless: LOSSLESS.test(codec),
			durationMs: durationMs > 0 ? durationMs : null,
			...(picture ? { picture: picture.facts } : {}),
			details: {
				container: fitLine(container, 40),
				...(sound?.profile ? { soundProfile: sound.profile } : {}),
				...picture?.details,
				tags: tagsOf(tags),
				chapters: chaptersOf(head, tags.raw ?? {})
			}
		},
		cover: cover ? new Blob([cover.data as Uint8Array<ArrayBuffer>], { type: cover.mimeType }) : null
	};
}

async function soundOf(track: InputAudioTrack, head: Uint8Array) {
	const known = await track.getCodec();
	const codec = known ?? UNREAD[String(await track.getInternalCodecId())];
	if (!codec) return null;
	const flac = codec === 'flac' ? readFlac(head) : null;
	const pcmBits = Number(/^pcm-[suf](\d+)/.exec(codec)?.[1] ?? NaN);
	return {
		codec: codec.startsWith('pcm') || codec === 'ulaw' || codec === 'alaw' ? 'pcm' : (NAMES[codec] ?? codec),
		sampleRateHz: await track.getSampleRate(),
		channels: await track.getNumberOfChannels(),
		bitDepth: flac?.ok ? flac.value.bitDepth : pcmBits || (LOSSLESS.test(codec) ? 16 : 24),
		profile: readCodecString((await track.getCodecParameterString()) ?? '').words
	};
}

/** Transfers for screens brighter than plain ones. Source: W3C WebCodecs, VideoTransferCharacteristics. */
const BRIGHTER: Readonly<Record<string, 'pq' | 'hlg'>> = { pq: 'pq', hlg: 'hlg' };

const bytesOf = (source: AllowSharedBufferSource | undefined): Uint8Array | undefined =>
	source === undefined
		? undefined
		: ArrayBuffer.isView(source)
			? new Uint8Array(source.buffer, source.byteOffset, source.byteLength)
			: new Uint8Array(source);

async function pictureOf(track: InputVideoTrack) {
	const codec = await track.getCodec();
	if (!codec) return null;
	const said = readCodecString((await track.getCodecParameterString()) ?? '');
	const config = await track.getDecoderConfig();
	const frames = readDecoderConfig(NAMES[codec] ?? codec, bytesOf(config?.description));
	const rate = await track.computeFrameRateMetrics({ targetPacketCount: LOOKED_FRAMES });
	const colour = await track.getColorSpace();
	const hdr = BRIGHTER[String(colour.transfer)];
	const turned = await track.getRotation();
	const named = [colour.primaries, colour.transfer]
		.filter((name, n, all) => name && all.indexOf(name) === n)
		.join(', ');
	const details: Partial<MediaDetails> = {
		...(said.words ? { pictureProfile: fitLine(said.words, 80) } : {}),
		chroma: frames?.chroma ?? said.chroma,
		...(frames?.interlaced ? { interlaced: true } : {}),
		...(hdr ? { hdr } : {}),
		...(colour.fullRange == null ? {} : { range: colour.fullRange ? 'full' : 'limited' }),
		...(named ? { colour: fitLine(named, 80) } : {}),
		...(rate.frameRateIsConstant ? {} : { rateVaries: true }),
		...(turned ? { turnedDeg: turned } : {})
	};
	return {
		facts: {
			codec: NAMES[codec] ?? codec,
			widthPx: await track.getCodedWidth(),
			heightPx: await track.getCodedHeight(),
			framesPerSec: rate.bestGuessFrameRate || null,
			bitDepth: frames?.bitDepth ?? said.bitDepth
		},
		details
	};
}

type Tags = Awaited<ReturnType<Input['getMetadataTags']>>;

function tagsOf({ title, artist, albumArtist, album, genre, date, trackNumber }: Tags): MediaDetails['tags'] {
	const line = (key: string, text: string | undefined) =>
		text && fitLine(text, 300) ? { [key]: fitLine(text, 300) } : {};
	const whole = date && !Number.isNaN(date.getTime()) ? date.toISOString().slice(0, 10) : undefined;
	return {
		...line('title', title),
		...line('artist', artist ?? albumArtist),
		...line('album', album),
		...line('genre', genre),
		// A year alone comes as its first day.
		...line('date', whole?.replace(/-01-01$/, '')),
		...(trackNumber && trackNumber >= 1 && trackNumber <= 9999 ? { track: Math.trunc(trackNumber) } : {})
	};
}

function chaptersOf(head: Uint8Array, raw: NonNullable<Tags['raw']>): Chapter[] {
	const chpl = raw.chpl;
	for (const found of [
		chpl instanceof Uint8Array ? chplChapters(chpl) : [],
		commentChapters(raw),
		id3Chapters(head),
		matroskaChapters(head)
	])
		if (found.length) return found;
	return [];
}
