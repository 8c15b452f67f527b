import { boundedText } from '../formats/lines';
import { jsonValuesIn } from '../formats/json/values';
import { fault, ok, type Result } from '../basics/result';
import { isDiskName, type HostDisk, type HostSystem } from './disk';
import { readLsblk } from './linux';
import { readDiskutilInfo, readDiskutilList, readDiskutilPlist } from './macos';
import { isGetVolume, readGetDisk } from './windows';

/** What to type for a listing, by system. */
export const LISTING_COMMANDS: Readonly<Record<HostSystem, string>> = {
	linux: 'lsblk -J -b -o NAME,SIZE,TYPE,FSTYPE,MOUNTPOINTS,RM,RO,TRAN,MODEL,SERIAL',
	macos: 'diskutil list',
	windows: 'Get-Disk | ConvertTo-Json'
};

interface DiskListing {
	readonly system: HostSystem;
	readonly disks: readonly HostDisk[];
}

const MOST_CHARACTERS = 2_000_000;

/**
 * Reads what a computer printed of its disks, whichever of the three it is; prompts before and after are passed over.
 * Faults: `disks-volumes` (volumes instead of disks), `disks-unknown`, `disks-none`, `disks-strange` (names or nesting that no
 * such system prints), `disks-mixed` (of two systems), `text-long`.
 */
export function readDisks(text: string): Result<DiskListing> {
	const bounded = boundedText(text, MOST_CHARACTERS);
	if (!bounded.ok) return bounded;
	const clean = text.replace(/^\ufeff/, '').replace(/\r\n?/g, '\n');
	const found = jsonValuesIn(clean);
	// What is passed over here could hide a disk.
	if (found.some(({ read }) => !read.ok && read.faults[0]!.code !== 'not-json'))
		return fault(
			'disks-strange',
			'It is nested deeper, or is longer, than any listing of disks. Run the command again.'
		);
	const values = found.flatMap(({ read }) => (read.ok ? [read.value] : []));
	const listings = values.flatMap((value) => {
		const disks = readLsblk(value) ?? readGetDisk(value);
		return disks ? [disks] : [];
	});
	if (listings.length) return listing(listings.flat());
	if (values.some(isGetVolume))
		return fault(
			'disks-volumes',
			`These are volumes; which disk they lie on does not stand there. Paste what this prints: ${LISTING_COMMANDS.windows}`
		);
	const apple = joined(readDiskutilPlist(clean) ?? readDiskutilList(clean), readDiskutilInfo(clean));
	if (apple) return listing(apple);
	return fault(
		'disks-unknown',
		`This is no listing of disks that is known. Copy the command for your system, and paste all that it prints.`
	);
}

/** The same disk listed twice, to the letter, is one; anything else that is listed stays, to be judged. */
function listing(all: readonly HostDisk[]): Result<DiskListing> {
	const disks = [...new Map(all.map((disk) => [JSON.stringify(disk), disk])).values()];
	const system = disks[0]?.system;
	if (!system) return fault('disks-none', 'The listing names no disk. Put the card in, and run the command again.');
	if (disks.some((disk) => disk.system !== system))
		return fault('disks-mixed', 'These are listings of two computers. Paste that of the one in which the card is.');
	const strange = disks
		.flatMap(({ id, volumes }) => [id, ...volumes.map((volume) => volume.id)])
		.find((id) => !isDiskName(system, id));
	if (strange !== undefined)
		return fault(
			'disks-strange',
			`It names a disk ${JSON.stringify(strange.slice(0, 40))}, which that system never prints. Copy the listing once more.`
		);
	return ok({ system, disks });
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
					inUse: disk.inUse || info.inUse || false,
					sizeBytes: info.sizeBytes ?? disk.sizeBytes
				}
			: disk;
	});
}
