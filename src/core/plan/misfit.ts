import type { z } from 'zod';
import { planSchema } from './plan';
import { endpointSchema, workshopSchema, WORKSHOP_LIMITS, type Endpoint, type Workshop } from './workshop';

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
		const value = after[key as keyof T];
		if (before && before[key as keyof T] === value) continue;
		const parsed = schema.safeParse(value);
		if (parsed.success) continue;
		const issue = parsed.error.issues[0]!;
		return `${[key, ...issue.path].join('.')}: ${issue.message}`;
	}
	return null;
}
