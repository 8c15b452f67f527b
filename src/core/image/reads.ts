import { readDigests } from './digest';
import { readTable } from './partitions';
import { readFileSystem } from './fileSystem';
import { ImageScanner } from './scanner';
import { sniffForm } from './form';
import { file, type FuzzedReader } from '../readers/reader';

export default [
	{
		name: 'readDigests',
		samples: [
			`${'ab'.repeat(32)}  night.img.xz\nSHA256 (b.img) = ${'cd'.repeat(32)}\n`,
			'-----BEGIN PGP SIGNATURE-----\n'
		],
		read: (_, text) => readDigests(text)
	},
	{
		name: 'readTable',
		samples: [file('image/fixtures/mbr.img.gz'), file('image/fixtures/gpt.img.gz')],
		read: (bytes) => readTable(bytes)
	},
	{
		name: 'readFileSystem',
		samples: [file('image/fixtures/mbr.img.gz')],
		read: (bytes) => readFileSystem(bytes.subarray(1024))
	},
	{
		name: 'ImageScanner',
		samples: [file('image/fixtures/mbr.img.gz'), file('image/fixtures/gpt.img.gz')],
		read(bytes) {
			const scanner = new ImageScanner();
			scanner.push(bytes);
			scanner.finish();
			sniffForm(bytes);
		}
	}
] satisfies readonly FuzzedReader[];
