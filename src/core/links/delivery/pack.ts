import { cardDigest, cardSize } from '../../files/cardBytes';
import { rootPath, textFile } from '../../files/cardFile';
import { CONTENT_NOW, contentPath } from '../../files/content';
import type { CardFile } from '../../link';
import { OWN_DIR, RENEW_PATH, RENEW_UNIT, SWITCH_PATH, CONTENT_UNIT } from './places';

/** A set of content as it stands at an address: its manifest, and each file under the name of its digest. */
export interface Pack {
	readonly manifest: string;
	/** `path`: within the set. */
	readonly files: readonly { readonly path: string; readonly digest: string; readonly file: CardFile }[];
	readonly bytes: number;
}

const ROOT = rootPath('');
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

/**
 * What of a card set is content, as a set that the endpoint fetches. `number`: greater than that of every set before, such as the
 * seconds since 1970. Lines of the manifest: "for HOST", "number N", "needs DIGEST 0 PATH", "file DIGEST BYTES PATH", "end".
 */
export function packContent(cardSet: readonly CardFile[], hostName: string, number: number): Pack {
	const placed = cardSet
		.filter(({ path }) => path.startsWith(`${ROOT}/`))
		.map((file) => ({ onEndpoint: file.path.slice(ROOT.length), file }));
	const files = placed.flatMap(({ onEndpoint, file }) => {
		const path = contentPath(onEndpoint);
		if (path === null) return [];
		const fetched = asFetched(file);
		return [{ path, digest: cardDigest(fetched), file: fetched }];
	});
	const manifest = [
		'yphos-content 1',
		`for ${hostName}`,
		`number ${number}`,
		...placed
			.filter(({ onEndpoint, file }) => isNeeded(onEndpoint) && file.mode !== '0600')
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
