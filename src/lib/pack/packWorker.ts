/** Makes archives away from the page: a card set, a workshop with its media. */
import '$lib/plainZod';
import { expose } from 'comlink';
import { chain } from '$core/chain';
import { writers } from '$core/writers';
import { contextFor } from '$core/engines/context';
import { write } from '$core/engines/write';
import { cardBytes } from '$core/files/cardBytes';
import type { Secrets } from '$core/secrets';
import { packContent } from '$core/links/delivery/pack';
import { signedPack } from '$core/links/delivery/sign';
import { ok, sentence, type Result } from '$core/basics/result';
import type { Plan } from '$core/plan/plan';
import type { Opened } from '$core/plan/open';
import type { Workshop } from '$core/plan/workshop';
import { rememberWritten } from '$lib/endpoint/written';
import { loadMedia } from '$lib/store/media';
import { writeMedia } from '$lib/store/storage';
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
/** The browser keeps what comes, on disk where it is much. */
const asBlob = (zip: ReadableStream<Uint8Array>): Promise<Blob> =>
	new Response(zip as BodyInit, { headers: { 'content-type': 'application/zip' } }).blob();

/** The bytes of what a plan lists, as far as this browser keeps them. */
async function mediaOf(workshop: Workshop, plan: Plan): Promise<Map<string, Uint8Array | Blob>> {
	const media = await loadMedia(plan.sources.items.map(({ location }) => location));
	const digest = new Map(workshop.media.map(({ location, sha256 }) => [location, sha256]));
	// Without a digest the set could not say what it holds: such a one is read.
	for (const [location, one] of media)
		if (one instanceof Blob && !digest.get(location)) media.set(location, new Uint8Array(await one.arrayBuffer()));
	return media;
}

const worker = {
	async cardSet(workshop: Workshop, endpointId: string, secrets: Secrets, onPart: OnPart) {
		const { plan } = workshop.endpoints.find(({ id }) => id === endpointId)!;
		const mediaBytes = await mediaOf(workshop, plan);
		const files = write(writers, plan, contextFor(chain, workshop, endpointId), { ...secrets, mediaBytes });
		const entries = files.map((file) => ({
			path: file.path,
			mode: file.mode,
			bytes: 'blob' in file ? file.blob : cardBytes(file)
		}));
		return {
			zip: await asBlob(zipFiles(entries, seldom(onPart))),
			written: rememberWritten(files, new Date().toISOString())
		};
	},
	/** What an endpoint fetches, signed where it asks for that. */
	async content(
		workshop: Workshop,
		endpointId: string,
		privatePem: string,
		drawn: Pick<Secrets, 'pagePictures'>,
		onPart: OnPart
	): Promise<{ readonly zip: Blob | null; readonly problem: string }> {
		const { plan } = workshop.endpoints.find(({ id }) => id === endpointId)!;
		const files = write(writers, plan, contextFor(chain, workshop, endpointId), {
			...drawn,
			mediaBytes: await mediaOf(workshop, plan)
		});
		const packed = packContent(files, {
			hostName: plan.network.hostName,
			number: Math.floor(Date.now() / 1000),
			era: plan.delivery.era
		});
		const entries = await signedPack(crypto.subtle, packed, plan.delivery.publicKey, privatePem);
		return entries.ok
			? { zip: await asBlob(zipFiles(entries.value, seldom(onPart))), problem: '' }
			: { zip: null, problem: sentence(entries.faults) };
	},
	async workshop(workshop: Workshop, onPart: OnPart) {
		const kept = workshop.media.filter((media) => media.kept === 'browser').map(({ location }) => location);
		const media = await loadMedia(kept);
		return {
			zip: await asBlob(zipFiles(archiveOf(workshop, media), seldom(onPart))),
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
			await writeMedia(location, new Blob([bytes as BlobPart]));
			onPart(++done / media.size);
		}
		return ok(rest);
	}
};
export type PackWorker = typeof worker;
expose(worker);
