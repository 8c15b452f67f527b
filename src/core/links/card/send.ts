import { z } from 'zod';
import { fault, ok, type Result } from '../../basics/result';
import { readJson } from '../../formats/json/json';
import { contentPath, CONTENT_NOW } from '../../files/content';
import { PHONE_DIR } from '../../files/cardFile';
import { withHead } from '../../files/script';
import { shellWord } from '../../formats/shell/quote';
import takeScriptText from './take.sh?raw';
import { safely } from '../../basics/safely';

/** A name below the set's folder, on one line: it is handed to a shell. */
const isBelow = (path: string): boolean =>
	!path.startsWith('/') && !path.split('/').includes('..') && !/[\0-\x1f]/.test(path);

const manifest = z.object({
	yphos: z.literal('card set'),
	files: z
		.array(
			z.object({
				path: z.string().refine(isBelow),
				/** What it is called on the endpoint, where that is another name. */
				target: z.string().optional(),
				sha256: z.string(),
				size: z.number()
			})
		)
		.max(20_000)
});
/** Files of a set by their path below it: digest, size, and where another name belongs. */
export type SetFiles = ReadonlyMap<
	string,
	{ readonly sha256: string; readonly size: number; readonly target?: string | undefined }
>;

/** What a set's own manifest says that it holds. Faults: `manifest-unreadable`. */
export function readManifest(text: string): Result<SetFiles> {
	const json = readJson(text);
	const read = json.ok ? safely(manifest, json.value) : null;
	return read?.success
		? ok(new Map(read.data.files.map(({ path, ...file }) => [path, file])))
		: fault(
				'manifest-unreadable',
				'manifest.json of the card set cannot be read. Copy the card set onto the card once more.'
			);
}

/** What another set would change, by its paths. */
export interface SetChanges {
	readonly fresh: readonly string[];
	readonly changed: readonly string[];
	readonly gone: readonly string[];
	/** What is to begin anew for it to count: nothing, the player alone, or the whole endpoint. */
	readonly begins: 'nothing' | 'player' | 'endpoint';
	readonly bytes: number;
}

/** Read anew by whoever asks for it: nothing begins anew for its sake. */
const READ_EACH_TIME = `${PHONE_DIR}/`;
/** It says what the others are: changed whenever one of them is. */
const FOLLOWS = ['apply.sh', 'manifest.json', 'secrets.txt'];

/** From the set that lies there to the one that is to be there. */
export function compareSets(there: SetFiles, wanted: SetFiles): SetChanges {
	const fresh = [...wanted.keys()].filter((path) => !there.has(path));
	const changed = [...wanted].filter(([path, { sha256 }]) => there.has(path) && there.get(path)!.sha256 !== sha256);
	const gone = [...there.keys()].filter((path) => !wanted.has(path));
	const targetAt = (path: string): string | null =>
		(wanted.get(path) ?? there.get(path))?.target ?? (path.startsWith('root/') ? path.slice('root'.length) : null);
	const placed = [...fresh, ...changed.map(([path]) => path), ...gone].flatMap((path) => {
		const target = targetAt(path);
		return target === null || target.startsWith(READ_EACH_TIME) ? [] : [target];
	});
	return {
		fresh,
		changed: changed.map(([path]) => path).filter((path) => !FOLLOWS.includes(path)),
		gone,
		begins:
			placed.length === 0 ? 'nothing' : placed.every((target) => contentPath(target) !== null) ? 'player' : 'endpoint',
		bytes: [...fresh, ...changed.map(([path]) => path)].reduce((sum, path) => sum + wanted.get(path)!.size, 0)
	};
}

/** Where the set lies on the endpoint, as its shell writes it. */
const setAt = (firstPartition: string): string => `\${YPHOS_SET:-${firstPartition}/yphos}`;
/** apply.sh leaves here what the set holds, once all of it is in its place. */
const APPLIED_MANIFEST = '${YPHOS_APPLIED:-/var/lib/yphos-card/manifest.json}';
const NOW = `\${YPHOS_CONTENT_NOW:-${CONTENT_NOW}}`;

/** Asks for the manifest of what was put in place; before there was such a list, for that of what lies on the first partition. */
export const askManifest = (firstPartition: string): string =>
	`cat "${APPLIED_MANIFEST}" 2>/dev/null || cat "${setAt(firstPartition)}/manifest.json"`;
/** Asks which set of content is shown. */
export const ASK_SHOWN = `readlink "${NOW}" || true`;

/** What `ASK_SHOWN` has answered: the number of a set that was fetched, by which it was packed; null: what the card set brought. */
export const shownSet = (answer: string): number | null => {
	const number = /\/sets\/(?:\d+-)?(\d{1,15})\n?$/.exec(answer)?.[1];
	return number === undefined ? null : Number(number);
};

/**
 * Run on the endpoint beside what was sent: takes it into the card set, all of it or nothing, and puts the set in place. It goes on when
 * the connection breaks. Sources: sha256sum(1), --check; systemd-run(1), --pipe, --wait.
 */
export const takeScript = (firstPartition: string): string =>
	`${withHead(takeScriptText, [`set_at=${shellWord(`${firstPartition}/yphos`)}`]).join('\n')}\n`;
