import type { HostDisk } from '../disk';
import { unpackByHand, WIPES, withoutEnding, type DiskCommand, type ImageFile } from './command';

/** Source: about_Quoting_Rules: a single-quoted text is taken as it is; each kind of single quote in it is doubled. */
export const powerShellQuote = (text: string): string => `'${text.replace(/['\u2018\u2019\u201a\u201b]/g, '$&$&')}'`;

/** PowerShell, as administrator. The disk is cleared first: Windows lets nobody write over a volume that it holds. */
const clear = ({ id }: HostDisk): DiskCommand => ({
	what: 'Take everything off it, so that nothing holds it',
	command: `Clear-Disk -Number ${id} -RemoveData -RemoveOEM -Confirm:$false`,
	note: WIPES
});
const openDisk = ({ id }: HostDisk): string =>
	`$disk = [IO.FileStream]::new('\\\\.\\PhysicalDrive${id}', 'Open', 'ReadWrite', 'ReadWrite'); $block = [byte[]]::new(4MB)`;
const NEW_HASH = '[Security.Cryptography.SHA256]::Create()';
const FINISH = '[void]$hash.TransformFinalBlock($block, 0, 0)';
/** Reads so many bytes of the disk, and leaves their digest in $hash. A disk gives whole sectors only. */
const hashDisk = (bytes: string): string =>
	`$hash = ${NEW_HASH}; $disk.Position = 0; for ($left = ${bytes}; $left -gt 0; $left -= $n) { $n = [Math]::Min($disk.Read($block, 0, $block.Length), $left); if ($n -eq 0) { break }; [void]$hash.TransformBlock($block, 0, $n, $null, 0) }; ${FINISH}`;
const hex = (bytes: string): string => `[BitConverter]::ToString(${bytes})`;

/** A path as .NET takes it: whole, with "~" as one's own folder; .NET knows nothing of where PowerShell stands. Source: Convert-Path. */
const wholePath = (path: string): string => `(Convert-Path -LiteralPath ${powerShellQuote(path)})`;

/** Everything is typed there, one after the other: variables of one line are used in the next. Source: Start-Process, -Verb RunAs. */
const asAdministrator: DiskCommand = {
	what: 'Open an administrator\u2019s PowerShell, and type all that follows there, in that one window',
	command: 'Start-Process powershell -Verb RunAs',
	note: 'Windows asks whether it may. In another window the disk cannot be opened.'
};

function unpack(image: ImageFile): DiskCommand[] {
	const { path, form } = image;
	if (form === 'raw') return [];
	if (form === 'xz' || form === 'zstd') return [unpackByHand(image)];
	const to = powerShellQuote(withoutEnding(path));
	return [
		form === 'zip'
			? {
					what: 'Unpack the image first',
					command: `Expand-Archive -LiteralPath ${powerShellQuote(path)} -DestinationPath (Split-Path ${wholePath(path)})`,
					note: 'If what was in it has another name, type that one in the lines below.'
				}
			: {
					what: 'Unpack the image first',
					command: `$from = [IO.Compression.GZipStream]::new([IO.File]::OpenRead(${wholePath(path)}), 'Decompress'); Set-Content -LiteralPath ${to} -Value $null; $to = [IO.File]::Create(${wholePath(withoutEnding(path))}); $from.CopyTo($to); $to.Close(); $from.Close()`
				}
	];
}

/** Take away letters, write, compare by digest. For an administrator's PowerShell. Source: Clear-Disk, Get-FileHash. */
export function writeOnWindows(disk: HostDisk, image: ImageFile): DiskCommand[] {
	const path = wholePath(withoutEnding(image.path));
	return [
		asAdministrator,
		...unpack(image),
		clear(disk),
		{
			what: 'Write, with progress',
			command: `${openDisk(disk)}; $in = [IO.File]::OpenRead(${path}); while (($n = $in.Read($block, 0, $block.Length)) -gt 0) { if ($n % 512) { [Array]::Clear($block, $n, 512 - $n % 512); $n += 512 - $n % 512 }; $disk.Write($block, 0, $n); Write-Progress 'Writing' -PercentComplete (100 * $in.Position / $in.Length) }; $disk.Flush($true)`,
			note: WIPES
		},
		{
			what: 'Read back and compare',
			command: `${hashDisk('$in.Length')}; $in.Position = 0; if (${hex('$hash.Hash')} -eq ${hex(`${NEW_HASH}.ComputeHash($in)`)}) { 'the same' } else { 'DIFFERENT' }`
		},
		{ what: 'Let go', command: `$in.Close(); $disk.Close()`, note: 'Then take it out by the tray\u2019s own entry.' }
	];
}

/** Each block is filled with noise that its own number brings forth, so that nothing but the card has to remember it. */
export const proveOnWindows = (disk: HostDisk, bytes: number): DiskCommand[] => [
	asAdministrator,
	clear(disk),
	{
		what: 'Fill it to its last byte',
		command: `${openDisk(disk)}; $hash = ${NEW_HASH}; for ($at = 0L; $at -lt ${bytes}L; $at += $n) { $n = [int][Math]::Min(4MB, ${bytes}L - $at); [Random]::new([int]($at / 4MB)).NextBytes($block); $disk.Write($block, 0, $n); [void]$hash.TransformBlock($block, 0, $n, $null, 0); Write-Progress 'Filling' -PercentComplete (100 * $at / ${bytes}L) }; ${FINISH}; $disk.Flush($true); $given = ${hex('$hash.Hash')}`,
		note: WIPES
	},
	{
		what: 'Read all of it back',
		command: `${hashDisk(`${bytes}L`)}; if (${hex('$hash.Hash')} -eq $given) { 'the whole size is there' } else { 'DIFFERENT' }; $disk.Close()`
	}
];
