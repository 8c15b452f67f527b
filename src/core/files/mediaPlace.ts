import { isStream } from '../formats/playlist/playlist';
import { MEDIA_DIR } from './cardFile';
import { foldedName, isReserved, mark } from './portableName';

/** Bytes of a name with our mark: far below what FAT (255 units) and ext4 (255 bytes) hold. */
const LONGEST_STEM_BYTES = 180;

/**
 * A file name that every file system on the way takes. What had to change gets a short mark of the whole original, so that two
 * never meet; so does what `mustDiffer`. The title keeps every character.
 */
function cardFileName(location: string, mustDiffer = false): string {
	const original = location.slice(location.lastIndexOf('/') + 1);
	const plain = trimDots(original.normalize('NFC').replace(/[^\p{L}\p{N}\p{M} ._()&+,=@'!-]/gu, '_'));
	const extension = /\.[A-Za-z0-9]{1,5}$/.exec(plain)?.[0] ?? '';
	const stem = fitBytes(plain.slice(0, plain.length - extension.length), LONGEST_STEM_BYTES);
	const name = `${stem}${extension}`;
	const needsMark = mustDiffer || name !== location || stem === '' || isReserved(name);
	return needsMark ? `${stem || 'track'}-${mark(location)}${extension}` : name;
}

/** Dots, spaces and dashes do not lead; dots and spaces do not end. */
function trimDots(text: string): string {
	let from = 0;
	let to = text.length;
	while (from < to && ' .-'.includes(text[from]!)) from++;
	while (to > from && ' .'.includes(text[to - 1]!)) to--;
	return text.slice(from, to);
}

const encoder = new TextEncoder();
function fitBytes(text: string, most: number): string {
	let bytes = 0;
	let end = 0;
	for (const character of text) {
		bytes += encoder.encode(character).length;
		if (bytes > most) break;
		end += character.length;
	}
	return text.slice(0, end).trimEnd();
}

/** Whether an entry is a stream, on the endpoint already, or goes on the card. */
type PlaceKind = 'stream' | 'disk' | 'card';
/** Where an entry leads, and how the playlist on the endpoint names it. */
export type Place = { readonly kind: PlaceKind; readonly inPlaylist: string };

/** Where an entry leads: to a stream, to what is on the endpoint already, or to a file that goes on the card. */
export const placeKind = (location: string): PlaceKind =>
	isStream(location) ? 'stream' : location.startsWith('/') ? 'disk' : 'card';

type Listed = { readonly location: string };
const known = new WeakMap<readonly Listed[], (location: string) => Place>();

/** Where each entry of a list leads on the endpoint, and how the playlist names it: no two files get names that FAT takes for one. */
export function placesIn(items: readonly Listed[]): (location: string) => Place {
	let place = known.get(items);
	if (!place) {
		const names = cardNames(items);
		place = (location) => {
			const kind = placeKind(location);
			return kind === 'card'
				? { kind, inPlaylist: `${MEDIA_DIR}/${names.get(location) ?? cardFileName(location)}` }
				: { kind, inPlaylist: location };
		};
		known.set(items, place);
	}
	return place;
}

/** Names of long lists are asked for again at every key; so many are remembered. */
const REMEMBERED = 50_000;
const remembered = new Map<string, string>();
function nameOf(location: string): string {
	let name = remembered.get(location);
	if (name === undefined) {
		if (remembered.size >= REMEMBERED) remembered.clear();
		remembered.set(location, (name = cardFileName(location)));
	}
	return name;
}

function cardNames(items: readonly Listed[]): Map<string, string> {
	const locations = [...new Set(items.map(({ location }) => location))].filter(
		(location) => placeKind(location) === 'card'
	);
	const plain = new Map(locations.map((location) => [location, nameOf(location)]));
	const times = new Map<string, number>();
	for (const location of locations) {
		const key = foldedName(plain.get(location)!);
		times.set(key, (times.get(key) ?? 0) + 1);
	}
	return new Map(
		locations.map((location) => {
			const name = plain.get(location)!;
			return [location, times.get(foldedName(name))! > 1 ? cardFileName(location, true) : name];
		})
	);
}
