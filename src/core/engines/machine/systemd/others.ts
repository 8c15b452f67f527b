import type { Manager } from './service';
import { globbed } from './unitFiles';

/** Mounts what a unit names, by whoever on the bench has it. Source: systemd.mount(5). */
export function startMount({ machine, files, reach, failed }: Manager, name: string): void {
	const what = files.value(name, 'What') ?? '';
	const where = files.value(name, 'Where') ?? '';
	const mount = machine.offers.mount;
	if (!mount) {
		machine.unknown(`${name}: what it mounts is not on this bench`);
		return failed(name);
	}
	mount({ what, where, type: files.value(name, 'Type') ?? '', options: files.value(name, 'Options') ?? '' }, (why) => {
		if (why === null) return reach(name);
		machine.once('program-says', { path: name, last: why });
		failed(name);
	});
}

/** Starts a unit when a path comes into being, or changes. Source: systemd.path(5). */
export function startPath({ machine, files, start, reach }: Manager, name: string): void {
	const target = files.value(name, 'Unit') ?? name.replace(/\.path$/, '.service');
	const paths = [...files.values(name, 'PathChanged'), ...files.values(name, 'PathModified')];
	const folders = files.values(name, 'DirectoryNotEmpty');
	if (files.isOn(name, 'MakeDirectory'))
		for (const folder of folders) {
			machine.disk.makeFolder(folder);
			machine.disk.folderModes.set(folder, files.value(name, 'DirectoryMode') ?? '0755');
		}
	const existing = files.values(name, 'PathExists');
	const patterns = files.values(name, 'PathExistsGlob');
	const exists = (): boolean =>
		folders.some((folder) => machine.disk.list(folder).length > 0) ||
		existing.some((path) => machine.disk.kind(path) !== null) ||
		patterns.some((path) => globbed(machine.disk, path));
	const contents = (): string => paths.map((path) => machine.disk.get(path)?.text ?? '').join('\0');
	let was = contents();
	const look = (): void => {
		const now = contents();
		if (exists() || now !== was) start(target);
		was = now;
	};
	reach(name);
	if (exists()) start(target);
	// However much changes at once, it is looked at once.
	let isDue = false;
	const forget = machine.world.onChange(() => {
		if (isDue) return;
		isDue = true;
		machine.after(0, () => {
			isDue = false;
			look();
		});
	});
	machine.on('mains-off', forget);
}
