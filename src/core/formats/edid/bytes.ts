import { fault, ok, type Result } from '../../basics/result';
import { fromBase64 as base64Bytes } from '../base64';

/** No EDID is longer: 256 blocks. Source: VESA E-EDID A.2, byte 126. */
export const MOST_BYTES = 256 * 128;

/** Bytes of an EDID as base64 text. */
export function fromBase64(text: string): Result<Uint8Array> {
	if (text.replace(/\s+/g, '').length > (MOST_BYTES * 4) / 3 + 4)
		return fault('too-long', 'This is longer than any EDID.');
	const bytes = base64Bytes(text);
	return bytes
		? ok(bytes)
		: fault('no-base64', 'This is no base64: it has other characters in it, or lost some at the end.');
}

/** Bytes of pairs of hexadecimal digits. */
export const fromHex = (digits: string): Uint8Array =>
	Uint8Array.from({ length: digits.length >> 1 }, (_, n) => parseInt(digits.slice(2 * n, 2 * n + 2), 16));
