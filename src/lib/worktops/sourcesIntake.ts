import { oneLine, type Playlist } from '$core/formats/playlist';
import { readFlac } from '$core/formats/wav/flac';
import { readWav } from '$core/formats/wav/wav';
import { mediaSchema, type Media } from '$core/parts/media';
import type { Plan } from '$core/plan/plan';
import { writeMediaBytes } from '$lib/store/storage';
import { store } from '$lib/store/workshop.svelte';

/** The plan with a playlist's entries behind its own; the first list also gives its title and head. */
export function addPlaylist(plan: Plan, list: Playlist, newId: () => string): Plan {
	const { sources } = plan;
	const first = sources.items.length === 0;
	return {
		...plan,
		sources: {
			...sources,
			listTitle: sources.listTitle || (list.title ?? ''),
			header: first ? [...list.header] : sources.header,
			items: [
				...sources.items,
				...list.entries.map((entry) => ({
					id: newId(),
					location: entry.location,
					title: entry.title ?? '',
					durationSec: entry.durationSec,
					extra: [...entry.extra]
				}))
			]
		}
	};
}

/** Files up to this size are kept in the browser and written into the card set; larger ones the person copies. */
const KEPT_BYTES = 64_000_000;
const HEADER_BYTES = 65_536;

/** Takes audio files in: their facts, their bytes where they are small, and an entry for each that the list does not have yet. Gives remarks. */
export async function takeAudioFiles(endpointId: string, files: readonly File[]): Promise<string[]> {
	const remarks: string[] = [];
	const media: Media[] = [];
	for (const file of files) {
		const location = oneLine(file.name);
		const facts = await factsOf(file);
		const kept = file.size <= KEPT_BYTES;
		if (facts)
			media.push(
				mediaSchema.parse({
					...facts,
					location,
					bitRateBps: null,
					sizeBytes: file.size,
					kept: kept ? 'browser' : 'person',
					from: 'file'
				})
			);
		else remarks.push(`${file.name}: how it is made cannot be read here (WAV and FLAC can); type it in the list.`);
		if (kept) await writeMediaBytes(location, new Uint8Array(await file.arrayBuffer()));
		else remarks.push(`${file.name} is large: the run sheet tells you to copy it.`);
	}
	store.change('add audio files', (workshop) => ({
		...workshop,
		media: [...workshop.media.filter((known) => !media.some((fresh) => fresh.location === known.location)), ...media],
		endpoints: workshop.endpoints.map((endpoint) =>
			endpoint.id === endpointId
				? {
						...endpoint,
						plan: withEntries(
							endpoint.plan,
							files.map((file) => oneLine(file.name))
						)
					}
				: endpoint
		)
	}));
	return remarks.length ? remarks : [`${files.length} file${files.length === 1 ? '' : 's'} added.`];
}

function withEntries(plan: Plan, locations: readonly string[]): Plan {
	const known = new Set(plan.sources.items.map((item) => item.location));
	const fresh = locations
		.filter((location) => !known.has(location))
		.map((location) => ({
			id: crypto.randomUUID(),
			location,
			title: location.replace(/\.[A-Za-z0-9]{1,5}$/, ''),
			durationSec: null,
			extra: []
		}));
	return { ...plan, sources: { ...plan.sources, items: [...plan.sources.items, ...fresh] } };
}

async function factsOf(
	file: File
): Promise<Pick<Media, 'codec' | 'lossless' | 'sampleRateHz' | 'bitDepth' | 'channels' | 'durationMs'> | null> {
	const head = new Uint8Array(await file.slice(0, HEADER_BYTES).arrayBuffer());
	const wav = readWav(head);
	if (wav.ok) {
		const { sampleRateHz, bitDepth, channels, dataOffset } = wav.value;
		const bytesPerSec = sampleRateHz * channels * (bitDepth / 8);
		return {
			codec: 'pcm',
			lossless: true,
			sampleRateHz,
			bitDepth,
			channels,
			durationMs: Math.max(1, Math.round(((file.size - dataOffset) / bytesPerSec) * 1000))
		};
	}
	const flac = readFlac(head);
	return flac.ok ? { codec: 'flac', lossless: true, ...flac.value } : null;
}
