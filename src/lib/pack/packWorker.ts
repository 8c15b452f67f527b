/** Makes archives away from the page: a card set, a workshop with its media. */
import '$lib/plainZod';
import { expose } from 'comlink';
import { chain } from '$core/chain';
import { writers } from '$core/writers';
import { contextFor } from '$core/engines/context';
import { write } from '$core/engines/write';
import { cardBytes } from '$core/files/cardBytes';
import type { Secrets } from '$core/link';
import { ok, type Result } from '$core/basics/result';
import type { Opened } from '$core/plan/open';
import type { Workshop } from '$core/plan/workshop';
import { rememberWritten } from '$lib/endpoint/written';
import { loadMediaBytes } from '$lib/store/media';
import { writeMediaBytes } from '$lib/store/storage';
import { archiveOf, openArchive } from '$core/plan/archive';
import { zipFiles } from '$core/formats/zip/zip';

type OnPart = (part: number) => void;
const REPORT_EVERY_MS = 100;
function seldom(onPart: OnPart): OnPart {
	let saidMs = -Infinity;
	return (part) => {
		if (performance.now() - saidMs < REPORT_EVERY_MS) return;
		saidMs = performance.now();
		onPart(part);
	};
}
const asBlob = (pieces: Uint8Array[]): Blob => new Blob(pieces as BlobPart[], { type: 'application/zip' });

const worker = {
	async cardSet(workshop: Workshop, endpointId: string, secrets: Secrets, onPart: OnPart) {
		const { plan } = workshop.endpoints.find(({ id }) => id === endpointId)!;
		const mediaBytes = await loadMediaBytes(plan.sources.items.map(({ location }) => location));
		const files = write(writers, plan, contextFor(chain, workshop, endpointId), { ...secrets, mediaBytes });
		const entries = files.map((file) => ({
			path: file.path,
			mode: file.mode,
			bytes: cardBytes(file),
			packed: 'bytes' in file
		}));
		return {
			zip: asBlob(zipFiles(entries, seldom(onPart))),
			written: rememberWritten(files, new Date().toISOString())
		};
	},
	async workshop(workshop: Workshop, onPart: OnPart) {
		const kept = workshop.media.filter((media) => media.kept === 'browser').map(({ location }) => location);
		const media = await loadMediaBytes(kept);
		return {
			zip: asBlob(zipFiles(archiveOf(workshop, media), seldom(onPart))),
			count: media.size,
			missing: kept.filter((location) => !media.has(location))
		};
	},
	/** Takes the media out of an archive into this browser, and gives the workshop. */
	async open(file: Blob, zone: string, onPart: OnPart): Promise<Result<Opened>> {
		const opened = openArchive(new Uint8Array(await file.arrayBuffer()), zone);
		if (!opened.ok) return opened;
		const { media, ...rest } = opened.value;
		let done = 0;
		for (const [location, bytes] of media) {
			await writeMediaBytes(location, bytes);
			onPart(++done / media.size);
		}
		return ok(rest);
	}
};
export type PackWorker = typeof worker;
expose(worker);
