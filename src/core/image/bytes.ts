/** Little-endian readers that never run over the end: what is not there reads as 0. */
export const u16 = (bytes: Uint8Array, at: number): number => (bytes[at] ?? 0) | ((bytes[at + 1] ?? 0) << 8);
/** Unsigned, 32 bits, least byte first. */
export const u32 = (bytes: Uint8Array, at: number): number => (u16(bytes, at) | (u16(bytes, at + 2) << 16)) >>> 0;
/** As a number: exact to 2⁵³. */
export const u64 = (bytes: Uint8Array, at: number): number => u32(bytes, at) + u32(bytes, at + 4) * 2 ** 32;
/** Text up to the first NUL, each byte one character. `length` in bytes. */
export const latin = (bytes: Uint8Array, from: number, length: number): string =>
	String.fromCharCode(...bytes.subarray(from, from + length)).split('\u0000', 1)[0]!;
/** Whether these bytes, or the characters of this text, stand there. */
export const hasAt = (bytes: Uint8Array, at: number, wanted: readonly number[] | string): boolean =>
	[...wanted].every((value, n) => bytes[at + n] === (typeof value === 'string' ? value.charCodeAt(0) : value));
