/**
 * Names that every file system on the way takes: FAT and exFAT of the first partition, NTFS, and what macOS unpacks to. They refuse
 * " * / : < > ? \ | and control characters, end no name at a dot or space, know no capital from a small letter, and take two spellings
 * of one letter for one. Sources: Microsoft FAT specification 1.03 (2000), "Long Directory Entries"; Microsoft, "Naming Files, Paths,
 * and Namespaces"; Unicode, UAX #15.
 */

/** Names that a device answers to on Windows, with whatever ending. Source: Microsoft, "Naming Files, Paths, and Namespaces". */
const RESERVED = /^(?:con|prn|aux|nul|com[0-9¹²³]|lpt[0-9¹²³])(?:\.|$)/i;
/** Units of UTF-16 on FAT, bytes of UTF-8 on ext4. */
const LONGEST_NAME = 255;
const encoder = new TextEncoder();

/** A device on Windows answers to it. */
export const isReserved = (name: string): boolean => RESERVED.test(name);

/** Whether one name, without a slash, is taken everywhere as it is. */
export const isPortableName = (name: string): boolean =>
	!/["*/:<>?\\|\0-\x1f\x7f]|[. ]$|^ |[\u{10000}-\u{10ffff}]|^$/u.test(name) &&
	name.normalize('NFC') === name &&
	!isReserved(name) &&
	encoder.encode(name).length <= LONGEST_NAME;

/** The same for two names that one of those file systems takes for one. */
export const foldedName = (name: string): string => name.normalize('NFC').toUpperCase().toLowerCase();

/** FNV-1a, 32 bit: enough to tell names apart within one set. */
export function mark(text: string): string {
	let hash = 0x811c9dc5;
	for (const byte of encoder.encode(text)) hash = Math.imul(hash ^ byte, 0x01000193);
	return (hash >>> 0).toString(16).padStart(8, '0');
}
