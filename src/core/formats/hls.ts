import { fault, ok, type Result } from '../basics/result';
import { linesOf } from './lines';

/** A list of an HTTP live stream. Source: RFC 8216. */
export type Hls =
	| {
			readonly kind: 'variants';
			readonly variants: readonly { readonly bandwidthBps: number; readonly codecs: string; readonly uri: string }[];
	  }
	| {
			readonly kind: 'segments';
			readonly firstNumber: number;
			readonly segments: readonly { readonly uri: string; readonly durationSec: number }[];
			readonly ended: boolean;
	  };

const MOST = 5000;

/** Faults: `hls-no`, `hls-empty`. */
export function readHls(text: string): Result<Hls> {
	if (!/^\ufeff?#EXTM3U/.test(text) || !text.includes('#EXT-X-'))
		return fault('hls-no', 'This is no list of an HTTP live stream.');
	const variants: { bandwidthBps: number; codecs: string; uri: string }[] = [];
	const segments: { uri: string; durationSec: number }[] = [];
	let firstNumber = 0;
	let ended = false;
	let variant: { bandwidthBps: number; codecs: string } | null = null;
	let durationSec: number | null = null;
	for (const raw of linesOf(text)) {
		const line = raw.trim().slice(0, 4000);
		if (line.startsWith('#EXT-X-STREAM-INF:'))
			variant = {
				bandwidthBps: Number(/[:,]BANDWIDTH=(\d{1,12})/.exec(line)?.[1] ?? 0),
				codecs: /[:,]CODECS="([^"]*)"/.exec(line)?.[1] ?? ''
			};
		else if (line.startsWith('#EXTINF:')) durationSec = Number.parseFloat(line.slice(8)) || 0;
		else if (line.startsWith('#EXT-X-MEDIA-SEQUENCE:')) firstNumber = Number.parseInt(line.slice(22), 10) || 0;
		else if (line.startsWith('#EXT-X-ENDLIST')) ended = true;
		else if (line !== '' && !line.startsWith('#')) {
			if (variant && variants.length < MOST) variants.push({ ...variant, uri: line });
			else if (durationSec !== null && segments.length < MOST) segments.push({ uri: line, durationSec });
			variant = null;
			durationSec = null;
		}
	}
	if (variants.length) return ok({ kind: 'variants', variants });
	return segments.length
		? ok({ kind: 'segments', firstNumber, segments, ended })
		: fault('hls-empty', 'The list of this stream has nothing in it.');
}
