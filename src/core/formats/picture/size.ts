import { fault, ok, type Result } from '../../basics/result';

/** A still picture's size as its own header has it. */
export interface StillSize {
	readonly codec: 'png' | 'mjpeg';
	readonly widthPx: number;
	readonly heightPx: number;
	readonly bitDepth: number;
}

/** Markers of a JPEG frame; between them stand others with a length each. Source: ISO/IEC 10918-1, table B.1. */
const isFrame = (marker: number): boolean => marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);

function jpegSize(bytes: Uint8Array): Result<StillSize> {
	const u16 = (at: number): number => (bytes[at]! << 8) | bytes[at + 1]!;
	for (let at = 2; at + 9 < bytes.length;) {
		if (bytes[at] !== 0xff) return fault('jpeg-cut', 'The header of this JPEG is damaged.');
		const marker = bytes[at + 1]!;
		if (isFrame(marker))
			return ok({ codec: 'mjpeg', bitDepth: bytes[at + 4]!, heightPx: u16(at + 5), widthPx: u16(at + 7) });
		at += marker === 0xff ? 1 : 2 + u16(at + 2);
	}
	return fault('jpeg-cut', 'This JPEG ends before it says its size.');
}

/** Size of a PNG or JPEG picture. Faults: `still-no`, `jpeg-cut`. Source: PNG (ISO/IEC 15948), clause 11.2.2; ISO/IEC 10918-1. */
export function readStillSize(bytes: Uint8Array): Result<StillSize> {
	const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
	if (bytes.length >= 33 && view.getUint32(0) === 0x89504e47 && view.getUint32(12) === 0x49484452)
		return ok({ codec: 'png', widthPx: view.getUint32(16), heightPx: view.getUint32(20), bitDepth: bytes[24]! });
	if (bytes.length >= 12 && bytes[0] === 0xff && bytes[1] === 0xd8) return jpegSize(bytes);
	return fault('still-no', 'This is neither a PNG nor a JPEG picture.');
}
