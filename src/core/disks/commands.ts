import { formatBytes } from '../format';
import { shellQuote } from '../formats/shell/quote';
import type { HostDisk } from './disk';

export interface DiskCommand {
	readonly what: string;
	readonly command: string;
	/** It takes long, or wipes: said beside it. */
	readonly note?: string;
}
export interface ImageFile {
	/** As the person has it, with its folder. */
	readonly path: string;
	readonly form: 'raw' | 'gzip' | 'xz' | 'zstd' | 'zip';
	readonly rawBytes: number | null;
}

/** Source: about_Quoting_Rules: a single-quoted text is taken as it is; each kind of single quote in it is doubled. */
export const powerShellQuote = (text: string): string => `'${text.replace(/['\u2018\u2019\u201a\u201b]/g, '$&$&')}'`;

/** Writes the decompressed image to standard output. */
const UNPACK = { gzip: 'gzip -dc', xz: 'xz -dc', zstd: 'zstd -dc', zip: 'unzip -p' } as const;

/** What has to be typed before any command is shown: size and model, so that it is looked at twice. */
export const confirmationOf = (disk: HostDisk): string =>
	[disk.sizeBytes === null ? disk.id : formatBytes(disk.sizeBytes).replaceAll('\u2009', ' '), disk.model]
		.filter(Boolean)
		.join(' ');

export const isConfirmed = (typed: string, disk: HostDisk): boolean =>
	typed.trim().replace(/\s+/g, ' ').toLowerCase() === confirmationOf(disk).replace(/\s+/g, ' ').toLowerCase();

/** Unmount, write, flush, read back, eject, in the words of the system that the listing came from. */
export function writeCommands(disk: HostDisk, image: ImageFile): DiskCommand[] {
	switch (disk.system) {
		case 'linux':
			return linuxCommands(disk, image);
		case 'macos':
			return macosCommands(disk, image);
		case 'windows':
			return windowsCommands(disk, image);
	}
}

const WIPES = 'This wipes the whole disk.';
const source = ({ path, form }: ImageFile): string => (form === 'raw' ? '' : `${UNPACK[form]} ${shellQuote(path)} | `);
const limit = ({ rawBytes }: ImageFile): string => (rawBytes === null ? '' : `-n ${rawBytes} `);

function linuxCommands(disk: HostDisk, image: ImageFile): DiskCommand[] {
	const device = shellQuote(disk.id);
	const mounted = disk.volumes.filter(({ mount }) => mount !== '').map(({ id }) => shellQuote(id));
	const raw = image.form === 'raw';
	return [
		...(mounted.length
			? [
					{
						what: 'Let go of what is open on it, without ejecting',
						command: `sudo umount ${[...new Set(mounted)].join(' ')}`
					}
				]
			: []),
		{
			what: 'Write, past the cache, with progress',
			command: `${source(image)}sudo dd ${raw ? `if=${shellQuote(image.path)} ` : 'iflag=fullblock '}of=${device} bs=4M oflag=direct conv=fsync status=progress`,
			note: WIPES
		},
		{ what: 'Flush, and forget what was cached', command: `sync; sudo blockdev --flushbufs ${device}` },
		{
			what: 'Read back and compare',
			command: `${source(image)}sudo cmp ${limit(image)}${raw ? shellQuote(image.path) : '-'} ${device} && echo the same`,
			note: image.rawBytes === null ? 'It ends with "EOF" once the whole image was the same: that is good.' : undefined
		},
		{ what: 'Eject', command: `sudo eject ${device}` }
	].map(withoutUndefined);
}

function macosCommands(disk: HostDisk, image: ImageFile): DiskCommand[] {
	const raw = image.form === 'raw';
	const device = `/dev/r${disk.id}`;
	return [
		{ what: 'Let go of what is open on it, without ejecting', command: `diskutil unmountDisk /dev/${disk.id}` },
		{
			what: 'Write, past the cache; Ctrl T shows how far it is',
			command: `${source(image)}sudo dd ${raw ? `if=${shellQuote(image.path)} ` : ''}of=${device} bs=4m`,
			note: WIPES
		},
		{ what: 'Flush', command: 'sync' },
		{
			what: 'Read back and compare',
			command: raw
				? `sudo cmp ${limit(image)}${shellQuote(image.path)} ${device} && echo the same`
				: `${source(image)}sudo cmp ${limit(image)}- ${device} && echo the same`
		},
		{ what: 'Eject', command: `diskutil eject /dev/${disk.id}` }
	];
}

/** PowerShell, as administrator. The disk is cleared first: Windows lets nobody write over a volume that it holds. */
function windowsCommands(disk: HostDisk, image: ImageFile): DiskCommand[] {
	const path = powerShellQuote(image.path.replace(/\.(?:gz|xz|zst|zip)$/i, ''));
	const open = `$in = [IO.File]::OpenRead(${path}); $out = [IO.FileStream]::new('\\\\.\\PhysicalDrive${disk.id}', 'Open', 'ReadWrite', 'ReadWrite')`;
	return [
		...(image.form === 'raw'
			? []
			: [
					{
						what: 'Unpack the image first',
						command:
							image.form === 'zip'
								? `Expand-Archive -LiteralPath ${powerShellQuote(image.path)} -DestinationPath .`
								: `tar -xf ${powerShellQuote(image.path)}`,
						note: 'When this computer cannot unpack it, fetch the image in another form.'
					}
				]),
		{
			what: 'Take everything off it, so that nothing holds it',
			command: `Clear-Disk -Number ${disk.id} -RemoveData -RemoveOEM -Confirm:$false`,
			note: WIPES
		},
		{
			what: 'Write, with progress',
			command: `${open}; $buffer = [byte[]]::new(4MB); while (($n = $in.Read($buffer, 0, $buffer.Length)) -gt 0) { if ($n % 512) { [Array]::Clear($buffer, $n, 512 - $n % 512); $n += 512 - $n % 512 }; $out.Write($buffer, 0, $n); Write-Progress 'Writing' -PercentComplete (100 * $in.Position / $in.Length) }; $out.Flush($true)`,
			note: WIPES
		},
		{
			what: 'Read back and compare',
			command: `$in.Position = 0; $out.Position = 0; $same = $true; $back = [byte[]]::new(4MB); while (($n = $in.Read($buffer, 0, $buffer.Length)) -gt 0) { $m = $out.Read($back, 0, [Math]::Ceiling($n / 512) * 512); for ($i = 0; $i -lt $n; $i++) { if ($buffer[$i] -ne $back[$i]) { $same = $false; break } }; if (-not $same) { break } }; if ($same) { 'the same' } else { 'DIFFERENT' }`
		},
		{ what: 'Let go', command: `$in.Close(); $out.Close()`, note: 'Then take it out by the tray\u2019s own entry.' }
	];
}

const withoutUndefined = (command: DiskCommand): DiskCommand =>
	command.note === undefined ? { what: command.what, command: command.command } : command;
