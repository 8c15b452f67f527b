import type { Claim } from '../claims';
import type { Context } from '../link/context';

type Derived<S, R> = (settings: S, context: Context, claims: readonly Claim[]) => R;

/** Figures, findings, steps and drawings ask for the same thing; it is worked out once for the same settings, context and claims. */
export function onceFor<S, R>(compute: Derived<S, R>): Derived<S, R> {
	const known = new WeakMap<readonly Claim[], { settings: S; context: Context; result: R }>();
	return (settings, context, claims) => {
		const found = known.get(claims);
		if (found?.settings === settings && found.context === context) return found.result;
		const result = compute(settings, context, claims);
		known.set(claims, { settings, context, result });
		return result;
	};
}
