import { cardBytes, cardDigest, cardSize } from '../../files/cardBytes';
import { textFile } from '../../files/cardFile';
import { CONTENT_NOW, contentPath } from '../../files/content';
import { targetOf } from '../../files/renamed';
import type { CardFile } from '../../link/file';
import { OWN_DIR, RENEW_PATH, RENEW_UNIT, SWITCH_PATH, CONTENT_UNIT } from './places';

/** How a set is laid out where it waits: files first, so that no manifest ever names one that is not there yet. */
export const packEntries = (
	{ manifest, files }: Pack,
	signature: Uint8Array | null
): { readonly path: string; readonly mode: '0644'; readonly bytes: Uint8Array | Blob }[] => [
	...[...new Map(files.map((one) => [one.digest, one])).values()].map(({ digest, file }) => ({
		path: `files/${digest}`,
		mode: '0644' as const,
		bytes: 'blob' in file ? file.blob : cardBytes(file)
	})),
	...(signature ? [{ path: 'manifest.txt.sig', mode: '0644' as const, bytes: signature }] : []),
	{ path: 'manifest.txt', mode: '0644', bytes: new TextEncoder().encode(manifest) }
];

/** A set of content as it stands at an address: its manifest, and each file under the name of its digest. */
export interface Pack {
	readonly manifest: string;
	/** `path`: within the set. */
	readonly files: readonly { readonly path: string; readonly digest: string; readonly file: CardFile }[];
	readonly bytes: number;
}

/** The delivery's own files: another time or address is no reason to refuse a set. */
const OWN = [
	OWN_DIR,
	RENEW_PATH,
	SWITCH_PATH,
	`/etc/systemd/system/${RENEW_UNIT}`,
	`/etc/systemd/system/${CONTENT_UNIT}`
];
/** Files that belong to the endpoint and by which content is played: a set that was made for others of them would not run. */
const isNeeded = (path: string): boolean =>
	/^\/(?:etc\/systemd\/system\/yphos-|opt\/yphos\/bin\/|etc\/mpv\/)/.test(path) &&
	!OWN.some((own) => path.startsWith(own));

/** Lists name their files where the player finds them: through the link to what is shown now. */
function asFetched(file: CardFile): CardFile {
	if (!('lines' in file) || !/\.m3u8$/.test(file.path)) return file;
	return textFile(
		file.path,
		file.why,
		file.lines.map((line) =>
			contentPath(line.text) === null ? line : { ...line, text: `${CONTENT_NOW}/${contentPath(line.text)}` }
		),
		file.mode
	);
}

/** Whose a set is, and where it stands in their order. */
interface Packed {
	readonly hostName: string;
	/** Greater than that of every set before it in its era, such as the seconds since 1970. */
	readonly number: number;
	/** Greater than that of all sets that are to be passed over, whatever their numbers. */
	readonly era: number;
}

/**
 * What of a card set is content, as a set that the endpoint fetches. Lines of the manifest: "for HOST", "era N", "number N",
 * "needs DIGEST 0 PATH", "file DIGEST BYTES PATH", "end".
 */
export function packContent(cardSet: readonly CardFile[], { hostName, number, era }: Packed): Pack {
	const placed = cardSet
		.map((file) => ({ onEndpoint: targetOf(file), file }))
		.filter((placed): placed is { onEndpoint: string; file: CardFile } => placed.onEndpoint !== null);
	const files = placed.flatMap(({ onEndpoint, file }) => {
		const path = contentPath(onEndpoint);
		if (path === null) return [];
		const fetched = asFetched(file);
		return [{ path, digest: cardDigest(fetched), file: fetched }];
	});
	const manifest = [
		'yphos-content 1',
		`for ${hostName}`,
		`era ${era}`,
		`number ${number}`,
		...placed
			.filter(({ onEndpoint }) => isNeeded(onEndpoint))
			.map(({ onEndpoint, file }) => `needs ${cardDigest(file)} 0 ${onEndpoint}`),
		...files.map(({ path, digest, file }) => `file ${digest} ${cardSize(file)} ${path}`),
		'end'
	];
	return {
		manifest: manifest.map((line) => `${line}\n`).join(''),
		files,
		bytes: files.reduce((sum, { file }) => sum + cardSize(file), 0)
	};
}
