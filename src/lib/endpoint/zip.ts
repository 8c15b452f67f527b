import { zipSync, type Zippable } from 'fflate';
import { cardBytes } from '$core/files/cardBytes';
import type { CardFile } from '$core/link';

/** Unix, so that the modes below are taken up by whatever unpacks it. */
const MADE_ON_UNIX = 3;
/** The same files give the same archive, to the byte. */
const FIXED_TIME = new Date('2026-01-01T00:00:00');

/** The card set as one archive, each file with its mode. */
export function zipCardSet(files: readonly CardFile[]): Uint8Array {
	const tree: Zippable = {};
	for (const file of files)
		tree[file.path] = [
			cardBytes(file),
			{ os: MADE_ON_UNIX, attrs: ((0o100000 | parseInt(file.mode, 8)) << 16) >>> 0, mtime: FIXED_TIME, level: 6 }
		];
	return zipSync(tree);
}
