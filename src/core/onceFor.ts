import type { Claim } from './claims';
import type { Context } from './link';
import type { Plan } from './plan/plan';

type Derived<R> = (plan: Plan, context: Context, claims: readonly Claim[]) => R;

/** Figures, findings, steps and drawings ask for the same thing; it is worked out once for the same plan, context and claims. */
export function onceFor<R>(compute: Derived<R>): Derived<R> {
	const known = new WeakMap<readonly Claim[], { plan: Plan; context: Context; result: R }>();
	return (plan, context, claims) => {
		const found = known.get(claims);
		if (found?.plan === plan && found.context === context) return found.result;
		const result = compute(plan, context, claims);
		known.set(claims, { plan, context, result });
		return result;
	};
}
