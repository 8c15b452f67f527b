import { shellQuote } from '../../formats/shell/quote';
import type { HostDisk } from '../disk';
import { sameNoise, shellPath, unpacked, upTo, WIPES, type DiskCommand, type ImageFile } from './command';

const flush = (device: string): DiskCommand => ({
	what: 'Flush, and forget what was cached',
	command: `sync; sudo blockdev --flushbufs ${device}`
});

function letGo({ volumes }: HostDisk): DiskCommand[] {
	const mounted = volumes.filter(({ mount }) => mount !== '').map(({ id }) => shellQuote(id));
	return mounted.length
		? [
				{
					what: 'Let go of what is open on it, without ejecting',
					command: `sudo umount ${[...new Set(mounted)].join(' ')}`
				}
			]
		: [];
}

/** Unmount, write, flush, read back, eject. Source: dd(1), cmp(1), coreutils 9; umount(8), eject(1). */
export function writeOnLinux(disk: HostDisk, image: ImageFile): DiskCommand[] {
	const device = shellQuote(disk.id);
	const raw = image.form === 'raw';
	return [
		...letGo(disk),
		{
			what: 'Write, past the cache, with progress',
			command: `${unpacked(image)}sudo dd ${raw ? `if=${shellPath(image.path)} ` : 'iflag=fullblock '}of=${device} bs=4M oflag=direct conv=fsync status=progress`,
			note: WIPES
		},
		flush(device),
		{
			what: 'Read back and compare',
			command: `${unpacked(image)}sudo cmp ${upTo(image.rawBytes)}${raw ? shellPath(image.path) : '-'} ${device} && echo the same`,
			...(image.rawBytes === null
				? { note: 'It ends with "EOF" once the whole image was the same: that is good.' }
				: {})
		},
		{ what: 'Eject', command: `sudo eject ${device}` }
	];
}

/** Fills the disk with noise and reads it back: `bytes` as the card claims. A card that lies about its size differs. */
export function proveOnLinux(disk: HostDisk, bytes: number): DiskCommand[] {
	const device = shellQuote(disk.id);
	return [
		...letGo(disk),
		{
			what: 'Fill it to its last byte',
			command: `${sameNoise(bytes)} | sudo dd iflag=fullblock of=${device} bs=4M oflag=direct conv=fsync status=progress`,
			note: WIPES
		},
		flush(device),
		{
			what: 'Read all of it back',
			command: `${sameNoise(bytes)} | sudo cmp - ${device} && echo the whole size is there`
		}
	];
}
