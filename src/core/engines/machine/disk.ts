import { shellWords } from '../../formats/shell/words';
import type { CardFile } from '../../link';

export interface DiskFile {
	readonly text: string;
	readonly bytes: Uint8Array | null;
	readonly mode: string;
}

/** Files as they stand on a card: by path below the card's root. */
export type CardTree = ReadonlyMap<string, { readonly text: string; readonly bytes: Uint8Array | null }>;

export const cardTree = (files: readonly CardFile[]): CardTree =>
	new Map(
		files.map((file) => [
			file.path,
			'lines' in file
				? { text: file.lines.map((line) => `${line.text}\n`).join(''), bytes: null }
				: { text: '', bytes: file.bytes }
		])
	);

/** The endpoint's own disk after apply.sh has run, as its lines say: what is placed where, and which units are enabled. */
export interface Disk {
	readonly files: ReadonlyMap<string, DiskFile>;
	readonly enabled: readonly string[];
	/** Lines of apply.sh that name a file which is not on the card. */
	readonly missing: readonly string[];
}

const APPLY = 'boot/yphos/apply.sh';
const ROOT = 'boot/yphos/root/';

export function applyCard(card: CardTree): Disk {
	const files = new Map<string, DiskFile>();
	const enabled: string[] = [];
	const missing: string[] = [];
	for (const line of (card.get(APPLY)?.text ?? '').split('\n')) {
		const [verb, ...args] = shellWords(line) ?? [];
		if (verb === 'place' && args.length === 4) {
			const [mode, , , path] = args as [string, string, string, string];
			const source = card.get(ROOT + path);
			if (source) files.set(`/${path}`, { ...source, mode });
			else missing.push(`/${path}`);
		} else if (verb === 'enable' && args[0]) enabled.push(args[0]);
	}
	return { files, enabled, missing };
}
