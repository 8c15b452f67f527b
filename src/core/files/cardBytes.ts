import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import type { CardFile } from '../link/file';

const encoder = new TextEncoder();
const digests = new WeakMap<object, string>();

/** A text file as it stands on the card: each line with its line feed. */
export const cardText = (file: Extract<CardFile, { lines: unknown }>): string =>
	file.lines.map((line) => `${line.text}\n`).join('');

/** The bytes of a file as they stand on the card. Throws a RangeError for a blob: who lets blobs in reads them piece by piece. */
export function cardBytes(file: CardFile): Uint8Array {
	if ('blob' in file) throw new RangeError(`${file.path} is not at hand`);
	return 'lines' in file ? encoder.encode(cardText(file)) : file.bytes;
}

/** How many they are. */
export const cardSize = (file: CardFile): number => ('blob' in file ? file.blob.size : cardBytes(file).length);

/** SHA-256 in hexadecimal; media are hashed once, however often the set is made. */
export function cardDigest(file: CardFile): string {
	if ('blob' in file) return file.sha256;
	if ('bytes' in file && file.sha256) return file.sha256;
	const key = 'lines' in file ? file : file.bytes;
	let digest = digests.get(key);
	if (!digest) digests.set(key, (digest = bytesToHex(sha256(cardBytes(file)))));
	return digest;
}
