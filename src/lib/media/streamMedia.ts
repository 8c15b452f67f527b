import type { StreamHead } from '$core/formats/streamHead';
import type { Media } from '$core/parts/media';

/** A stream as the workshop knows it, from what its first bytes and its server say. */
export const streamMedia = (location: string, head: StreamHead, bitRateBps: number | null): Media => ({
	location,
	codec: head.codec,
	lossless: head.codec === 'flac',
	sampleRateHz: head.sampleRateHz,
	bitDepth: head.codec === 'flac' ? 16 : 24,
	channels: head.channels,
	bitRateBps: bitRateBps && bitRateBps > 0 ? Math.round(bitRateBps) : null,
	durationMs: null,
	sizeBytes: null,
	sha256: '',
	kept: 'person',
	from: 'file'
});
