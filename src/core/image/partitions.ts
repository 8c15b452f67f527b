import { fault, ok, type Result } from '../basics/result';
import { hasAt, u16, u32, u64 } from './bytes';

/** One entry of the table; numbers from 1. */
export interface Partition {
	readonly number: number;
	readonly firstByte: number;
	readonly bytes: number;
	/** What the table calls it. */
	readonly type: string;
	readonly name: string;
	readonly boots: boolean;
}
/** A disk's table, as far as it holds partitions. Source: UEFI 2.10, 5. */
export interface PartitionTable {
	readonly kind: 'mbr' | 'gpt';
	readonly sectorBytes: number;
	readonly partitions: readonly Partition[];
}

const SECTOR = 512;
/** So much of the beginning holds either table. Source: UEFI 2.10, 5.3: 128 entries of 128 bytes after two sectors. */
export const TABLE_BYTES = 2 * 4096 + 128 * 128;

/** Source: Microsoft and Linux partition ids, as fdisk(8) lists them. */
const MBR_TYPES: Readonly<Record<number, string>> = {
	0x01: 'FAT12',
	0x04: 'FAT16',
	0x06: 'FAT16',
	0x07: 'NTFS or exFAT',
	0x0b: 'FAT32',
	0x0c: 'FAT32',
	0x0e: 'FAT16',
	0x82: 'Linux swap',
	0x83: 'Linux',
	0xee: 'GPT',
	0xef: 'EFI system'
};
/** Source: UEFI 2.10, table 5.7; the discoverable partitions specification. */
const GPT_TYPES: Readonly<Record<string, string>> = {
	'c12a7328-f81f-11d2-ba4b-00a0c93ec93b': 'EFI system',
	'0fc63daf-8483-4772-8e79-3d69d8477de4': 'Linux',
	'0657fd6d-a4ab-43c4-84e5-0933c84b4f4f': 'Linux swap',
	'ebd0a0a2-b9e5-4433-87c0-68b6b72699c7': 'basic data',
	'21686148-6449-6e6f-744e-656564454649': 'BIOS boot',
	'b921b045-1df0-41c3-af44-4c6f280d3fae': 'Linux root (arm64)',
	'4f68bce3-e8cd-4db1-96e7-fbcaf984b709': 'Linux root (x86-64)'
};

/**
 * The table at the beginning of a disk image: at least `TABLE_BYTES` of it.
 * Faults: `no-table` (not the image of a disk), `table-damaged`.
 */
export function readTable(head: Uint8Array): Result<PartitionTable> {
	if (!hasAt(head, 510, [0x55, 0xaa]))
		return fault('no-table', 'No table of partitions stands at its beginning: this is not the image of a whole disk.');
	for (const sectorBytes of [512, 4096]) if (hasAt(head, sectorBytes, 'EFI PART')) return readGpt(head, sectorBytes);
	const partitions = [0, 1, 2, 3].flatMap((n): Partition[] => {
		const at = 446 + 16 * n;
		const type = head[at + 4] ?? 0;
		if (type === 0) return [];
		return [
			{
				number: n + 1,
				firstByte: u32(head, at + 8) * SECTOR,
				bytes: u32(head, at + 12) * SECTOR,
				type: MBR_TYPES[type] ?? `type ${type.toString(16).padStart(2, '0')}`,
				name: '',
				boots: head[at] === 0x80
			}
		];
	});
	if (partitions.length === 0) return fault('no-table', 'Its table of partitions is empty.');
	if (partitions.some(({ firstByte, bytes }) => firstByte === 0 || bytes === 0))
		return fault('table-damaged', 'Its table of partitions makes no sense. Fetch the image again.');
	return ok({ kind: 'mbr', sectorBytes: SECTOR, partitions });
}

function readGpt(head: Uint8Array, sectorBytes: number): Result<PartitionTable> {
	const from = u64(head, sectorBytes + 72) * sectorBytes;
	const count = u32(head, sectorBytes + 80);
	const size = u32(head, sectorBytes + 84);
	if (size < 128 || size > 4096 || count > 1024 || from < 2 * sectorBytes)
		return fault('table-damaged', 'Its table of partitions makes no sense. Fetch the image again.');
	const partitions: Partition[] = [];
	for (let n = 0; n < count && from + (n + 1) * size <= head.length; n++) {
		const at = from + n * size;
		const type = guid(head, at);
		if (/^0{8}-/.test(type)) continue;
		const first = u64(head, at + 32);
		const last = u64(head, at + 40);
		if (first === 0 || last < first || !Number.isSafeInteger((last + 1) * sectorBytes))
			return fault('table-damaged', `Its partition ${n + 1} ends before it begins. Fetch the image again.`);
		partitions.push({
			number: n + 1,
			firstByte: first * sectorBytes,
			bytes: (last - first + 1) * sectorBytes,
			type: GPT_TYPES[type] ?? 'other',
			name: utf16(head, at + 56, 72),
			boots: type.startsWith('c12a7328')
		});
	}
	return partitions.length
		? ok({ kind: 'gpt', sectorBytes, partitions })
		: fault('no-table', 'Its table of partitions is empty.');
}

/** First three fields little-endian, the others as they stand. Source: UEFI 2.10, appendix A. */
function guid(bytes: Uint8Array, at: number): string {
	const hex = (value: number, digits: number): string => value.toString(16).padStart(digits, '0');
	const tail = [...bytes.subarray(at + 8, at + 16)].map((byte) => hex(byte, 2)).join('');
	return `${hex(u32(bytes, at), 8)}-${hex(u16(bytes, at + 4), 4)}-${hex(u16(bytes, at + 6), 4)}-${tail.slice(0, 4)}-${tail.slice(4)}`;
}

function utf16(bytes: Uint8Array, at: number, length: number): string {
	let text = '';
	for (let n = 0; n < length; n += 2) {
		const unit = u16(bytes, at + n);
		if (unit === 0) break;
		text += String.fromCharCode(unit);
	}
	return text;
}
