import { Unzip, UnzipInflate, UnzipPassThrough, Zip, ZipDeflate, ZipPassThrough } from 'fflate';

/** Unix, so that the modes below are taken up by whatever unpacks it. */
const MADE_ON_UNIX = 3;
/** The same files give the same archive, to the byte. */
const FIXED_TIME = new Date('2026-01-01T00:00:00');
/** So much at a time, so that progress can be told. */
const SLICE_BYTES = 1 << 20;

/** A file for an archive; `packed`: its bytes are dense already. */
export interface ZipEntry {
	readonly path: string;
	/** As in "0644". */
	readonly mode: string;
	readonly bytes: Uint8Array;
	readonly packed?: boolean;
}

/** An archive of these files in pieces, each with its mode. `onPart` hears from 0 to 1 how far it is. */
export function zipFiles(files: readonly ZipEntry[], onPart: (part: number) => void = () => {}): Uint8Array[] {
	const pieces: Uint8Array[] = [];
	const zip = new Zip((error, piece) => {
		if (error) throw error;
		pieces.push(piece);
	});
	const all = files.reduce((sum, { bytes }) => sum + bytes.length, 0) || 1;
	let done = 0;
	for (const { path, mode, bytes, packed } of files) {
		const entry = packed ? new ZipPassThrough(path) : new ZipDeflate(path, { level: 6 });
		Object.assign(entry, {
			os: MADE_ON_UNIX,
			attrs: ((0o100000 | parseInt(mode, 8)) << 16) >>> 0,
			mtime: FIXED_TIME
		});
		zip.add(entry);
		for (let at = 0; at === 0 || at < bytes.length; at += SLICE_BYTES) {
			const slice = bytes.subarray(at, at + SLICE_BYTES);
			entry.push(slice, at + SLICE_BYTES >= bytes.length);
			done += slice.length;
			onPart(done / all);
		}
	}
	zip.end();
	return pieces;
}

/** Files of an archive with at most so many bytes together; null: it holds more, or is none. */
export function unzipFiles(archive: Uint8Array, mostBytes: number): Map<string, Uint8Array> | null {
	const files = new Map<string, Uint8Array>();
	let bytes = 0;
	let failed = archive.length < 4 || archive[0] !== 0x50 || archive[1] !== 0x4b;
	const unzip = new Unzip((file) => {
		const pieces: Uint8Array[] = [];
		file.ondata = (error, piece, last) => {
			bytes += piece?.length ?? 0;
			if (error || bytes > mostBytes) {
				failed = true;
				pieces.length = 0;
				return;
			}
			pieces.push(piece);
			if (last) files.set(file.name, joined(pieces));
		};
		file.start();
	});
	unzip.register(UnzipInflate);
	unzip.register(UnzipPassThrough);
	try {
		for (let at = 0; at < archive.length && !failed; at += SLICE_BYTES)
			unzip.push(archive.subarray(at, at + SLICE_BYTES), at + SLICE_BYTES >= archive.length);
	} catch {
		failed = true;
	}
	return failed ? null : files;
}

function joined(pieces: readonly Uint8Array[]): Uint8Array {
	const all = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0));
	let at = 0;
	for (const piece of pieces) {
		all.set(piece, at);
		at += piece.length;
	}
	return all;
}
