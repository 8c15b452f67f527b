import { makeZip } from 'client-zip';
import { unzipSync } from 'fflate';

/** The same files give the same archive, to the byte. */
const FIXED_TIME = new Date('2026-01-01T00:00:00');
/** So much at a time, so that progress can be told, and no more is held. */
const SLICE_BYTES = 1 << 20;

/** A file for an archive; a blob's bytes stay where they are until it is their turn. */
export interface ZipEntry {
	readonly path: string;
	/** As in "0644". */
	readonly mode: string;
	readonly bytes: Uint8Array | Blob;
}

const sizeOf = (bytes: ZipEntry['bytes']): number => (bytes instanceof Blob ? bytes.size : bytes.length);

function* sliced(bytes: Uint8Array): Generator<Uint8Array> {
	for (let at = 0; at < bytes.length; at += SLICE_BYTES) yield bytes.subarray(at, at + SLICE_BYTES);
}
async function* streamed(blob: Blob): AsyncGenerator<Uint8Array> {
	const reader = blob.stream().getReader();
	for (let next = await reader.read(); !next.done; next = await reader.read()) yield next.value;
}

/**
 * An archive of these files as it is made, each with its mode, of any size; nothing is compressed, for media are dense already.
 * `onPart` hears from 0 to 1 how far it is. Source: PKWARE APPNOTE 6.3.9, 4.3 (Zip64 from 4 GiB on).
 */
export function zipFiles(
	files: readonly ZipEntry[],
	onPart: (part: number) => void = () => {}
): ReadableStream<Uint8Array> {
	const all = files.reduce((sum, { bytes }) => sum + sizeOf(bytes), 0) || 1;
	let done = 0;
	async function* pieces(bytes: ZipEntry['bytes']): AsyncGenerator<Uint8Array> {
		for await (const piece of bytes instanceof Blob ? streamed(bytes) : sliced(bytes)) {
			yield piece;
			done += piece.length;
			onPart(done / all);
		}
	}
	return makeZip(
		files.map(({ path, mode, bytes }) => ({
			name: path,
			mode: parseInt(mode, 8),
			lastModified: FIXED_TIME,
			size: sizeOf(bytes),
			input: pieces(bytes)
		}))
	);
}

/** Files of an archive with at most so many bytes together; null: it holds more, or is none. */
export function unzipFiles(archive: Uint8Array, mostBytes: number): Map<string, Uint8Array> | null {
	let bytes = 0;
	try {
		const files = unzipSync(archive, {
			filter({ originalSize }) {
				bytes += originalSize;
				if (bytes > mostBytes) throw new RangeError('too large');
				return true;
			}
		});
		return new Map(Object.entries(files));
	} catch {
		return null;
	}
}
