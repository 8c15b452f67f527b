import { z } from 'zod';
import type { HostDisk, Volume } from './disk';
import { safely } from '../basics/safely';

/** Older lsblk writes numbers and switches as text. */
const number = z
	.union([z.number(), z.string().transform(Number)])
	.nullable()
	.optional();
const yes = z
	.union([z.boolean(), z.string().transform((text) => text === '1'), z.number().transform((n) => n === 1)])
	.nullable()
	.optional();
const word = z.string().nullable().optional();
interface Device {
	name: string;
	size?: number | null;
	type?: string | null;
	mountpoints?: (string | null)[] | null;
	mountpoint?: string | null;
	rm?: boolean | null;
	ro?: boolean | null;
	hotplug?: boolean | null;
	tran?: string | null;
	model?: string | null;
	serial?: string | null;
	fstype?: string | null;
	label?: string | null;
	children?: Device[];
}
const device: z.ZodType<Device> = z.lazy(() =>
	z.object({
		name: z.string(),
		size: number,
		type: word,
		mountpoints: z.array(z.string().nullable()).nullable().optional(),
		mountpoint: word,
		rm: yes,
		ro: yes,
		hotplug: yes,
		tran: word,
		model: word,
		serial: word,
		fstype: word,
		label: word,
		children: z.array(device).optional()
	})
) as z.ZodType<Device>;
const listing = z.object({ blockdevices: z.array(device) });

/** Places where desktops put what was plugged in; whatever is mounted elsewhere is in use. */
const PLUGGED_IN = /^\/(?:media|run\/media|mnt)\//;
/** Pieces of something larger, which may be in use without being mounted under their own name. */
const MEMBER = /^(?:LVM2_member|linux_raid_member|zfs_member|bcache|btrfs|ceph_bluestore|drbd)$/;

const mountsOf = (d: Device): string[] =>
	[...(d.mountpoints ?? []), d.mountpoint ?? null].flatMap((mount) => (mount ? [mount] : []));
const below = (d: Device): Device[] => [d, ...(d.children ?? []).flatMap(below)];
const tellsMounts = (d: Device): boolean => d.mountpoints !== undefined || d.mountpoint !== undefined;
const isInUse = (d: Device): boolean => mountsOf(d).some((mount) => !PLUGGED_IN.test(mount));
const path = (name: string): string => (name.startsWith('/dev/') ? name : `/dev/${name}`);

/**
 * `lsblk -J -b -o NAME,SIZE,TYPE,FSTYPE,MOUNTPOINTS,RM,RO,TRAN,MODEL,SERIAL`. Null when it is something else.
 * Nothing is said to be free unless the columns that tell what is mounted are there and show, somewhere, what the computer runs from.
 */
export function readLsblk(value: unknown): HostDisk[] | null {
	const parsed = safely(listing, value);
	if (!parsed.success) return null;
	const devices = parsed.data.blockdevices;
	const everything = devices.flatMap(below);
	const showsSystem = everything.some((d) => mountsOf(d).includes('/'));
	return devices
		.filter(({ type }) => type === 'disk' || type === undefined || type === null)
		.filter(({ name }) => !/^(?:loop|ram|zram|sr|fd)\d/.test(name.replace('/dev/', '')))
		.map((disk) => hostDisk(disk, showsSystem));
}

function hostDisk(disk: Device, showsSystem: boolean): HostDisk {
	const all = below(disk);
	const bus = disk.tran ?? (/mmcblk/.test(disk.name) ? 'mmc' : '');
	const isTold = showsSystem && all.every(tellsMounts) && !all.some(({ fstype }) => MEMBER.test(fstype ?? ''));
	return {
		system: 'linux',
		id: path(disk.name),
		model: (disk.model ?? '').trim(),
		serial: (disk.serial ?? '').trim(),
		sizeBytes: Number.isFinite(disk.size) ? disk.size! : null,
		bus,
		removable: disk.rm || disk.hotplug ? true : (disk.rm ?? null),
		internal: bus === '' ? null : !['usb', 'mmc'].includes(bus),
		readOnly: disk.ro ?? null,
		inUse: all.some(isInUse) ? true : isTold ? false : null,
		volumes: all.slice(1).flatMap((d): Volume[] => {
			const volume = { id: path(d.name), name: d.label ?? '', sizeBytes: d.size ?? null, fileSystem: d.fstype ?? '' };
			const mounts = mountsOf(d);
			return mounts.length ? mounts.map((mount) => ({ ...volume, mount })) : [{ ...volume, mount: '' }];
		})
	};
}
