import { readMp4 } from '.';
import { type FuzzedReader } from '../../readers/reader';

/** The boxes of a film without its frames. */
const film = (): Uint8Array => {
	const box = (type: string, ...parts: (readonly number[])[]): number[] => {
		const inner = parts.flat();
		const size = inner.length + 8;
		return [0, 0, size >> 8, size & 0xff, ...[...type].map((c) => c.charCodeAt(0)), ...inner];
	};
	const zeros = (n: number): number[] => Array<number>(n).fill(0);
	const header = [...zeros(12), 0, 0, 3, 0xe8, 0, 0, 7, 0xd0, ...zeros(8)];
	const entry = box('avc1', [...zeros(24), 5, 0, 2, 0xd0, ...zeros(50)], box('avcC', [1, 100, 0, 31]));
	const stbl = box(
		'stbl',
		box('stsd', [0, 0, 0, 0, 0, 0, 0, 1], entry),
		box('stts', [0, 0, 0, 0, 0, 0, 0, 1, 0, 0, 0, 50, 0, 0, 0, 40])
	);
	const handler = [...zeros(8), ...[...'vide'].map((c) => c.charCodeAt(0)), ...zeros(12)];
	const mdia = box('mdia', box('mdhd', header), box('hdlr', handler), box('minf', stbl));
	return Uint8Array.from([...box('ftyp', zeros(8)), ...box('moov', box('mvhd', header), box('trak', mdia))]);
};

export default [
	{ name: 'readMp4', samples: [film()], read: (bytes) => readMp4(bytes) }
] satisfies readonly FuzzedReader[];
