import type { Playlist } from '$core/formats/playlist';
import { itemsOfEntries } from '$core/links/sources/lists/listEdits';
import { LIST_LIMITS } from '$core/formats/playlist/limits';
import { wholeSeconds } from '$core/formats/playlist/playlist';
import { convertedName } from '$core/links/sources/lists/convert';
import type { Brought } from '$core/links/sources/stores/fromListing';
import { PLAYED } from '$core/links/sources/lists/played';
import { mediaSchema, type Media } from '$core/parts/media';
import type { Plan } from '$core/plan/plan';
import { fitLine } from '$core/basics/text';
import { lookThrough } from '$lib/media/lookThrough';
import type { Found } from '$lib/media/lookWorker';
import { writeMedia, writeStrip } from '$lib/store/storage';
import { store } from '$lib/store/workshop.svelte';

/**
 * The plan with a playlist's entries behind its own; the first list also gives its title and head. What is more than a list holds stays
 * out, and so does an entry that no list can have: `refused` names it.
 */
export function addPlaylist(
	plan: Plan,
	list: Playlist,
	newId: () => string
): { readonly plan: Plan; readonly refused: readonly string[] } {
	const { sources } = plan;
	const first = sources.items.length === 0;
	const { items, refused } = itemsOfEntries(list.entries.slice(0, roomIn(plan)), newId);
	const next = {
		...plan,
		sources: {
			...sources,
			listTitle: sources.listTitle || (list.title ?? ''),
			header: first ? [...list.header] : sources.header,
			items: [...sources.items, ...items]
		}
	};
	return { plan: next, refused };
}

/** So many entries more can be in the list. */
export const roomIn = (plan: Plan): number => LIST_LIMITS.entries - plan.sources.items.length;

/** Files up to this size are kept in the browser and written into the card set; larger ones the person copies. */
const KEPT_BYTES = 64_000_000;
/** So much of one intake is kept; what comes after it the person copies. */
const KEPT_TOGETHER_BYTES = 2_000_000_000;

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

/** How far it is, whether it was given up, and what is measured; what was taken until then stays. */
export interface Intake {
	/** How many files, and bytes of them, are done. */
	readonly onFile?: (done: number, bytes: number) => void;
	readonly signal?: AbortSignal;
	/** Loudness too, which decodes all of each file. */
	readonly loudness?: boolean;
}

/**
 * Takes files in: their facts, their bytes where they are small and go in the card set, and an entry for each that the list
 * does not have yet. A file whose bytes are missed here is known by its digest, whatever it is called now. Gives remarks.
 */
export async function takeMediaFiles(
	endpointId: string,
	files: readonly File[],
	{ onFile, signal, loudness = false }: Intake = {}
): Promise<string[]> {
	const taken = new Map<File, Taken>();
	const refused: string[] = [];
	const endpoint = store.workshop?.endpoints.find(({ id }) => id === endpointId);
	const inSet = endpoint?.plan.sources.carry !== 'self';
	const room = { bytes: KEPT_TOGETHER_BYTES, inSet };
	let done = 0;
	let bytes = 0;
	await lookThrough(
		files,
		{ loudness },
		async (file, found) => {
			try {
				if (found instanceof Error) throw found;
				taken.set(file, await takeOne(file, found, room));
			} catch (error) {
				// One file that cannot be read, or kept, keeps none of the others out.
				refused.push(`${file.name.slice(0, 200)}: not added. ${(error as Error).message}`);
			}
			onFile?.(++done, (bytes += file.size));
		},
		signal
	);
	if (done < files.length) refused.push(`Given up after ${done} of ${files.length} files.`);
	const inOrder = files.flatMap((file) => taken.get(file) ?? []);
	const fresh = new Map(inOrder.flatMap(({ media }) => (media ? [[media.location, media] as const] : [])));
	const why = store.change('add files', (workshop) => ({
		...workshop,
		media: [...workshop.media.filter(({ location }) => !fresh.has(location)), ...fresh.values()],
		endpoints: workshop.endpoints.map((one) =>
			one.id === endpointId ? { ...one, plan: withEntries(one.plan, inOrder) } : one
		)
	}));
	await store.lookForMedia();
	if (why) return [...refused, why];
	const added = inOrder.length ? [`${inOrder.length} file${inOrder.length === 1 ? '' : 's'} added.`] : [];
	return [...added, ...refused, ...gathered(inOrder.flatMap(({ remarks }) => remarks))];
}

/** More of them nobody reads. */
const SHOWN_REMARKS = 12;
const gathered = (remarks: readonly string[]): string[] =>
	remarks.length <= SHOWN_REMARKS
		? [...remarks]
		: [...remarks.slice(0, SHOWN_REMARKS), `And ${remarks.length - SHOWN_REMARKS} remarks more.`];

/** Its path below the folder that was added, or its name: two albums may each have a "01.flac". */
const pathOf = ({ name, webkitRelativePath }: File): string =>
	webkitRelativePath ? webkitRelativePath.slice(webkitRelativePath.indexOf('/') + 1) : name;

async function takeOne(
	file: File,
	{ sha256, facts, strip }: Found,
	room: { bytes: number; readonly inSet: boolean }
): Promise<Taken> {
	const missed = store.workshop?.media.find((media) => media.sha256 === sha256 && store.absent.has(media.location));
	const location = missed?.location ?? fitLine(pathOf(file), LIST_LIMITS.location);
	if (location === '') throw new Error('Nothing printable is in its name: rename it.');
	const kept = room.inSet && file.size <= KEPT_BYTES && file.size <= room.bytes;
	if (kept) room.bytes -= file.size;
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
			? [`${file.name}: how it is made cannot be read here. Type it in the list, or paste what ffprobe says of it.`]
			: []),
		...(parsed && !parsed.success
			? [
					`${file.name}: ${parsed.error.issues.map(({ path, message }) => `${path.join('.')}: ${message}`).join('; ')}. It is in the list, but what becomes of it is not known.`
				]
			: []),
		...(kept || !room.inSet ? [] : [`${file.name} is large: the run sheet tells you to copy it.`])
	];
	if (kept)
		try {
			await writeMedia(location, file);
		} catch (error) {
			throw new Error(
				`This browser has no room to keep it (${(error as Error).message}). Make room in its storage, then add it again.`,
				{ cause: error }
			);
		}
	// Without its small picture a file is as good.
	if (strip) await writeStrip(sha256, strip).catch(() => undefined);
	return { location, media: parsed?.success ? parsed.data : null, remarks };
}

/** A film made anew takes the place of the one that it was made from; what is new stands behind the others. */
function withEntries(plan: Plan, taken: readonly Pick<Taken, 'location' | 'media'>[]): Plan {
	const made = new Map(taken.map(({ location, media }) => [location, media]));
	/** Two of one name, in two folders: nobody knows which of them it was made from. */
	const from = new Map<string, Set<string>>();
	for (const { location } of plan.sources.items) {
		const name = convertedName(location);
		from.set(name, (from.get(name) ?? new Set()).add(location));
	}
	const items = plan.sources.items.map((item) => {
		const name = convertedName(item.location);
		return made.has(name) && from.get(name)!.size === 1 ? { ...item, location: name } : item;
	});
	const known = new Set(items.map((item) => item.location));
	const fresh = [...made]
		.filter(([location]) => !known.has(location))
		.slice(0, Math.max(0, roomIn(plan)))
		.map(([location, media]) => ({
			id: crypto.randomUUID(),
			location,
			title: fitLine(titleOf(location, media), LIST_LIMITS.title),
			durationSec: media?.durationMs ? wholeSeconds(media.durationMs / 1000) : null,
			extra: [],
			part: null
		}));
	return { ...plan, sources: { ...plan.sources, items: [...items, ...fresh] } };
}

/** As its tags say, else as the file is called. */
function titleOf(location: string, media: Media | null): string {
	const { title, artist } = media?.details?.tags ?? {};
	return title
		? [artist, title].filter(Boolean).join(' – ')
		: location.slice(location.lastIndexOf('/') + 1).replace(/\.[A-Za-z0-9]{1,5}$/, '');
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
			const items = taken.map((entry) => ({ id: crypto.randomUUID(), extra: [], part: null, ...entry }));
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
