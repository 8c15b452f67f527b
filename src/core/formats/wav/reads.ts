import { readWav } from './wav';
import { readFlac } from './flac';
import { type FuzzedReader } from '../../readers/reader';

const wav = (): Uint8Array => {
	const bytes = new Uint8Array(200);
	bytes.set(new TextEncoder().encode('RIFF\u00c0\0\0\0WAVEfmt \u0010\0\0\0\u0001\0\u0002\0'));
	new DataView(bytes.buffer).setUint32(24, 48_000, true);
	new DataView(bytes.buffer).setUint16(34, 16, true);
	bytes.set(new TextEncoder().encode('data'), 36);
	return bytes;
};

export default [
	{ name: 'readWav', samples: [wav()], read: (bytes) => readWav(bytes) },
	{
		name: 'readFlac',
		samples: [Uint8Array.from([0x66, 0x4c, 0x61, 0x43, 0, 0, 0, 34, ...Array<number>(40).fill(7)])],
		read: (bytes) => readFlac(bytes)
	}
] satisfies readonly FuzzedReader[];
