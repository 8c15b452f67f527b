import {
	fatFreeBytes,
	fatNames,
	fatRoot,
	fatTable,
	FILE_SYSTEM_BYTES,
	readFileSystem,
	type FileSystem
} from './fileSystem';
import { readTable, TABLE_BYTES, type Partition, type PartitionTable } from './partitions';

interface ScannedPartition extends Partition {
	readonly fileSystem: FileSystem | null;
	/** Names at the top of a FAT; null when it is none. */
	readonly names: readonly string[] | null;
}
/** What was seen of an image while it was hashed. */
export interface ImageScan {
	/** Null: no table, and why. */
	readonly table: PartitionTable | null;
	readonly why: string;
	readonly partitions: readonly ScannedPartition[];
	/** What the image takes on a card. */
	readonly rawBytes: number;
	/** It has a place where a seed is read; null when nothing could be seen. */
	readonly takesSeed: boolean | null;
	/** Free in the first partition that is a FAT, where the card set goes; null: not seen. */
	readonly firstFreeBytes: number | null;
}

interface Window {
	readonly firstByte: number;
	readonly bytes: Uint8Array;
	filled: number;
}

/** Names that systems with a seed, or a first start of their own, leave on their first partition. */
const SEED_NAMES = ['user-data', 'meta-data', 'network-config'];
const MOST_PARTITIONS = 24;

/** Looks at a disk image as it flows by, once and in order, and keeps only the few pieces that tell what is in it. */
export class ImageScanner {
	#at = 0;
	#windows: Window[] = [{ firstByte: 0, bytes: new Uint8Array(TABLE_BYTES), filled: 0 }];
	#table: PartitionTable | null = null;
	#why = '';
	#fats = new Map<number, Window>();
	#tables = new Map<number, Window>();
	#heads = new Map<number, Window>();

	push(chunk: Uint8Array): void {
		for (let n = 0; n < this.#windows.length; n++) this.#fill(this.#windows[n]!, chunk);
		this.#at += chunk.length;
		this.#windows = this.#windows.filter((window) => window.firstByte + window.bytes.length > this.#at);
	}

	#fill(window: Window, chunk: Uint8Array): void {
		const from = Math.max(window.firstByte, this.#at);
		const to = Math.min(window.firstByte + window.bytes.length, this.#at + chunk.length);
		if (from >= to) return;
		window.bytes.set(chunk.subarray(from - this.#at, to - this.#at), from - window.firstByte);
		window.filled = to - window.firstByte;
		if (window.filled === window.bytes.length) this.#whole(window);
	}

	/** A piece is whole: it tells where the next ones lie. They come later in the image, or within the same chunk. */
	#whole(window: Window): void {
		if (window.firstByte === 0 && !this.#table) {
			const table = readTable(window.bytes);
			if (!table.ok) {
				this.#why = table.faults[0]!.message;
				return;
			}
			this.#table = table.value;
			for (const partition of table.value.partitions.slice(0, MOST_PARTITIONS))
				this.#heads.set(
					partition.number,
					this.#want(partition.firstByte, Math.min(FILE_SYSTEM_BYTES, partition.bytes))
				);
			return;
		}
		for (const [number, head] of this.#heads) {
			if (head !== window) continue;
			const isFat = /FAT/.test(readFileSystem(head.bytes)?.type ?? '');
			const root = isFat ? fatRoot(head.bytes) : null;
			const table = isFat && this.#tables.size === 0 ? fatTable(head.bytes) : null;
			if (table)
				this.#tables.set(number, this.#within(head, this.#want(head.firstByte + table.firstByte, table.bytes)));
			if (root) this.#fats.set(number, this.#within(head, this.#want(head.firstByte + root.firstByte, root.bytes)));
		}
	}

	/** What of a piece has flowed by already, as part of one that was kept. */
	#within(kept: Window, window: Window): Window {
		const from = window.firstByte - kept.firstByte;
		const there = kept.bytes.subarray(from, from + window.bytes.length);
		window.bytes.set(there);
		window.filled = there.length;
		return window;
	}

	#free(): number | null {
		const [found] = this.#tables;
		if (!found) return null;
		const [number, window] = found;
		const table = fatTable(this.#heads.get(number)!.bytes)!;
		return window.filled < window.bytes.length ? null : fatFreeBytes(table, window.bytes);
	}

	#want(firstByte: number, length: number): Window {
		const window = { firstByte, bytes: new Uint8Array(length), filled: 0 };
		this.#windows.push(window);
		return window;
	}

	finish(): ImageScan {
		const first = this.#windows.find(({ firstByte }) => firstByte === 0);
		if (first && !this.#table) this.#why ||= 'It is shorter than a table of partitions.';
		const partitions = (this.#table?.partitions ?? []).map((partition): ScannedPartition => {
			const head = this.#heads.get(partition.number);
			const fat = this.#fats.get(partition.number);
			return {
				...partition,
				fileSystem: head && head.filled > 0 ? readFileSystem(head.bytes) : null,
				names: fat && fat.filled > 0 ? fatNames(fat.bytes) : null
			};
		});
		return {
			table: this.#table,
			why: this.#why,
			partitions,
			rawBytes: this.#at,
			takesSeed: takesSeed(partitions),
			firstFreeBytes: this.#free()
		};
	}
}

/** A partition named for it (NoCloud), or its files on the first one. Source: cloud-init, datasource NoCloud. */
function takesSeed(partitions: readonly ScannedPartition[]): boolean | null {
	if (partitions.length === 0) return null;
	if (partitions.some(({ fileSystem }) => fileSystem?.label.toLowerCase() === 'cidata')) return true;
	const seen = partitions.flatMap(({ names }) => names ?? []);
	if (seen.some((name) => SEED_NAMES.includes(name))) return true;
	return partitions.some(({ names }) => names !== null) ? false : null;
}
