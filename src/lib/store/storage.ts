import localforage from 'localforage';
import { z } from 'zod';
import { safely } from '$core/basics/safely';

/** What stands in the browser: the workshop with its history, by whom it was saved, and how often. */
export interface Envelope {
	readonly revision: number;
	readonly tab: string;
	readonly savedUtc: string;
	readonly workshop: unknown;
	readonly history?: unknown;
	/** By tab: so many of the steps that it has noted are in here. A note that is older than that on the disk says nothing new. */
	readonly noted?: Readonly<Record<string, number>>;
}
/** The frame alone is looked at here; what is inside is opened as a stranger's. */
const envelopeSchema = z.object({
	revision: z.number().int().min(0),
	tab: z.string(),
	savedUtc: z.string(),
	workshop: z.unknown(),
	history: z.unknown().optional(),
	noted: z.record(z.string(), z.number().int().min(0)).optional().catch(undefined)
});

/** Something that could not be taken, kept as it was found. */
export interface KeptAside {
	readonly id: string;
	readonly foundUtc: string;
	readonly where: string;
	readonly why: string;
	readonly raw: unknown;
	/** The version of the workshop that it stood in. */
	readonly version: number;
}
const keptSchema = z.object({
	id: z.string(),
	foundUtc: z.string(),
	where: z.string(),
	why: z.string(),
	raw: z.unknown(),
	version: z.number().int()
});
/** Earlier versions gave what was put aside no id. */
const oldKeptSchema = keptSchema.partial({ id: true, version: true });

/** No other place than this one: what is saved where nobody looks at the next start is lost. */
const driver = localforage.INDEXEDDB;
const store = localforage.createInstance({ name: 'yphos', storeName: 'workshop', driver });
/** Small pictures of media, by digest: they can be drawn anew from the files, and are in no workshop. */
const stripStore = localforage.createInstance({ name: 'yphos', storeName: 'strips', driver });
const mediaStore = localforage.createInstance({ name: 'yphos', storeName: 'media', driver });
/** A browser whose storage hangs says nothing of it. */
const ANSWERS_WITHIN_MS = 15_000;
async function answered<T>(work: Promise<T>): Promise<T> {
	let timer: ReturnType<typeof setTimeout> | undefined;
	const late = new Promise<never>((_, reject) => {
		timer = setTimeout(
			() =>
				reject(
					new Error('the browser\u2019s storage does not answer; close other tabs of Yphos, or restart the browser')
				),
			ANSWERS_WITHIN_MS
		);
	});
	try {
		return await Promise.race([work, late]);
	} finally {
		clearTimeout(timer);
	}
}
const alone = <T>(work: () => Promise<T>): Promise<T> => navigator.locks.request('yphos-save', work) as Promise<T>;

export type ReadEnvelope =
	| { readonly state: 'none' }
	| { readonly state: 'sound'; readonly envelope: Envelope }
	| { readonly state: 'torn'; readonly raw: unknown };

/** Not while somebody saves: the record that names the endpoints and theirs belong together. */
export const readEnvelope = (): Promise<ReadEnvelope> => alone(envelopeThere);
async function envelopeThere(): Promise<ReadEnvelope> {
	const raw = await answered(store.getItem<unknown>('workshop'));
	if (raw === null) return { state: 'none' };
	const whole = await withEndpoints(raw);
	const parsed = safely(envelopeSchema, whole);
	return parsed.success ? { state: 'sound', envelope: parsed.data as Envelope } : { state: 'torn', raw: whole };
}

/** Each endpoint is a record of its own, named where it stands in the workshop or in a step back: so only those that changed are written. */
const OWN_RECORD = 'endpoint ';
const isName = (value: unknown): value is { readonly stored: string } =>
	typeof (value as { stored?: unknown } | null)?.stored === 'string' &&
	(value as { stored: string }).stored.startsWith(OWN_RECORD);

type Fields = Readonly<Record<string, unknown>>;
/** The same with one field made anew, where that holds what is expected; else as it is. */
function within<T>(
	value: unknown,
	key: string,
	isExpected: (there: unknown) => there is T,
	make: (there: T) => unknown
): unknown {
	const there = (value as Fields | null | undefined)?.[key];
	return isExpected(there) ? { ...(value as Fields), [key]: make(there) } : value;
}
const isList = (value: unknown): value is readonly unknown[] => Array.isArray(value);
const isFields = (value: unknown): value is Fields =>
	typeof value === 'object' && value !== null && !Array.isArray(value);
/** Which entries of the list of endpoints a step brought or took away. */
const isOfEndpoints = (change: unknown): boolean => {
	const path = (change as { path?: unknown } | null)?.path;
	return isList(path) && path.length === 1 && path[0] === 'endpoints';
};

/** An envelope, however torn, with each endpoint that it holds made anew: in its workshop, and in steps that brought or took one away. */
function mapEndpoints(envelope: unknown, make: (endpoint: unknown) => unknown): unknown {
	const ofStep = (step: unknown): unknown =>
		within(step, 'changes', isList, (changes) =>
			changes.map((change) =>
				isOfEndpoints(change)
					? within(change, 'moved', isList, (moved) => moved.map((one) => within(one, 'value', isFields, make)))
					: change
			)
		);
	const steps = (list: readonly unknown[]): unknown => list.map(ofStep);
	const workshop = within(envelope, 'workshop', isFields, (there) =>
		within(there, 'endpoints', isList, (list) => list.map(make))
	);
	return within(workshop, 'history', isFields, (history) =>
		within(within(history, 'undo', isList, steps), 'redo', isList, steps)
	);
}
/** Names of the records that a workshop's record needs. */
function namesIn(raw: unknown): Set<string> {
	const names = new Set<string>();
	mapEndpoints(raw, (one) => {
		if (isName(one)) names.add(one.stored);
		return one;
	});
	return names;
}

/** The workshop's record with its endpoints in their places; one that is not there stays a name, which no schema takes for an endpoint. */
async function withEndpoints(raw: unknown): Promise<unknown> {
	const found = new Map<string, unknown>();
	await Promise.all(
		[...namesIn(raw)].map(async (name) => {
			const endpoint = await answered(store.getItem<unknown>(name));
			if (!isFields(endpoint)) return;
			found.set(name, endpoint);
			recordOf.set(endpoint, name);
		})
	);
	return found.size === 0 ? raw : mapEndpoints(raw, (one) => (isName(one) ? (found.get(one.stored) ?? one) : one));
}

/** More records than this are written with a pause before each, in which the page can answer. */
const MANY = 8;
const pause = (): Promise<unknown> =>
	new Promise((done) =>
		'requestIdleCallback' in globalThis && !document.hidden ? requestIdleCallback(done, { timeout: 100 }) : done(null)
	);

/** Where each endpoint stands, as long as it is this very object. */
const recordOf = new WeakMap<object, string>();

/**
 * Writes endpoints that changed under names of their own, then the record that names them, then takes away what nothing names any more:
 * cut off anywhere, the old workshop stands or the new one.
 */
async function writeParted(envelope: Envelope, there: unknown): Promise<void> {
	const present = namesIn(there);
	const fresh: { readonly name: string; readonly endpoint: unknown }[] = [];
	const frame = mapEndpoints(envelope, (one) => {
		if (!isFields(one)) return one;
		let stored = recordOf.get(one);
		// Another tab may have taken away what only this one remembers.
		if (stored === undefined || !present.has(stored)) {
			stored = `${OWN_RECORD}${String(one.id)} ${crypto.randomUUID()}`;
			fresh.push({ name: stored, endpoint: one });
			recordOf.set(one, stored);
			present.add(stored);
		}
		return { stored };
	});
	for (const { name, endpoint } of fresh) {
		if (fresh.length > MANY) await pause();
		await answered(store.setItem(name, endpoint));
	}
	await answered(store.setItem('workshop', frame));
	const needed = namesIn(frame);
	try {
		const left = (await answered(store.keys())).filter((key) => key.startsWith(OWN_RECORD) && !needed.has(key));
		await answered(Promise.all(left.map((key) => store.removeItem(key))));
	} catch {
		// It is saved all the same; what nothing names any more goes with the next save.
	}
}

/** The version that a stored workshop says of itself, however torn what stands around it; 0 when it says none. */
export function versionIn(there: Exclude<ReadEnvelope, { state: 'none' }>): number {
	const frame = (there.state === 'sound' ? there.envelope : there.raw) as { workshop?: { version?: unknown } } | null;
	const version = frame?.workshop?.version;
	return typeof version === 'number' ? version : 0;
}

/** What stood in the place of the list that was kept aside, when it was something else, is kept as one thing more. */
export async function readKeptAside(): Promise<KeptAside[]> {
	const raw = await answered(store.getItem<unknown>('kept-aside'));
	if (raw === null) return [];
	const strange = (item: unknown): KeptAside => ({
		id: crypto.randomUUID(),
		foundUtc: new Date().toISOString(),
		where: 'kept-aside',
		why: 'The list of what was kept aside was itself damaged here.',
		raw: item,
		version: 0
	});
	if (!Array.isArray(raw)) return [strange(raw)];
	return raw.map((item: unknown) => {
		const parsed = safely(oldKeptSchema, item);
		return parsed.success
			? { id: crypto.randomUUID(), version: 0, ...parsed.data, raw: parsed.data.raw }
			: strange(item);
	});
}

/** Adds to what is kept aside, or takes away from it, whatever other tabs do meanwhile. Gives the list as it is then. */
export const changeKeptAside = (change: (items: readonly KeptAside[]) => KeptAside[]): Promise<KeptAside[]> =>
	alone(async () => {
		const items = change(await readKeptAside());
		await store.setItem('kept-aside', items);
		return items;
	});

/** The record as it was before it was brought to a newer version; the first copy of each version stays. */
export const keepCopy = (version: number, record: unknown): Promise<void> =>
	alone(async () => {
		const key = `before-version-${version}`;
		if ((await store.getItem(key)) !== null) return;
		// Up to version 5 the steps back were a record of their own.
		await store.setItem(key, { record, history: await store.getItem('history') });
		await store.removeItem('history');
	});

/** Copies that were kept before a change of version, by the version that they were brought to. */
export async function readCopies(): Promise<{ readonly version: number; readonly record: unknown }[]> {
	const keys = (await store.keys()).flatMap((key) => /^before-version-(\d+)$/.exec(key)?.[1] ?? []);
	return Promise.all(
		keys.map(async (version) => ({
			version: Number(version),
			record: await store.getItem<unknown>(`before-version-${version}`)
		}))
	);
}

/** As a blob it stays where it lies until it is read. An earlier Yphos kept plain bytes. */
export async function readMedia(location: string): Promise<Blob | null> {
	const kept = await mediaStore.getItem<Blob | Uint8Array<ArrayBuffer>>(location);
	return kept === null || kept instanceof Blob ? kept : new Blob([kept]);
}
/** Which media this browser has. */
export const readMediaNames = (): Promise<string[]> => answered(mediaStore.keys());
export const writeMedia = (location: string, media: Blob): Promise<unknown> => mediaStore.setItem(location, media);

export const writeStrip = (sha256: string, strip: unknown): Promise<unknown> => stripStore.setItem(sha256, strip);
export const readStrip = (sha256: string): Promise<unknown> => stripStore.getItem(sha256);

/** By the logo's address; the alphabet of digests keeps strips and logos apart. */
export const writeLogo = (url: string, dataUrl: string): Promise<unknown> => stripStore.setItem(`logo ${url}`, dataUrl);
export const readLogo = (url: string): Promise<string | null> => stripStore.getItem<string>(`logo ${url}`);

export type Written = 'saved' | 'newer' | { readonly other: ReadEnvelope };

/**
 * Saves unless another tab has saved since, or a newer Yphos has: then nothing is written.
 * One tab at a time looks and writes.
 * @param expected the revision that this tab knows; null when it knows of no sound record
 */
export function writeEnvelope(envelope: Envelope, expected: number | null, knownVersion: number): Promise<Written> {
	return alone(async (): Promise<Written> => {
		const frame = await answered(store.getItem<unknown>('workshop'));
		const framed = safely(envelopeSchema, frame);
		const version = (frame as { workshop?: { version?: unknown } } | null)?.workshop?.version;
		if (typeof version === 'number' && version > knownVersion) return 'newer';
		if (framed.success && framed.data.revision !== expected) {
			const other = await envelopeThere();
			if (other.state !== 'none') return { other };
		}
		await writeParted(envelope, frame);
		return 'saved';
	});
}
