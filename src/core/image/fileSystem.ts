import { hasAt, latin, u16, u32 } from './bytes';

/** So much of a partition's beginning tells its file system. */
export const FILE_SYSTEM_BYTES = 68 * 1024;

/** What the first sectors of a partition say of it. */
export interface FileSystem {
	readonly type: string;
	readonly label: string;
}

/** Source: magic numbers of each format's own description; the kernel's fs/<type> headers. */
export function readFileSystem(head: Uint8Array): FileSystem | null {
	if (hasAt(head, 1024 + 56, [0x53, 0xef])) {
		const features = u32(head, 1024 + 96);
		const journal = (u32(head, 1024 + 92) & 4) !== 0;
		// Extents came with ext4. Source: the kernel's ext4 documentation, "Super Block".
		const type = features & 0x40 ? 'ext4' : journal ? 'ext3' : 'ext2';
		return { type, label: latin(head, 1024 + 120, 16) };
	}
	if (hasAt(head, 82, 'FAT32')) return { type: 'FAT32', label: latin(head, 71, 11).trim() };
	if (hasAt(head, 54, 'FAT1')) return { type: latin(head, 54, 8).trim(), label: latin(head, 43, 11).trim() };
	if (hasAt(head, 3, 'EXFAT')) return { type: 'exFAT', label: '' };
	if (hasAt(head, 3, 'NTFS')) return { type: 'NTFS', label: '' };
	if (hasAt(head, 0, 'hsqs')) return { type: 'squashfs', label: '' };
	if (hasAt(head, 0, 'XFSB')) return { type: 'xfs', label: latin(head, 108, 12) };
	if (hasAt(head, 1024, [0x10, 0x20, 0xf5, 0xf2])) return { type: 'f2fs', label: '' };
	if (hasAt(head, 0x10040, '_BHRfS_M')) return { type: 'btrfs', label: latin(head, 0x1012b, 256) };
	if (hasAt(head, 4086, 'SWAPSPACE2')) return { type: 'swap', label: '' };
	return null;
}

/** Where a FAT's first directory lies, counted from the partition's beginning. Source: Microsoft FAT specification 1.03, "FAT Data Structure". */
export function fatRoot(head: Uint8Array): { firstByte: number; bytes: number } | null {
	const sector = u16(head, 11);
	const cluster = head[13]! * sector;
	if (![512, 1024, 2048, 4096].includes(sector) || cluster === 0) return null;
	const reserved = u16(head, 14) * sector;
	const copies = head[16]!;
	const entries = u16(head, 17);
	const fat = (u16(head, 22) || u32(head, 36)) * sector;
	const data = reserved + copies * fat;
	if (entries > 0) return { firstByte: data, bytes: entries * 32 };
	return { firstByte: data + (u32(head, 44) - 2) * cluster, bytes: Math.min(cluster, 32 * 1024) };
}

/** Where a FAT's first table lies, counted from the partition's beginning, and how its clusters are counted. Source: the same. */
export interface FatTable {
	readonly firstByte: number;
	readonly bytes: number;
	readonly bits: 12 | 16 | 32;
	readonly clusters: number;
	readonly clusterBytes: number;
}
/** Tables of partitions up to 8 GiB in clusters of 4 KiB; larger first partitions are rare. */
const MOST_TABLE_BYTES = 8 * 2 ** 20;

/** The table that says which clusters are taken; null where sectors make no sense, or it is larger than any that is looked at. */
export function fatTable(head: Uint8Array): FatTable | null {
	const root = fatRoot(head);
	if (!root) return null;
	const sector = u16(head, 11);
	const clusterBytes = head[13]! * sector;
	const entries = u16(head, 17);
	const table = (u16(head, 22) || u32(head, 36)) * sector;
	const reserved = u16(head, 14) * sector;
	const all = (u16(head, 19) || u32(head, 32)) * sector;
	const data = reserved + head[16]! * table + entries * 32;
	const clusters = Math.floor((all - data) / clusterBytes);
	if (clusters < 1) return null;
	// Which it is follows from the number of clusters alone. Source: the same, "FAT Type Determination".
	const bits = clusters < 4085 ? 12 : clusters < 65_525 ? 16 : 32;
	const bytes = Math.ceil(((clusters + 2) * bits) / 8);
	return bytes > table || bytes > MOST_TABLE_BYTES
		? null
		: { firstByte: reserved, bytes, bits, clusters, clusterBytes };
}

/** Bytes in clusters that nobody has taken. */
export function fatFreeBytes({ bits, clusters, clusterBytes }: FatTable, table: Uint8Array): number {
	const entry = (n: number): number => {
		if (bits === 16) return u16(table, 2 * n);
		if (bits === 32) return u32(table, 4 * n) & 0x0fff_ffff;
		const pair = u16(table, n + (n >> 1));
		return n & 1 ? pair >> 4 : pair & 0xfff;
	};
	let free = 0;
	for (let n = 2; n < clusters + 2; n++) if (entry(n) === 0) free++;
	return free * clusterBytes;
}

/** Names in a FAT directory, long ones put together, in small letters. Source: the same, "Long Directory Entries". */
export function fatNames(directory: Uint8Array): string[] {
	const names: string[] = [];
	let long: string[] = [];
	for (let at = 0; at + 32 <= directory.length && directory[at] !== 0; at += 32) {
		const attributes = directory[at + 11]!;
		if (directory[at] === 0xe5) long = [];
		else if ((attributes & 0x3f) === 0x0f) long.unshift(longPiece(directory, at));
		else {
			const base = latin(directory, at, 8).trim();
			const extension = latin(directory, at + 8, 3).trim();
			// The bit for a volume's own name.
			if (!(attributes & 0x08))
				names.push((long.length ? long.join('') : base + (extension && `.${extension}`)).toLowerCase());
			long = [];
		}
	}
	return names;
}

function longPiece(directory: Uint8Array, at: number): string {
	const places = [1, 3, 5, 7, 9, 14, 16, 18, 20, 22, 24, 28, 30];
	let text = '';
	for (const place of places) {
		const unit = u16(directory, at + place);
		if (unit === 0 || unit === 0xffff) break;
		text += String.fromCharCode(unit);
	}
	return text;
}
