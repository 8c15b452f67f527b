import { fault, ok, type Result } from '../result';
import { fingerprint, type HostDisk, type HostSystem } from './disk';
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
	const values = jsonIn(clean);
	const listings = values.flatMap((value) => {
		const disks = readLsblk(value) ?? readGetDisk(value);
		return disks ? [disks] : [];
	});
	if (listings.length) return listing([...new Map(listings.flat().map((disk) => [fingerprint(disk), disk])).values()]);
	if (values.some(isGetVolume))
		return fault(
			'disks-volumes',
			`These are volumes; which disk they lie on does not stand there. Paste what this prints: ${LISTING_COMMANDS.windows}`
		);
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

/**
 * The JSON values in a text, between whatever prompts stand around them. What is torn is never looked into: a part of a listing
 * would show one disk and hide the other that could be the card.
 */
function jsonIn(text: string): unknown[] {
	const values: unknown[] = [];
	let at = nextOpening(text, 0);
	while (at >= 0) {
		const end = closingOf(text, at);
		if (end < 0) break;
		const value = parsed(text.slice(at, end + 1));
		if (value !== undefined) values.push(value);
		at = nextOpening(text, end + 1);
	}
	return values;
}

function nextOpening(text: string, from: number): number {
	const opening = /[[{]/g;
	opening.lastIndex = from;
	return opening.exec(text)?.index ?? -1;
}

/** Where the bracket at `from` is closed; -1 when it never is. Brackets within strings do not count. */
function closingOf(text: string, from: number): number {
	let depth = 0;
	let quoted = false;
	for (let at = from; at < text.length; at++) {
		const c = text[at];
		if (quoted) {
			if (c === '\\') at++;
			else if (c === '"') quoted = false;
		} else if (c === '"') quoted = true;
		else if (c === '[' || c === '{') depth++;
		else if ((c === ']' || c === '}') && --depth === 0) return at;
	}
	return -1;
}

function parsed(text: string): unknown {
	try {
		return JSON.parse(text) as unknown;
	} catch {
		return undefined;
	}
}
