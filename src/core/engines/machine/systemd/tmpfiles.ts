import { linesOf } from '../../../formats/lines';
import type { Machine } from '../machine';

const FOLDER = '/etc/tmpfiles.d';

/** Folders and files that are made at each start, where they are not there. Source: tmpfiles.d(5), types d and f. */
export function makeTmpfiles(machine: Machine): void {
	const { disk } = machine;
	for (const name of disk.list(FOLDER)) {
		const file = disk.get(`${FOLDER}/${name}`);
		// A package's own: what it makes is nobody's here.
		if (!file || file.stub || !name.endsWith('.conf')) continue;
		for (const line of linesOf(file.text)) {
			if (line.trim() === '' || line.startsWith('#')) continue;
			const [type = '', path = '', mode = '-', user = '-', group = '-', , ...content] = line.split(/\s+/);
			const owner = `${user === '-' ? 'root' : user}:${group === '-' ? 'root' : group}`;
			if (type === 'd') {
				disk.makeFolder(path);
				disk.folderOwners.set(path, owner);
				if (mode !== '-') disk.folderModes.set(path, mode.padStart(4, '0'));
			} else if (type === 'f') {
				if (!disk.get(path))
					disk.put(path, {
						text: content.join(' '),
						bytes: null,
						owner,
						mode: mode === '-' ? '0644' : mode.padStart(4, '0')
					});
			} else machine.unknown(`${FOLDER}/${name}: ${type}`);
		}
	}
}
