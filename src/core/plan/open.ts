import type { z } from 'zod';
import { readJson } from '../formats/json/json';
import { mediaSchema } from '../parts/media';
import { partSchema } from '../parts/schema';
import { fault, ok, type Result } from '../basics/result';
import { mend } from './mend';
import { migrate } from './migrate';
import { emptyPlan } from './plan';
import { isSaved } from './saved';
import { fitLine, freeId, isId } from '../basics/text';
import { venueSchema } from './venue';
import {
	emptyWorkshop,
	endpointSchema,
	shippingSchema,
	workshopSchema,
	WORKSHOP_VERSION,
	type Workshop
} from './workshop';
import { safely } from '../basics/safely';

/** What a damaged part was called by the person, as far as that can still be read; "" when it cannot. */
export function nameOf({ raw }: Pick<Damaged, 'raw'>): string {
	const saved = isSaved(raw) ? raw : {};
	const brief = isSaved(saved.plan) && isSaved(saved.plan.brief) ? saved.plan.brief : saved;
	return typeof brief.name === 'string' ? fitLine(brief.name, 60) : '';
}

/** A part of a saved workshop that could not be understood, kept as it was. */
export interface Damaged {
	/** "endpoints[1]", "venue", or "workshop" for the whole. */
	readonly where: string;
	readonly why: string;
	readonly raw: unknown;
}

/** What could be opened of a saved workshop, and what could not. */
export interface Opened {
	readonly workshop: Workshop;
	readonly damaged: readonly Damaged[];
	/** What had to change in what was taken: for the person to know. */
	readonly remarks: readonly string[];
}

/** What one list of a workshop holds. */
const LISTS = {
	parts: partSchema,
	shipping: shippingSchema,
	media: mediaSchema,
	endpoints: endpointSchema
} as const;
type ListName = keyof typeof LISTS;

/** Messages that list all that is allowed go on for ever. */
const briefly = (message: string): string => (message.length > 90 ? `${message.slice(0, 89)}…` : message);

const reason = (error: z.ZodError): string => {
	const first = error.issues[0]!;
	const place = first.path.join('.');
	return `${place ? `${place}: ` : ''}${briefly(first.message)}${error.issues.length > 1 ? ` (and ${error.issues.length - 1} more)` : ''}`;
};

/**
 * Opens saved or imported text as far as it can be: whole endpoints, parts and media that are sound are taken,
 * the others come back in `damaged`, untouched. Only text that is no workshop at all gives faults (see `migrate` and `readJson`).
 */
export function openWorkshop(text: string, timeZone: string): Result<Opened> {
	const saved = readJson(text);
	return saved.ok ? openSaved(saved.value, timeZone) : saved;
}

/** The same for a value that is parsed already. */
export function openSaved(saved: unknown, timeZone: string): Result<Opened> {
	const migrated = migrate(saved);
	if (!migrated.ok) return migrated;
	const remarks: string[] = [];
	const value = { ...migrated.value };
	for (const list of ['endpoints', 'parts'] as const) value[list] = toldApart(value[list], list, remarks);
	const whole = safely(workshopSchema, value);
	if (whole.success) return ok({ workshop: whole.data, damaged: [], remarks });

	const damaged: Damaged[] = [];
	const keep = <T>(schema: z.ZodType<T>, raw: unknown, where: string): T[] => {
		const parsed = safely(schema, raw);
		if (parsed.success) return [parsed.data];
		damaged.push({ where, why: reason(parsed.error), raw });
		return [];
	};
	const keepAll = <K extends ListName>(key: K): z.infer<(typeof LISTS)[K]>[] => {
		const list = value[key];
		if (!Array.isArray(list)) {
			if (list !== undefined) damaged.push({ where: key, why: 'This is not a list.', raw: list });
			return [];
		}
		const schema = LISTS[key] as unknown as z.ZodType<z.infer<(typeof LISTS)[K]>>;
		const sound = list.flatMap((item, index) => keep(schema, item, `${key}[${index}]`));
		// Each is sound alone; too many of them, or two of one name, are not.
		const fitting = mend(workshopSchema.shape[key] as z.ZodType, sound, []);
		for (const { where, why, raw } of fitting?.changed ?? []) damaged.push({ where: `${key}[${where}]`, why, raw });
		return (fitting?.value ?? []) as z.infer<(typeof LISTS)[K]>[];
	};
	const empty = emptyWorkshop(timeZone);
	return ok({
		workshop: {
			...empty,
			venue: keep(venueSchema, value.venue, 'venue')[0] ?? empty.venue,
			parts: keepAll('parts'),
			owned: keep(workshopSchema.shape.owned, value.owned, 'owned')[0] ?? {},
			shipping: keepAll('shipping'),
			media: keepAll('media'),
			endpoints: keepAll('endpoints')
		},
		damaged,
		remarks
	});
}

/** Two endpoints or parts with one id would be one to every page: the later one gets an id of its own. */
function toldApart(list: unknown, what: ListName, remarks: string[]): unknown {
	if (!Array.isArray(list)) return list;
	const taken = new Set(list.flatMap((item) => (isSaved(item) && typeof item.id === 'string' ? [item.id] : [])));
	const seen = new Set<string>();
	return list.map((item: unknown) => {
		if (!isSaved(item) || typeof item.id !== 'string') return item;
		if (isId(item.id) && !seen.has(item.id)) {
			seen.add(item.id);
			return item;
		}
		const id = freeId(item.id, taken);
		taken.add(id);
		seen.add(id);
		remarks.push(`An entry of ${what} is called ${id} now: its id was taken, or could not be one.`);
		return { ...item, id };
	});
}

/** A workshop with what was kept aside taken in again. */
interface Reopened {
	readonly workshop: Workshop;
	/** What had to be left out or set to its default. */
	readonly changed: readonly string[];
}

/**
 * Takes what was kept aside into a workshop again, as far as it can be mended: entries that do not fit go, settings that do not
 * fit take their default. An endpoint or part whose id is taken gets another, so that nothing is written over.
 * Faults: those of `migrate`; `not-mendable`.
 */
export function reopen(
	workshop: Workshop,
	{ where, raw }: Damaged,
	version: number = WORKSHOP_VERSION
): Result<Reopened> {
	if (where === 'workshop') {
		const opened = openSaved(raw, workshop.venue.timeZone);
		if (!opened.ok) return opened;
		return opened.value.damaged.reduce<Result<Reopened>>(
			(done, damaged) => {
				const next = done.ok ? reopen(done.value.workshop, damaged) : done;
				if (!done.ok) return done;
				if (!next.ok) return ok({ ...done.value, changed: [...done.value.changed, `${damaged.where} was left out.`] });
				return ok({ ...next.value, changed: [...done.value.changed, ...next.value.changed] });
			},
			ok({ workshop: opened.value.workshop, changed: opened.value.remarks })
		);
	}
	const list = /^(endpoints|parts|media|shipping)\[/.exec(where)?.[1] as ListName | undefined;
	const key = list ?? where;
	if (list === undefined && key !== 'venue' && key !== 'owned')
		return fault('not-mendable', `What stood at ${where} cannot be taken in again here. Download it instead.`);
	const migrated = migrate({ yphos: 'workshop', version, [key]: list ? [raw] : raw });
	if (!migrated.ok) return migrated;
	const brought = migrated.value[key];
	const item = list ? (brought as unknown[])[0] : brought;
	const schema = list ? LISTS[list] : workshopSchema.shape[key as 'venue' | 'owned'];
	const mended = mend(schema as z.ZodType, item, fallbackFor(key, item, workshop));
	if (!mended)
		return fault('not-mendable', `${where} is damaged beyond mending. Download it, and type again what you can read.`);
	const changed = mended.changed.map(({ where: place, why, now }) => `${place || where} was ${now} (${briefly(why)})`);
	if (!list) return ok({ workshop: { ...workshop, [key]: mended.value }, changed });
	return ok({ workshop: withEntry(workshop, list, mended.value as { id?: string; location?: string }), changed });
}

function fallbackFor(key: string, raw: unknown, workshop: Workshop): unknown {
	if (key === 'venue') return workshop.venue;
	if (key !== 'endpoints') return {};
	const name = nameOf({ raw }) || 'Mended endpoint';
	return { id: 'mended', plan: emptyPlan(name, 'mended'), probe: null, written: null, done: {} };
}

function withEntry(workshop: Workshop, list: ListName, item: { id?: string; location?: string }): Workshop {
	const entries = workshop[list] as readonly { id?: string; location?: string }[];
	const id = item.id === undefined ? {} : { id: freeId(item.id, new Set(entries.map((known) => known.id ?? ''))) };
	const others = item.location === undefined ? entries : entries.filter((known) => known.location !== item.location);
	return { ...workshop, [list]: [...others, { ...item, ...id }] };
}
