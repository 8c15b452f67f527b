import { z } from 'zod';
import type { HostDisk } from './disk';
import { safely } from '../basics/safely';

/** Numbers of MSFT_Disk.BusType, which some versions print in place of the word. Source: Storage Management API, MSFT_Disk. */
const BUSES: Readonly<Record<number, string>> = {
	1: 'SCSI',
	3: 'ATA',
	7: 'USB',
	8: 'RAID',
	11: 'SATA',
	12: 'SD',
	13: 'MMC',
	15: 'File Backed Virtual',
	17: 'NVMe'
};
const CARDS = ['USB', 'SD', 'MMC'];

const disk = z.object({
	Number: z.number().int().min(0).max(9999),
	FriendlyName: z.string().nullable().optional(),
	Model: z.string().nullable().optional(),
	SerialNumber: z.string().nullable().optional(),
	Size: z
		.union([z.number(), z.string().transform(Number)])
		.nullable()
		.optional(),
	BusType: z.union([z.string(), z.number()]).nullable().optional(),
	IsBoot: z.boolean().nullable().optional(),
	IsSystem: z.boolean().nullable().optional(),
	IsReadOnly: z.boolean().nullable().optional()
});
const disks = z.union([z.array(disk), disk.transform((one) => [one])]);
const volumes = z.union([
	z.array(z.looseObject({ DriveLetter: z.unknown(), FileSystem: z.unknown() })),
	z.looseObject({ DriveLetter: z.unknown(), FileSystem: z.unknown() })
]);

/** `Get-Disk | ConvertTo-Json`: a list, or one disk alone. Null when it is something else. */
export function readGetDisk(value: unknown): HostDisk[] | null {
	const parsed = safely(disks, value);
	if (!parsed.success || parsed.data.length === 0) return null;
	return parsed.data.map((d): HostDisk => {
		const bus = typeof d.BusType === 'number' ? (BUSES[d.BusType] ?? '') : (d.BusType ?? '');
		return {
			system: 'windows',
			id: String(d.Number),
			model: (d.FriendlyName ?? d.Model ?? '').trim(),
			serial: (d.SerialNumber ?? '').trim(),
			sizeBytes: Number.isFinite(d.Size) ? d.Size! : null,
			bus: bus.toLowerCase(),
			removable: bus === '' ? null : CARDS.includes(bus),
			internal: bus === '' ? null : !CARDS.includes(bus),
			readOnly: d.IsReadOnly ?? null,
			// A listing that keeps silent of it is not trusted.
			inUse: d.IsBoot !== false || d.IsSystem !== false,
			volumes: []
		};
	});
}

/** `Get-Volume | ConvertTo-Json` says nothing of disks: it is known, so that the person can be told what to paste instead. */
export const isGetVolume = (value: unknown): boolean =>
	safely(volumes, value).success &&
	[value].flat().some((one) => typeof one === 'object' && one !== null && Object.hasOwn(one, 'DriveType'));
