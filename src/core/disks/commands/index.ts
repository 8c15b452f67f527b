/** What a person runs on their own computer: to write an image, and to prove a card's size. One file for each system. */
import { formatBytes } from '../../basics/format';
import { isDiskName, type HostDisk, type HostSystem } from '../disk';
import type { DiskCommand, ImageFile } from './command';
import { proveOnLinux, writeOnLinux } from './linux';
import { proveOnMacos, writeOnMacos } from './macos';
import { proveOnWindows, writeOnWindows } from './windows';

export type { DiskCommand, ImageFile } from './command';

interface SystemCommands {
	/** Unmount, write, flush, read back, eject. */
	write(disk: HostDisk, image: ImageFile): DiskCommand[];
	/** Fill the whole disk and read it back: a card that claims more than it has, loses the rest. */
	prove(disk: HostDisk, bytes: number): DiskCommand[];
}
const SYSTEMS: Readonly<Record<HostSystem, SystemCommands>> = {
	linux: { write: writeOnLinux, prove: proveOnLinux },
	macos: { write: writeOnMacos, prove: proveOnMacos },
	windows: { write: writeOnWindows, prove: proveOnWindows }
};

/** In the words of the system that the listing came from. */
export const writeCommands = (disk: HostDisk, image: ImageFile): DiskCommand[] =>
	isDiskName(disk.system, disk.id) ? SYSTEMS[disk.system].write(disk, image) : [];

/** None when the listing does not tell its size, or its name is none that the system prints. */
export const proveCommands = (disk: HostDisk): DiskCommand[] =>
	disk.sizeBytes && isDiskName(disk.system, disk.id) ? SYSTEMS[disk.system].prove(disk, disk.sizeBytes) : [];

/** What has to be typed before any command is shown: size and model, so that it is looked at twice. */
export const confirmationOf = (disk: HostDisk): string =>
	[disk.sizeBytes === null ? disk.id : formatBytes(disk.sizeBytes).replaceAll('\u2009', ' '), disk.model]
		.filter(Boolean)
		.join(' ');

/** Whether what was typed names the disk; case and blanks do not count. */
export const isConfirmed = (typed: string, disk: HostDisk): boolean =>
	typed.trim().replace(/\s+/g, ' ').toLowerCase() === confirmationOf(disk).replace(/\s+/g, ' ').toLowerCase();
