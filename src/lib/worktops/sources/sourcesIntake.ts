import type { Playlist } from '$core/formats/playlist';
import { LIST_LIMITS } from '$core/formats/playlist/limits';
import { readFlac } from '$core/formats/wav/flac';
import { readWav } from '$core/formats/wav/wav';
import { convertedName } from '$core/links/sources/convert';
import { PLAYED, type Brought } from '$core/links/sources/fromListing';
import { pictureFacts } from '$core/links/sources/pictureFacts';
import { mediaSchema, type Media } from '$core/parts/media';
import type { Plan } from '$core/plan/plan';
import { fitLine } from '$core/plan/text';
import { sha256Of } from '$lib/pack/digest';
import { writeMediaBytes } from '$lib/store/storage';
import { store } from '$lib/store/workshop.svelte';

/** The plan with a playlist's entries behind its own; the first list also gives its title and head. What is more than a list holds stays out. */
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
				...list.entries.slice(0, roomIn(plan)).map((entry) => ({
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

/** So many entries more can be in the list. */
export const roomIn = (plan: Plan): number => LIST_LIMITS.entries - plan.sources.items.length;

/** Files up to this size are kept in the browser and written into the card set; larger ones the person copies. */
const KEPT_BYTES = 64_000_000;
const HEADER_BYTES = 65_536;

interface Taken {
	readonly location: string;
	readonly media: Media | null;
	readonly remarks: readonly string[];
}

/** Of a folder, what can be heard or seen; in the order of its names. */
export const mediaIn = (files: readonly File[]): File[] =>
	files
		.filter(({ name, type }) => PLAYED.test(name) || /^(?:audio|video|image)\//.test(type))
		.sort((a, b) => (a.webkitRelativePath || a.name).localeCompare(b.webkitRelativePath || b.name));

/** How far it is, and whether it was given up; what was taken until then stays. */
export interface Intake {
	readonly onFile?: (done: number) => void;
	readonly signal?: AbortSignal;
}

/**
 * Takes files in: their facts, their bytes where they are small, and an entry for each that the list does not have yet.
 * A file whose bytes are missed here is known by its digest, whatever it is called now. Gives remarks.
 */
export async function takeMediaFiles(
	endpointId: string,
	files: readonly File[],
	intake: Intake = {}
): Promise<string[]> {
	const taken: Taken[] = [];
	const refused: string[] = [];
	for (const [n, file] of files.entries()) {
		if (intake.signal?.aborted) {
			refused.push(`Given up after ${n} of ${files.length} files.`);
			break;
		}
		intake.onFile?.(n);
		try {
			const one = await takeOne(file, intake.signal);
			if (one) taken.push(one);
		} catch (error) {
			// One file that cannot be read, or kept, keeps none of the others out.
			refused.push(`${file.name.slice(0, 200)}: not added. ${(error as Error).message}`);
		}
	}
	const media = taken.flatMap((one) => one.media ?? []);
	const fresh = new Map(media.map((one) => [one.location, one]));
	const why = store.change('add files', (workshop) => ({
		...workshop,
		media: [...workshop.media.filter(({ location }) => !fresh.has(location)), ...fresh.values()],
		endpoints: workshop.endpoints.map((endpoint) =>
			endpoint.id === endpointId
				? {
						...endpoint,
						plan: withEntries(
							endpoint.plan,
							taken.map(({ location }) => location)
						)
					}
				: endpoint
		)
	}));
	await store.lookForMedia();
	if (why) return [...refused, why];
	const added = taken.length ? [`${taken.length} file${taken.length === 1 ? '' : 's'} added.`] : [];
	return [...added, ...refused, ...taken.flatMap(({ remarks }) => remarks)];
}

async function takeOne(file: File, signal?: AbortSignal): Promise<Taken | null> {
	const sha256 = await sha256Of(file, signal);
	if (sha256 === null) return null;
	const missed = store.workshop?.media.find((media) => media.sha256 === sha256 && store.absent.has(media.location));
	const location = missed?.location ?? fitLine(file.name, LIST_LIMITS.location);
	if (location === '') throw new Error('Nothing printable is in its name: rename it.');
	const kept = file.size <= KEPT_BYTES;
	const facts = await factsOf(file);
	const parsed = facts
		? mediaSchema.safeParse({
				...facts,
				location,
				bitRateBps: null,
				sizeBytes: file.size,
				sha256,
				kept: kept ? 'browser' : 'person',
				from: 'file'
			})
		: null;
	const remarks = [
		...(!parsed
			? [
					`${file.name}: how it is made cannot be read here (WAV, FLAC, MP4, MOV, PNG and JPEG can); type it in the list.`
				]
			: []),
		...(parsed && !parsed.success
			? [
					`${file.name}: ${parsed.error.issues.map(({ path, message }) => `${path.join('.')}: ${message}`).join('; ')}. It is in the list, but what becomes of it is not known.`
				]
			: []),
		...(kept ? [] : [`${file.name} is large: the run sheet tells you to copy it.`])
	];
	if (kept)
		try {
			await writeMediaBytes(location, new Uint8Array(await file.arrayBuffer()));
		} catch (error) {
			throw new Error(
				`This browser has no room to keep it (${(error as Error).message}). Make room in its storage, then add it again.`,
				{ cause: error }
			);
		}
	return { location, media: parsed?.success ? parsed.data : null, remarks };
}

/** A film made anew takes the place of the one that it was made from; what is new stands behind the others. */
function withEntries(plan: Plan, locations: readonly string[]): Plan {
	const made = new Set(locations);
	const items = plan.sources.items.map((item) => {
		const name = convertedName(item.location);
		return made.has(name) ? { ...item, location: name } : item;
	});
	const known = new Set(items.map((item) => item.location));
	const fresh = [...made]
		.filter((location) => !known.has(location))
		.slice(0, Math.max(0, roomIn(plan)))
		.map((location) => ({
			id: crypto.randomUUID(),
			location,
			title: fitLine(location.replace(/\.[A-Za-z0-9]{1,5}$/, ''), LIST_LIMITS.title),
			durationSec: null,
			extra: []
		}));
	return { ...plan, sources: { ...plan.sources, items: [...items, ...fresh] } };
}

async function factsOf(
	file: File
): Promise<Pick<
	Media,
	'codec' | 'lossless' | 'sampleRateHz' | 'bitDepth' | 'channels' | 'durationMs' | 'picture' | 'silent'
> | null> {
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
	if (flac.ok) return { codec: 'flac', lossless: true, ...flac.value };
	return pictureFacts((await filmHead(file)) ?? head);
}

const BOX_HEAD_BYTES = 16;
/** What describes a film of many hours is not larger. */
const MOST_MOOV_BYTES = 64_000_000;
/** No film has more boxes side by side before it is described. */
const MOST_BOXES = 200;

/** Of a film, the parts that describe it, wherever they stand; null: it is none. Source: ISO/IEC 14496-12, clause 4.2. */
async function filmHead(file: File): Promise<Uint8Array | null> {
	let at = 0;
	let ftyp: Uint8Array | null = null;
	for (let n = 0; n < MOST_BOXES && at + 8 <= file.size; n++) {
		const head = new DataView(await file.slice(at, at + BOX_HEAD_BYTES).arrayBuffer());
		const short = head.getUint32(0);
		const type = String.fromCharCode(...[4, 5, 6, 7].map((k) => head.getUint8(k)));
		const size =
			short === 1 && head.byteLength >= 16
				? head.getUint32(8) * 2 ** 32 + head.getUint32(12)
				: short === 0
					? file.size - at
					: short;
		if (size < 8 || (n === 0 && type !== 'ftyp')) return null;
		if (type === 'ftyp' && size <= HEADER_BYTES) ftyp = new Uint8Array(await file.slice(at, at + size).arrayBuffer());
		if (type === 'moov' && ftyp && size <= MOST_MOOV_BYTES) {
			const moov = new Uint8Array(await file.slice(at, at + size).arrayBuffer());
			const joined = new Uint8Array(ftyp.length + moov.length);
			joined.set(ftyp);
			joined.set(moov, ftyp.length);
			return joined;
		}
		at += size;
	}
	return null;
}

/** Takes in what a listing of a share or stick brought: entries that the list does not have yet, and facts. Gives remarks. */
export function takeListing(endpointId: string, { entries, media, leftOut }: Brought): string[] {
	const endpoint = store.workshop?.endpoints.find(({ id }) => id === endpointId);
	if (!endpoint) return [];
	const there = new Set(endpoint.plan.sources.items.map(({ location }) => location));
	const fresh = entries.filter(({ location }) => !there.has(location));
	const taken = fresh.slice(0, Math.max(0, roomIn(endpoint.plan)));
	const facts = new Map(media.map((one) => [one.location, one]));
	const why = store.change('add files of a listing', (workshop) => ({
		...workshop,
		media: [...workshop.media.filter(({ location }) => !facts.has(location)), ...facts.values()],
		endpoints: workshop.endpoints.map((one) => {
			if (one.id !== endpointId) return one;
			const { sources } = one.plan;
			const items = taken.map((entry) => ({ id: crypto.randomUUID(), extra: [], ...entry }));
			return { ...one, plan: { ...one.plan, sources: { ...sources, items: [...sources.items, ...items] } } };
		})
	}));
	if (why) return [why];
	const say = (count: number, words: string): string[] =>
		count > 0 ? [`${count} file${count === 1 ? '' : 's'} ${words}`] : [];
	return [
		...(taken.length ? say(taken.length, 'added.') : ['Nothing new: all of it is in the list.']),
		...say(entries.length - fresh.length, 'in the list already.'),
		...say(fresh.length - taken.length, 'left out: the list is full.'),
		...say(leftOut, 'left out: nothing plays them.')
	];
}
