import { fault, ok, type Result } from '../result';
import type { HostDisk, HostSystem } from './disk';
import { readLsblk } from './linux';
import { readDiskutilInfo, readDiskutilList, readDiskutilPlist } from './macos';
import { isGetVolume, readGetDisk } from './windows';

/** What to type for a listing, by system. */
export const LISTING_COMMANDS: Readonly<Record<HostSystem, string>> = {
	linux: 'lsblk -J -b -o NAME,SIZE,TYPE,MOUNTPOINTS,RM,RO,TRAN,MODEL,SERIAL',
	macos: 'diskutil list',
	windows: 'Get-Disk | ConvertTo-Json'
};

export interface DiskListing {
	readonly system: HostSystem;
	readonly disks: readonly HostDisk[];
}

/**
 * Reads what a computer printed of its disks, whichever of the three it is; prompts before and after are passed over.
 * Faults: `disks-volumes` (volumes instead of disks), `disks-unknown`, `disks-none`.
 */
export function readDisks(text: string): Result<DiskListing> {
	const clean = text.replace(/^\ufeff/, '').replace(/\r\n?/g, '\n');
	for (const value of jsonIn(clean)) {
		const found = readLsblk(value) ?? readGetDisk(value);
		if (found) return listing(found);
		if (isGetVolume(value))
			return fault(
				'disks-volumes',
				`These are volumes; which disk they lie on does not stand there. Paste what this prints: ${LISTING_COMMANDS.windows}`
			);
	}
	const found = joined(readDiskutilPlist(plistIn(clean)) ?? readDiskutilList(clean), readDiskutilInfo(clean));
	if (found) return listing(found);
	return fault(
		'disks-unknown',
		`This is no listing of disks that is known. Copy the command for your system, and paste all that it prints.`
	);
}

function listing(disks: readonly HostDisk[]): Result<DiskListing> {
	const system = disks[0]?.system;
	return system
		? ok({ system, disks })
		: fault('disks-none', 'The listing names no disk. Put the card in, and run the command again.');
}

/** What `diskutil info` says of a disk makes what `diskutil list` says of it surer, and never safer. */
function joined(list: HostDisk[] | null, infos: HostDisk[] | null): HostDisk[] | null {
	if (!list || !infos) return list ?? infos;
	return list.map((disk) => {
		const info = infos.find(({ id }) => id === disk.id);
		return info
			? {
					...info,
					volumes: disk.volumes,
					holdsSystem: disk.holdsSystem || info.holdsSystem,
					sizeBytes: info.sizeBytes ?? disk.sizeBytes
				}
			: disk;
	});
}

const plistIn = (text: string): string => /<\?xml[\s\S]*<\/plist>/.exec(text)?.[0] ?? '';

/** The JSON value in a text, between whatever prompts stand around it. */
function jsonIn(text: string): unknown[] {
	const from = text.search(/[[{]/);
	const to = Math.max(text.lastIndexOf(']'), text.lastIndexOf('}'));
	if (from < 0 || to < from) return [];
	try {
		return [JSON.parse(text.slice(from, to + 1)) as unknown];
	} catch {
		return [];
	}
}
