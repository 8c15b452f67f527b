import { z } from 'zod';
import { planSchema } from './plan';
import { listRuleOf, type ListRule } from '../basics/text';
import { endpointSchema, workshopSchema, WORKSHOP_LIMITS, type Endpoint, type Workshop } from './workshop';
import { safely } from '../basics/safely';

const without = (shape: Record<string, z.ZodType>, key: string): Record<string, z.ZodType> =>
	Object.fromEntries(Object.entries(shape).filter(([known]) => known !== key));
const WORKSHOP_SHAPE = without(workshopSchema.shape, 'endpoints');
const ENDPOINT_SHAPE = without(endpointSchema.shape, 'plan');

/**
 * What the schema has against a changed workshop, as a sentence; null when nothing. Only what is another object than before is
 * looked at, so that a change costs what it changed.
 */
export function misfit(before: Workshop | null, after: Workshop): string | null {
	return misfitOf(WORKSHOP_SHAPE, before, after) ?? misfitOfEndpoints(before?.endpoints ?? [], after.endpoints);
}

function misfitOfEndpoints(before: readonly Endpoint[], after: readonly Endpoint[]): string | null {
	if (before === after) return null;
	if (after.length > WORKSHOP_LIMITS.endpoints)
		return `A workshop holds at most ${WORKSHOP_LIMITS.endpoints} endpoints.`;
	if (new Set(after.map(({ id }) => id)).size < after.length) return 'Two endpoints have the same id.';
	const known = new Map(before.map((endpoint) => [endpoint.id, endpoint]));
	for (const endpoint of after) {
		const was = known.get(endpoint.id) ?? null;
		if (was === endpoint) continue;
		const why = misfitOf(ENDPOINT_SHAPE, was, endpoint) ?? misfitOf(planSchema.shape, was?.plan ?? null, endpoint.plan);
		if (why) return `${endpoint.plan.brief?.name ?? endpoint.id}: ${why}`;
	}
	return null;
}

function misfitOf<T extends object>(shape: Record<string, z.ZodType>, before: T | null, after: T): string | null {
	for (const [key, schema] of Object.entries(shape)) {
		const why = misfitAt(schema, before?.[key as keyof T], after[key as keyof T], key);
		if (why) return why;
	}
	return null;
}

/** Goes down to what is another object than before, and has the schema judge that. */
function misfitAt(schema: z.ZodType, before: unknown, after: unknown, at: string): string | null {
	if (before !== undefined && before === after) return null;
	const rule = listRuleOf(schema);
	if (rule && Array.isArray(before) && Array.isArray(after)) return misfitInList(rule, before, after, at);
	if (schema instanceof z.ZodObject && !schema._zod.def.checks?.length && isPlain(before) && isPlain(after)) {
		for (const [key, inner] of Object.entries(schema.shape as Record<string, z.ZodType>)) {
			const why = misfitAt(inner, before[key], after[key], `${at}.${key}`);
			if (why) return why;
		}
		return null;
	}
	const parsed = safely(schema, after);
	if (parsed.success) return null;
	const issue = parsed.error.issues[0]!;
	return `${[at, ...issue.path].join('.')}: ${issue.message}`;
}

const isPlain = (value: unknown): value is Record<string, unknown> =>
	typeof value === 'object' && value !== null && !Array.isArray(value);

function misfitInList(
	{ entry, most, key, message }: ListRule,
	before: readonly unknown[],
	after: readonly unknown[],
	at: string
): string | null {
	if (after.length > most) return `${at}: At most ${most}.`;
	const judged = new Set(before);
	const keys = new Set<string>();
	for (const [n, item] of after.entries()) {
		const why = judged.has(item) ? null : misfitAt(entry, undefined, item, `${at}.${n}`);
		if (why) return why;
		const known = key(item as never);
		if (keys.has(known)) return `${at}.${n}: ${message}`;
		keys.add(known);
	}
	return null;
}
