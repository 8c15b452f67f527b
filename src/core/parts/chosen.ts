import type { Context, Surroundings } from '../link/context';
import type { Part, PartOf } from './schema';

/** A part of the plan and how many of it. */
export interface Chosen<P = Part> {
	readonly part: P;
	readonly count: number;
}
type Choice = Context['facts']['parts'];

/** Ids of everything that is used: the named places in their order, then the rest. */
export function chosenIds({ also, ...places }: Choice): { id: string; count: number }[] {
	return [
		...Object.values(places).flatMap((id) => (id === null ? [] : [{ id, count: 1 }])),
		...also.map(({ part, count }) => ({ id: part, count }))
	];
}

const known = new WeakMap<Choice, { drawer: Surroundings['drawer']; chosen: readonly Chosen[] }>();

/** The same as parts; ids that are in no drawer are left out. Nearly every link asks, so it is looked up once. */
export function chosenOf(choice: Choice, surroundings: Surroundings): readonly Chosen[] {
	const found = known.get(choice);
	if (found?.drawer === surroundings.drawer) return found.chosen;
	const chosen = chosenIds(choice).flatMap(({ id, count }) => {
		const part = surroundings.find(id);
		return part ? [{ part, count }] : [];
	});
	known.set(choice, { drawer: surroundings.drawer, chosen });
	return chosen;
}

/** What the plan uses, as the parts link publishes it. */
export const chosenParts = (context: Context): readonly Chosen[] => chosenOf(context.facts.parts, context);

/** The add-on that goes on counting when power is gone; null when the plan has none. */
export const clockOf = (context: Context): PartOf<'add-on'> | null =>
	chosenParts(context).flatMap(({ part }) => (part.kind === 'add-on' && part.keepsTime ? [part] : []))[0] ?? null;

/** The part of the plan that has a movable line of this name, and the GPIO line to which it is wired; null: there is none. */
export function wiredPart(
	context: Context,
	name: 'eye' | 'socket'
): { readonly part: Part; readonly line: number } | null {
	for (const { part } of chosenParts(context)) {
		const at = part.header?.movable.findIndex(({ what }) => what === name) ?? -1;
		if (at >= 0) return { part, line: context.facts.wiring[part.id]?.[at] ?? part.header!.movable[at]!.suggested };
	}
	return null;
}
