import { z } from 'zod';
import type { HostDisk, Volume } from './disk';

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

const mountsOf = (d: Device): string[] =>
	[...(d.mountpoints ?? []), d.mountpoint ?? null].flatMap((mount) => (mount ? [mount] : []));
const below = (d: Device): Device[] => [d, ...(d.children ?? []).flatMap(below)];

/** `lsblk -J -b -o NAME,SIZE,TYPE,MOUNTPOINTS,RM,RO,TRAN,MODEL,SERIAL`. Null when it is something else. */
export function readLsblk(value: unknown): HostDisk[] | null {
	const parsed = listing.safeParse(value);
	if (!parsed.success) return null;
	return parsed.data.blockdevices
		.filter(({ type }) => type === 'disk' || type === undefined || type === null)
		.filter(({ name }) => !/^(?:loop|ram|zram|sr|fd)\d/.test(name.replace('/dev/', '')))
		.map((disk): HostDisk => {
			const all = below(disk);
			const bus = disk.tran ?? (/mmcblk/.test(disk.name) ? 'mmc' : '');
			return {
				system: 'linux',
				id: disk.name.startsWith('/dev/') ? disk.name : `/dev/${disk.name}`,
				model: (disk.model ?? '').trim(),
				serial: (disk.serial ?? '').trim(),
				sizeBytes: Number.isFinite(disk.size) ? disk.size! : null,
				bus,
				removable: disk.rm || disk.hotplug ? true : (disk.rm ?? null),
				internal: bus === '' ? null : !['usb', 'mmc'].includes(bus),
				readOnly: disk.ro ?? null,
				holdsSystem: all.some((d) => mountsOf(d).some((mount) => !PLUGGED_IN.test(mount))),
				volumes: all.slice(1).flatMap((d): Volume[] => {
					const id = d.name.startsWith('/dev/') ? d.name : `/dev/${d.name}`;
					const mounts = mountsOf(d);
					const volume = { id, name: d.label ?? '', sizeBytes: d.size ?? null, fileSystem: d.fstype ?? '' };
					return mounts.length ? mounts.map((mount) => ({ ...volume, mount })) : [{ ...volume, mount: '' }];
				})
			};
		});
}
