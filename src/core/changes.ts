import type { Plan } from './plan/plan';

/** A fix's own work: another plan made from one. It never alters what it is given. */
export type Change = (plan: Plan) => Plan;

/** What an owner lets others change in its settings, by name; added in the owner's `offers.ts`, as facts are. */
export interface Changes {
	/** Adds a link that a plan may do without, or takes it out. */
	use(link: string, on?: boolean): Change;
}

/** A change of one link's own settings, by a function of them or by the values that are replaced. */
export const changing =
	<S extends object>(id: string) =>
	(next: Partial<S> | ((settings: S) => S)): Change =>
	(plan) => {
		const settings = (plan as unknown as Record<string, S>)[id]!;
		return { ...plan, [id]: typeof next === 'function' ? next(settings) : { ...settings, ...next } };
	};
