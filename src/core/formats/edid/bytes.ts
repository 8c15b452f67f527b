import { fault, ok, type Result } from '../../basics/result';

/** No EDID is longer: 256 blocks. Source: VESA E-EDID A.2, byte 126. */
export const MOST_BYTES = 256 * 128;

/** Bytes of base64 text; white space is passed over. Source: RFC 4648, section 4. */
export function fromBase64(text: string): Result<Uint8Array> {
	const plain = text.replace(/\s+/g, '').replace(/={1,2}$/, '');
	if (plain.length > (MOST_BYTES * 4) / 3 + 4) return fault('too-long', 'This is longer than any EDID.');
	if (!/^[A-Za-z0-9+/]*$/.test(plain) || plain.length % 4 === 1)
		return fault('no-base64', 'This is no base64: it has other characters in it, or lost some at the end.');
	return ok(Uint8Array.from(atob(plain), (char) => char.charCodeAt(0)));
}

/** The other half. */
export const toBase64 = (bytes: Uint8Array): string =>
	btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''));

/** Bytes of pairs of hexadecimal digits. */
export const fromHex = (digits: string): Uint8Array =>
	Uint8Array.from({ length: digits.length >> 1 }, (_, n) => parseInt(digits.slice(2 * n, 2 * n + 2), 16));
