import { readDisks } from './read';
import { judgeDisks } from './verdict';
import { readDiskutilList, readDiskutilPlist, readDiskutilInfo } from './macos';
import { promised, file, type FuzzedReader } from '../readers/reader';

export default [
	{
		name: 'readDisks',
		samples: [
			'linux-laptop.json',
			'linux-machine.json',
			'macos-list.txt',
			'macos-list.plist',
			'macos-info.txt',
			'windows-disks.txt'
		].map((name) => file(`disks/fixtures/${name}`)),
		read(_, text) {
			const read = readDisks(text);
			if (!read.ok) return;
			for (const { disk, verdict } of judgeDisks(read.value.disks, { imageBytes: 2e9, cardGb: 32 }))
				promised(verdict !== 'card' || disk.inUse === false, 'a card is known not to be in use');
		}
	},
	{
		name: 'readDiskutilList',
		samples: [file('disks/fixtures/macos-list.txt')],
		read: (_, text) => readDiskutilList(text)
	},
	{
		name: 'readDiskutilPlist',
		samples: [file('disks/fixtures/macos-list.plist')],
		read: (_, text) => readDiskutilPlist(text)
	},
	{
		name: 'readDiskutilInfo',
		samples: [file('disks/fixtures/macos-info.txt')],
		read: (_, text) => readDiskutilInfo(text)
	}
] satisfies readonly FuzzedReader[];
