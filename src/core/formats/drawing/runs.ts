/**
 * zlib data that packs nothing but runs of one byte: flat drawings are such runs, and the packer is small enough for the first
 * view, where a whole library would not be. Fixed codes; matches at distance 1. Source: RFC 1950; RFC 1951, section 3.2.6.
 */
export function packRuns(bytes: Uint8Array): Uint8Array {
	const out: number[] = [0x78, 0x01];
	let held = 0;
	let count = 0;
	const put = (value: number, bits: number): void => {
		held |= value << count;
		count += bits;
		while (count >= 8) {
			out.push(held & 0xff);
			held >>>= 8;
			count -= 8;
		}
	};
	put(1, 1);
	put(1, 2);
	for (let at = 0; at < bytes.length;) {
		const value = bytes[at]!;
		put(LITERAL[value]!.code, LITERAL[value]!.bits);
		let run = at + 1;
		while (run < bytes.length && bytes[run] === value) run++;
		at++;
		while (run - at >= 3) {
			const length = Math.min(258, run - at);
			const { code, bits, extra, extraBits } = LENGTH[length]!;
			put(code, bits);
			put(extra, extraBits);
			// Distance code 0: the byte before.
			put(0, 5);
			at += length;
		}
	}
	put(LITERAL[256]!.code, LITERAL[256]!.bits);
	if (count > 0) put(0, 8 - count);
	const sum = adler32(bytes);
	out.push(sum >>> 24, (sum >>> 16) & 0xff, (sum >>> 8) & 0xff, sum & 0xff);
	return Uint8Array.from(out);
}

const reversed = (code: number, bits: number): number => {
	let out = 0;
	for (let n = 0; n < bits; n++) out |= ((code >> n) & 1) << (bits - 1 - n);
	return out;
};

/** Codes as they go into the stream, lowest bit first. */
const LITERAL = Array.from({ length: 288 }, (_, n) => {
	const [code, bits] =
		n < 144 ? [0x30 + n, 8] : n < 256 ? [0x190 + n - 144, 9] : n < 280 ? [n - 256, 7] : [0xc0 + n - 280, 8];
	return { code: reversed(code, bits), bits };
});

/** By the length of a match, 3 to 258. Source: RFC 1951, section 3.2.5. */
const LENGTH = (() => {
	const table: { code: number; bits: number; extra: number; extraBits: number }[] = [];
	let symbol = 257;
	let from = 3;
	for (let extraBits = 0; extraBits <= 5; extraBits++)
		for (let n = 0; n < (extraBits === 0 ? 8 : 4); n++, symbol++) {
			for (let extra = 0; extra < 1 << extraBits && from + extra <= 257; extra++)
				table[from + extra] = { ...LITERAL[symbol]!, extra, extraBits };
			from += 1 << extraBits;
		}
	table[258] = { ...LITERAL[285]!, extra: 0, extraBits: 0 };
	return table;
})();

/** Source: RFC 1950, section 9. The sums are brought down before they leave 32 bits. */
function adler32(bytes: Uint8Array): number {
	let a = 1;
	let b = 0;
	for (let at = 0; at < bytes.length;) {
		const end = Math.min(bytes.length, at + 3800);
		for (; at < end; at++) {
			a += bytes[at]!;
			b += a;
		}
		a %= 65_521;
		b %= 65_521;
	}
	return ((b << 16) | a) >>> 0;
}

const CRC = Array.from({ length: 256 }, (_, n) => {
	let value = n;
	for (let bit = 0; bit < 8; bit++) value = value & 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1;
	return value >>> 0;
});

/** Source: PNG (ISO/IEC 15948), annex D. */
export function crc32(bytes: Uint8Array): number {
	let crc = 0xffffffff;
	for (const byte of bytes) crc = CRC[(crc ^ byte) & 0xff]! ^ (crc >>> 8);
	return (crc ^ 0xffffffff) >>> 0;
}
