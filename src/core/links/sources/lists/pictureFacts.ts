import { framesPerSec, readMp4 } from '../../../formats/mp4';
import { readStillSize } from '../../../formats/picture/size';
import { SILENT_MEDIA, type PlayedMedia } from '../../../parts/media';

/** Facts of a film or a still picture from its own bytes; null: it is neither, or none that is known here. */
export function pictureFacts(bytes: Uint8Array): Omit<PlayedMedia, 'level'> | null {
	const still = readStillSize(bytes);
	if (still.ok) {
		const { codec, widthPx, heightPx, bitDepth } = still.value;
		return {
			...SILENT_MEDIA,
			codec,
			lossless: codec === 'png',
			durationMs: null,
			picture: { codec, widthPx, heightPx, bitDepth, framesPerSec: null }
		};
	}
	const film = readMp4(bytes);
	if (!film.ok) return null;
	const shown = film.value.tracks.find(({ kind }) => kind === 'picture');
	const heard = film.value.tracks.find(({ kind }) => kind === 'sound');
	const rate = shown && framesPerSec(shown);
	return {
		...(heard && heard.sampleRateHz >= 4000
			? { sampleRateHz: heard.sampleRateHz, bitDepth: 16, channels: Math.max(1, heard.channels) }
			: SILENT_MEDIA),
		codec: heard?.codec ?? shown?.codec ?? 'none',
		lossless: false,
		durationMs: film.value.durationMs || null,
		...(shown && rate && shown.widthPx > 0 && shown.heightPx > 0
			? {
					picture: {
						codec: shown.codec,
						widthPx: shown.widthPx,
						heightPx: shown.heightPx,
						bitDepth: shown.bitDepth,
						framesPerSec: rate
					}
				}
			: {})
	};
}
