import { z } from 'zod';
import { readJson } from '../formats/json/json';
import { openWorkshop, type Opened } from './open';
import type { Workshop } from './workshop';
import { fault, ok, type Result } from '../basics/result';
import { unzipFiles, type ZipEntry } from '../formats/zip/zip';
import { safely } from '../basics/safely';

/** What an exported workshop holds beside its media, and which file is which. */
const WORKSHOP_FILE = 'workshop.yphos.json';
const LIST_FILE = 'media.json';
const listSchema = z.array(z.object({ location: z.string().max(2000), file: z.string().max(400) })).max(50_000);

/** The most bytes of media an archive is opened with. */
export const MOST_MEDIA_BYTES = 2_000_000_000;

/** A workshop and the bytes of its media, as files of an archive. */
export function archiveOf(workshop: Workshop, media: ReadonlyMap<string, Uint8Array | Blob>): ZipEntry[] {
	const encoder = new TextEncoder();
	const json = (path: string, value: unknown): ZipEntry => ({
		path,
		mode: '0644',
		bytes: encoder.encode(`${JSON.stringify(value, null, '\t')}\n`)
	});
	const list = [...media.keys()].map((location, n) => ({
		location,
		file: `media/${String(n + 1).padStart(4, '0')}${/\.[A-Za-z0-9]{1,5}$/.exec(location)?.[0] ?? ''}`
	}));
	return [
		json(WORKSHOP_FILE, workshop),
		json(LIST_FILE, list),
		...list.map(({ location, file }): ZipEntry => ({
			path: file,
			mode: '0644',
			bytes: media.get(location)!
		}))
	];
}

/** A workshop out of an archive, with the media that its list names. Faults: `archive` (no such archive, or too large), those of `openWorkshop`. */
export function openArchive(
	bytes: Uint8Array,
	timeZone: string
): Result<Opened & { readonly media: ReadonlyMap<string, Uint8Array> }> {
	const files = unzipFiles(bytes, MOST_MEDIA_BYTES);
	const text = (path: string): string | null => {
		const found = files?.get(path);
		return found ? new TextDecoder().decode(found) : null;
	};
	const saved = text(WORKSHOP_FILE);
	if (saved === null)
		return fault(
			'archive',
			`There is no whole ${WORKSHOP_FILE} in it. Choose an archive that Yphos exported with media.`
		);
	const opened = openWorkshop(saved, timeZone);
	if (!opened.ok) return opened;
	const json = readJson(text(LIST_FILE) ?? '[]');
	const list = json.ok ? safely(listSchema, json.value) : null;
	const known = new Set(opened.value.workshop.media.map(({ location }) => location));
	const media = new Map(
		(list?.success ? list.data : []).flatMap(({ location, file }) => {
			const found = files!.get(file);
			return found && known.has(location) ? [[location, found] as const] : [];
		})
	);
	const remarks = list?.success
		? opened.value.remarks
		: [...opened.value.remarks, `${LIST_FILE} could not be read: its media are left out.`];
	return ok({ ...opened.value, remarks, media });
}
