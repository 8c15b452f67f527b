import type { Context } from '../link';
import type { Plan } from '../plan/plan';
import type { Part, PartOf } from './schema';

/** A part of the plan and how many of it. */
export interface Chosen<P = Part> {
	readonly part: P;
	readonly count: number;
}

/** Ids of everything the plan uses: the named places in their order, then the rest. */
export function chosenIds(plan: Plan): { id: string; count: number }[] {
	const { also, ...places } = plan.parts;
	return [
		...Object.values(places).flatMap((id) => (id === null ? [] : [{ id, count: 1 }])),
		...also.map(({ part, count }) => ({ id: part, count }))
	];
}

const known = new WeakMap<Plan['parts'], { context: Context; chosen: readonly Chosen[] }>();

/** The same as parts; ids that are in no drawer are left out. Nearly every link asks, so it is looked up once. */
export function chosenParts(plan: Plan, context: Context): readonly Chosen[] {
	const found = known.get(plan.parts);
	if (found?.context === context) return found.chosen;
	const chosen = chosenIds(plan).flatMap(({ id, count }) => {
		const part = context.find(id);
		return part ? [{ part, count }] : [];
	});
	known.set(plan.parts, { context, chosen });
	return chosen;
}

/** The add-on that goes on counting when power is gone; null when the plan has none. */
export const clockOf = (plan: Plan, context: Context): PartOf<'add-on'> | null =>
	chosenParts(plan, context).flatMap(({ part }) => (part.kind === 'add-on' && part.keepsTime ? [part] : []))[0] ?? null;

/** One more of a part that has no place of its own. */
export function addPart(plan: Plan, id: string, count = 1): Plan {
	const { also } = plan.parts;
	const known = also.some(({ part }) => part === id);
	return {
		...plan,
		parts: {
			...plan.parts,
			also: known
				? also.map((item) => (item.part === id ? { ...item, count: Math.min(20, item.count + count) } : item))
				: [...also, { part: id, count }]
		}
	};
}

/** Another part in place of one, wherever it stands; one `to` of null takes it out. */
export function replacePart(plan: Plan, from: string, to: string | null): Plan {
	const { also, ...places } = plan.parts;
	const inPlaces = Object.fromEntries(Object.entries(places).map(([key, id]) => [key, id === from ? to : id]));
	const rest = also.flatMap((item) => (item.part !== from ? [item] : to === null ? [] : [{ ...item, part: to }]));
	return { ...plan, parts: { ...plan.parts, ...inPlaces, also: rest } };
}
