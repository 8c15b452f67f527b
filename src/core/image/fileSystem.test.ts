import { describe, expect, it } from 'vitest';
import { fatRoot, FILE_SYSTEM_BYTES, readFileSystem } from './fileSystem';

type Mark = readonly [at: number, bytes: string | readonly number[]];
/** A partition's beginning with nothing in it but these marks. */
function beginning(...marks: readonly Mark[]): Uint8Array {
	const head = new Uint8Array(FILE_SYSTEM_BYTES);
	for (const [at, bytes] of marks) head.set(typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes, at);
	return head;
}
const EXT: Mark = [1024 + 56, [0x53, 0xef]];
const NAMED: Mark = [1024 + 120, 'rootfs'];

describe('a file system', () => {
	it.each([
		['ext2', 'rootfs', [EXT, NAMED]],
		['ext3', 'rootfs', [EXT, NAMED, [1024 + 92, [4]]]],
		['ext4', 'rootfs', [EXT, NAMED, [1024 + 92, [4]], [1024 + 96, [0x40]]]],
		['FAT32', 'BOOT', [[82, 'FAT32   '] as Mark, [71, 'BOOT       '] as Mark]],
		['FAT16', 'SEED', [[54, 'FAT16   '] as Mark, [43, 'SEED       '] as Mark]],
		['FAT12', '', [[54, 'FAT12   '] as Mark]],
		['exFAT', '', [[3, 'EXFAT   '] as Mark]],
		['NTFS', '', [[3, 'NTFS    '] as Mark]],
		['squashfs', '', [[0, 'hsqs'] as Mark]],
		['xfs', 'data', [[0, 'XFSB'] as Mark, [108, 'data'] as Mark]],
		['f2fs', '', [[1024, [0x10, 0x20, 0xf5, 0xf2]] as Mark]],
		['btrfs', 'pool', [[0x10040, '_BHRfS_M'] as Mark, [0x1012b, 'pool'] as Mark]],
		['swap', '', [[4086, 'SWAPSPACE2'] as Mark]]
	] as const)('%s is known by its own mark', (type, label, marks) => {
		expect(readFileSystem(beginning(...(marks as readonly Mark[])))).toEqual({ type, label });
	});
	it('is not guessed from nothing, nor from a beginning that is cut short', () => {
		expect(readFileSystem(beginning())).toBeNull();
		for (const length of [0, 1, 60, 1000, 4000]) expect(readFileSystem(new Uint8Array(length))).toBeNull();
	});
});

describe('the first directory of a FAT', () => {
	const fat = (bytesPerSector: number, sectorsPerCluster: number, ...more: Mark[]): Uint8Array =>
		beginning(
			[11, [bytesPerSector & 255, bytesPerSector >> 8]],
			[13, [sectorsPerCluster]],
			[14, [32, 0]],
			[16, [2]],
			...more
		);
	it('stands behind both tables, of a fixed length, in a small one', () => {
		const root = fatRoot(fat(512, 4, [17, [0, 2]], [22, [200, 0]]));
		expect(root).toEqual({ firstByte: (32 + 2 * 200) * 512, bytes: 512 * 32 });
	});
	it('is a cluster like any other in a large one', () => {
		const root = fatRoot(fat(512, 8, [36, [0, 4, 0, 0]], [44, [5, 0, 0, 0]]));
		expect(root).toEqual({ firstByte: (32 + 2 * 1024) * 512 + 3 * 8 * 512, bytes: 8 * 512 });
	});
	it('is not looked for where sectors make no sense', () => {
		expect(fatRoot(fat(513, 4))).toBeNull();
		expect(fatRoot(fat(512, 0))).toBeNull();
	});
});
