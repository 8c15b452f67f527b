import type { FileListing, ListedFile, Probed } from '../../../formats/fileListing';
import { shellWord } from '../../../formats/shell/quote';
import { SILENT_MEDIA, mediaSchema, type Media } from '../../../parts/media';
import { fitLine } from '../../../basics/text';
import { PLAYED } from '../lists/played';
import { isShare, mountPoint, type Store } from './stores';

const STILLS: ReadonlySet<string> = new Set(['png', 'mjpeg', 'jpeg', 'webp', 'bmp', 'gif']);
const LOSSLESS = /^(?:pcm_|flac$|alac$|wavpack$|ape$|tta$)/;
/** ffmpeg's names, as parts have them. */
const NAMES: Readonly<Record<string, string>> = { hevc: 'h265', mpeg2video: 'mpeg2', mjpeg: 'jpeg', wmav2: 'wma' };
const nameOf = (codec: string): string => NAMES[codec] ?? codec.replace(/^pcm_.*/, 'pcm');

/** What a listing brings to a list: a place on the store and a title for each, with facts where they are known. */
export interface Brought {
	readonly entries: readonly {
		readonly location: string;
		readonly title: string;
		readonly durationSec: number | null;
	}[];
	readonly media: readonly Media[];
	/** Files that nothing plays. */
	readonly leftOut: number;
}

/** Files of a listing as they lie on a store. What the server calls their folder does not matter to the endpoint. */
export function fromListing({ files }: FileListing, store: Store): Brought {
	const below = folderOf(files, store);
	const entries: { location: string; title: string; durationSec: number | null }[] = [];
	const media: Media[] = [];
	const seen = new Set<string>();
	let leftOut = 0;
	for (const file of [...files].sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0))) {
		const path = file.path.slice(below.length);
		const location = `${mountPoint(store)}/${path}`;
		// A line that cannot stand in a list stays out of it.
		if (!PLAYED.test(path) || seen.has(location) || fitLine(location, 2000) !== location) {
			leftOut++;
			continue;
		}
		seen.add(location);
		const facts = factsOf(location, file);
		const seconds = facts?.durationMs ? Math.max(1, Math.round(facts.durationMs / 1000)) : null;
		const stem = path.slice(path.lastIndexOf('/') + 1, path.lastIndexOf('.'));
		entries.push({ location, title: fitLine(file.probed?.title || stem, 300), durationSec: seconds });
		if (facts) media.push(facts);
	}
	return { entries, media, leftOut };
}

/** What all paths begin with and the endpoint does not see: the exported folder, or where all of them lie when they are absolute. */
function folderOf(files: readonly ListedFile[], store: Store): string {
	const [first] = files;
	if (!first || !files.every(({ path }) => path.startsWith('/') || /^[A-Za-z]:\//.test(path))) return '';
	const exported = isShare(store) ? `/${store.share.replace(/^\//, '')}/` : '';
	if (exported && files.every(({ path }) => path.startsWith(exported))) return exported;
	let common = first.path.slice(0, first.path.lastIndexOf('/') + 1);
	for (const { path } of files)
		while (common !== '' && !path.startsWith(common))
			common = common.slice(0, common.lastIndexOf('/', common.length - 2) + 1);
	return common;
}

function factsOf(location: string, { sizeBytes, probed }: ListedFile): Media | null {
	if (!probed) return null;
	const { sound, picture, durationMs } = probed;
	const made = {
		location,
		...(sound
			? {
					sampleRateHz: sound.sampleRateHz,
					bitDepth: sound.bits ?? (LOSSLESS.test(sound.codec) ? 16 : 24),
					channels: sound.channels
				}
			: SILENT_MEDIA),
		codec: nameOf(sound?.codec ?? picture?.codec ?? ''),
		lossless: LOSSLESS.test(sound?.codec ?? ''),
		...(picture ? { picture: pictureOf(picture) } : {}),
		...(picture?.chroma ? { details: detailsOf(picture) } : {}),
		bitRateBps: null,
		durationMs: picture && STILLS.has(picture.codec) ? null : durationMs,
		sizeBytes,
		sha256: '',
		kept: 'person',
		from: 'file'
	};
	// What a program of somebody else says goes through the same door as all else.
	const media = mediaSchema.safeParse(made);
	return media.success ? media.data : null;
}

const pictureOf = (picture: NonNullable<Probed['picture']>) => ({
	codec: nameOf(picture.codec),
	widthPx: picture.widthPx,
	heightPx: picture.heightPx,
	framesPerSec: STILLS.has(picture.codec) ? null : picture.framesPerSec,
	bitDepth: picture.bitDepth
});

const detailsOf = ({ chroma, fullRange, interlaced, hdr }: NonNullable<Probed['picture']>) => ({
	container: '',
	...(chroma ? { chroma } : {}),
	...(fullRange === null ? {} : { range: fullRange ? 'full' : 'limited' }),
	...(interlaced ? { interlaced } : {}),
	...(hdr ? { hdr } : {}),
	tags: {},
	chapters: []
});

/** What to run where the files lie, by system: with facts of each, or names and sizes alone. Source: ffprobe(1), find(1). */
export const LISTING_COMMANDS = {
	facts: {
		words: 'Linux or macOS, with ffmpeg: all that is known of each',
		command: 'find . -type f -exec ffprobe -v error -of json=c=1 -show_format -show_streams {} \\; > list.json'
	},
	sizes: { words: 'Linux: names and sizes', command: `find . -type f -printf ${shellWord('%s\\t%P\\n')} > list.txt` },
	mac: { words: 'macOS: names and sizes', command: 'ls -lR > list.txt' },
	windows: {
		words: 'Windows, in PowerShell: names and sizes',
		command:
			'Get-ChildItem -Recurse -File | ForEach-Object { "$($_.Length)`t$(Resolve-Path -Relative $_.FullName)" } | Out-File list.txt'
	}
} as const;
