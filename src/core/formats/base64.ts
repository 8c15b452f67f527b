/** Bytes of base64 text; white space is passed over. null: it is none. Source: RFC 4648, section 4. */
export function fromBase64(text: string): Uint8Array | null {
	const plain = text.replace(/\s+/g, '').replace(/={1,2}$/, '');
	if (!/^[A-Za-z0-9+/]*$/.test(plain) || plain.length % 4 === 1) return null;
	return Uint8Array.from(atob(plain), (char) => char.charCodeAt(0));
}

/** The other half. */
export const toBase64 = (bytes: Uint8Array): string =>
	btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''));
