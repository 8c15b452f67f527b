import type { z } from 'zod';
import { mediaSchema } from '../parts/media';
import { partSchema } from '../parts/schema';
import { fault, ok, type Result } from '../result';
import { migrate } from './migrate';
import { venueSchema } from './venue';
import { emptyWorkshop, endpointSchema, shippingSchema, workshopSchema, type Workshop } from './workshop';

/** A part of a saved workshop that could not be understood, kept as it was. */
export interface Damaged {
	readonly where: string;
	readonly why: string;
	readonly raw: unknown;
}

export interface Opened {
	readonly workshop: Workshop;
	readonly damaged: readonly Damaged[];
}

const reason = (error: z.ZodError): string => {
	const first = error.issues[0]!;
	const place = first.path.join('.');
	return `${place ? `${place}: ` : ''}${first.message}${error.issues.length > 1 ? ` (and ${error.issues.length - 1} more)` : ''}`;
};

/**
 * Opens saved or imported text as far as it can be: whole endpoints, parts and media that are sound are taken,
 * the others come back in `damaged`, untouched. Only text that is no workshop at all gives faults (see `migrate`, and `not-json`).
 */
export function openWorkshop(text: string, timeZone: string): Result<Opened> {
	let saved: unknown;
	try {
		saved = JSON.parse(text);
	} catch (error) {
		return fault(
			'not-json',
			`The file is not readable as JSON, perhaps cut off: ${(error as Error).message}. Keep it; fetch another copy.`
		);
	}
	return openSaved(saved, timeZone);
}

/** The same for a value that is parsed already. */
export function openSaved(saved: unknown, timeZone: string): Result<Opened> {
	const migrated = migrate(saved);
	if (!migrated.ok) return migrated;
	const whole = workshopSchema.safeParse(migrated.value);
	if (whole.success) return ok({ workshop: whole.data, damaged: [] });

	const damaged: Damaged[] = [];
	const keep = <T>(schema: z.ZodType<T>, raw: unknown, where: string): T[] => {
		const parsed = schema.safeParse(raw);
		if (parsed.success) return [parsed.data];
		damaged.push({ where, why: reason(parsed.error), raw });
		return [];
	};
	const keepAll = <T>(schema: z.ZodType<T>, key: string): T[] => {
		const list = migrated.value[key];
		if (!Array.isArray(list)) {
			if (list !== undefined) damaged.push({ where: key, why: 'This is not a list.', raw: list });
			return [];
		}
		return list.flatMap((item, index) => keep(schema, item, `${key}[${index}]`));
	};
	const empty = emptyWorkshop(timeZone);
	return ok({
		workshop: {
			...empty,
			venue: keep(venueSchema, migrated.value.venue, 'venue')[0] ?? empty.venue,
			parts: keepAll(partSchema, 'parts'),
			owned: keep(workshopSchema.shape.owned, migrated.value.owned, 'owned')[0] ?? {},
			shipping: keepAll(shippingSchema, 'shipping'),
			media: keepAll(mediaSchema, 'media'),
			endpoints: keepAll(endpointSchema, 'endpoints')
		},
		damaged
	});
}
