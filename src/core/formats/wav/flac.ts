import { fault, ok, type Result } from '../../basics/result';

interface FlacFacts {
	readonly sampleRateHz: number;
	readonly bitDepth: number;
	readonly channels: number;
	readonly durationMs: number | null;
}

/** Facts of a FLAC file from its first block. Source: RFC 9639, 8.2 "Streaminfo". Fault: `flac-none`. */
export function readFlac(bytes: Uint8Array): Result<FlacFacts> {
	if (bytes.length < 26 || String.fromCharCode(...bytes.subarray(0, 4)) !== 'fLaC' || (bytes[4]! & 0x7f) !== 0)
		return fault('flac-none', 'This is not a FLAC file, or it is cut off.');
	const at = 8 + 10;
	const sampleRateHz = (bytes[at]! << 12) | (bytes[at + 1]! << 4) | (bytes[at + 2]! >> 4);
	const channels = ((bytes[at + 2]! >> 1) & 7) + 1;
	const bitDepth = (((bytes[at + 2]! & 1) << 4) | (bytes[at + 3]! >> 4)) + 1;
	const frames =
		(bytes[at + 3]! & 15) * 2 ** 32 + bytes.slice(at + 4, at + 8).reduce((sum, byte) => sum * 256 + byte, 0);
	if (sampleRateHz === 0) return fault('flac-none', 'This FLAC file states no sample rate.');
	return ok({
		sampleRateHz,
		bitDepth,
		channels,
		durationMs: frames ? Math.round((frames / sampleRateHz) * 1000) : null
	});
}
