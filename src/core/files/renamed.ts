import type { CardFile } from '../link/file';
import { rootPath } from './cardFile';
import { foldedName, isPortableName, mark } from './portableName';

const ROOT = rootPath('');
/** Beside the mirrored root: what is called otherwise there. */
const RENAMED = 'boot/yphos/renamed';
const LONGEST_STEM = 100;

/** Where a file of the set belongs on the endpoint; null: it stays on the first partition, or is for the person. */
export const targetOf = (file: Pick<CardFile, 'path' | 'target'>): string | null =>
	file.target ?? (file.path.startsWith(`${ROOT}/`) ? file.path.slice(ROOT.length) : null);

/**
 * The same files under names that every file system on the way takes. One whose own name does not do lies beside the mirrored root
 * under a plain one with a mark of the whole; what it is called on the endpoint stands in its `target`, and in the table of apply.sh.
 */
export function fitNames(files: readonly CardFile[]): CardFile[] {
	const taken = new Set<string>();
	const folders = new Set<string>();
	return files.map((file) => {
		const names = file.path.split('/');
		const key = foldedName(file.path);
		const above = names.slice(1).map((_, n) => foldedName(names.slice(0, n + 1).join('/')));
		const fits =
			names.every(isPortableName) && !taken.has(key) && !folders.has(key) && !above.some((at) => taken.has(at));
		const target = targetOf(file);
		if (!fits && target === null) throw new RangeError(`${file.path} cannot lie on the first partition`);
		if (fits) {
			taken.add(key);
			for (const at of above) folders.add(at);
			return file;
		}
		return { ...file, path: `${RENAMED}/${plainName(target!)}`, target: target! };
	});
}

/** Letters, digits and a mark; the ending stays, for whoever looks at the card. */
function plainName(target: string): string {
	const name = target.slice(target.lastIndexOf('/') + 1);
	const ending = /\.[A-Za-z0-9]{1,10}$/.exec(name)?.[0] ?? '';
	const stem = name.slice(0, name.length - ending.length).replace(/[^A-Za-z0-9]+/g, '-');
	return `f${stem.slice(0, LONGEST_STEM)}-${mark(target)}${ending}`;
}
