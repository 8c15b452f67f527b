import type { Bench } from './bench';
import { Disk, type CardTree } from './disk';
import { IMAGE_PACKAGES, type PackageContents } from './packageTable';

const FOLDERS = [
	'/boot',
	'/dev',
	'/etc/systemd/system',
	'/etc/systemd/system.conf.d',
	'/home',
	'/media',
	'/mnt',
	'/opt',
	'/proc',
	'/root',
	'/run',
	'/srv',
	'/sys',
	'/tmp',
	'/usr/bin',
	'/usr/sbin',
	'/var/lib',
	'/var/log'
];

/** Programs are there without their insides: what they do is a stand-in's business. */
export function unpack(disk: Disk, name: string, { programs, units, conffiles }: PackageContents): void {
	for (const path of programs) disk.put(path, { text: '', bytes: null, mode: '0755', stub: true });
	for (const unit of units) disk.put(`/usr/lib/systemd/system/${unit}`, { text: '', bytes: null, stub: true });
	for (const path of conffiles) if (!disk.get(path)) disk.put(path, { text: '', bytes: null, stub: true });
	disk.packages.set(name, 'installed');
}

/** Source: base-files 12.4 of Debian 12. */
const OS_RELEASE =
	'PRETTY_NAME="Debian GNU/Linux 12 (bookworm)"\nNAME="Debian GNU/Linux"\nVERSION_ID="12"\nVERSION="12 (bookworm)"\nVERSION_CODENAME=bookworm\nID=debian\n';

let made: Disk | null = null;

/** A lite image as it comes, with the card set on its first partition. */
export function imageDisk(card: CardTree, bench: Pick<Bench, 'firstPartition' | 'startFile'>): Disk {
	if (!made) {
		made = new Disk();
		for (const folder of FOLDERS) made.makeFolder(folder);
		for (const [name, contents] of Object.entries(IMAGE_PACKAGES)) unpack(made, name, contents);
		made.put('/etc/hosts', { text: '127.0.0.1\tlocalhost\n', bytes: null });
		made.put('/etc/os-release', { text: OS_RELEASE, bytes: null });
		// The shells are one program each under two names.
		made.put('/usr/bin/sh', { text: '', bytes: null, mode: '0755', stub: true });
	}
	const disk = made.copy();
	const { firstPartition, startFile } = bench;
	disk.makeFolder(firstPartition);
	if (startFile === 'config.txt')
		disk.put(`${firstPartition}/config.txt`, { text: '[all]\n', bytes: null, mode: '0755' });
	for (const [path, { text, bytes }] of card)
		// FAT knows neither owner nor mode: all is root's, and may be run.
		if (path.startsWith('boot/'))
			disk.put(`${firstPartition}/${path.slice('boot/'.length)}`, { text, bytes, mode: '0755' });
	return disk;
}
