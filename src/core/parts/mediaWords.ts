import { formatBps, formatBytes, formatHz, formatSeconds } from '../basics/format';
import type { Media } from './media';

type Line = readonly [name: string, text: string];

const channelWords = (channels: number): string =>
	channels === 1 ? 'mono' : channels === 2 ? 'stereo' : `${channels} channels`;
const level = (value: number | null, unit: string): string =>
	value === null ? 'none' : `${value.toFixed(1).replace('-', '\u2212')}\u2009${unit}`;
const joined = (...parts: readonly (string | false | undefined)[]): string => parts.filter(Boolean).join(', ');

/** What is known of a file or stream, each with its name; nothing that nobody has said. */
export function mediaWords(media: Omit<Media, 'location' | 'sha256' | 'kept' | 'from'>): Line[] {
	const { picture, details, silent, durationMs, sizeBytes, bitRateBps } = media;
	const { tags } = details ?? {};
	const out: Line[] = [];
	if (tags?.artist) out.push(['Artist', tags.artist]);
	if (tags?.album)
		out.push(['Album', joined(tags.album, tags.track !== undefined && `track ${tags.track}`, tags.date)]);
	if (picture)
		out.push([
			'Picture',
			joined(
				[picture.codec, details?.pictureProfile].filter(Boolean).join(' '),
				`${picture.widthPx} × ${picture.heightPx}`,
				picture.framesPerSec !== null &&
					`${Number(picture.framesPerSec.toFixed(3))} frames a second${details?.rateVaries ? ', not evenly' : ''}`,
				`${picture.bitDepth} bit${details?.chroma ? ` ${details.chroma}` : ''}`,
				details?.interlaced && 'interlaced',
				details?.range && `${details.range} range`,
				details?.colour,
				details?.hdr && `HDR (${details.hdr.toUpperCase()})`,
				details?.turnedDeg !== undefined && `turned by ${details.turnedDeg}°`
			)
		]);
	if (!silent)
		out.push([
			'Sound',
			joined(
				[media.codec, details?.soundProfile].filter(Boolean).join(' '),
				formatHz(media.sampleRateHz),
				media.lossless && `${media.bitDepth} bit`,
				channelWords(media.channels)
			)
		]);
	if (details?.loudness) {
		const { integratedLufs, rangeLu, truePeakDbtp } = details.loudness;
		out.push([
			'Loudness',
			`${level(integratedLufs, 'LUFS')}, range ${level(rangeLu, 'LU')}, true peak ${level(truePeakDbtp, 'dBTP')}`
		]);
	}
	if (durationMs) out.push(['Length', `${formatSeconds(durationMs)} (${(durationMs / 1000).toFixed(3)}\u2009s)`]);
	if (sizeBytes) out.push(['Size', joined(formatBytes(sizeBytes), details?.container)]);
	if (bitRateBps) out.push(['Rate', formatBps(bitRateBps)]);
	return out;
}
