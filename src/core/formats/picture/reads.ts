import { readStillSize } from './size';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readStillSize',
		samples: [
			new Uint8Array([
				0x89,
				0x50,
				0x4e,
				0x47,
				13,
				10,
				26,
				10,
				0,
				0,
				0,
				13,
				0x49,
				0x48,
				0x44,
				0x52,
				...Array<number>(20).fill(1)
			]),
			new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 0, 4, 1, 2, 0xff, 0xc0, 0, 11, 8, 1, 0, 2, 0, 1, 1, 17, 0, 0])
		],
		read: (bytes) => readStillSize(bytes)
	}
] satisfies readonly FuzzedReader[];
