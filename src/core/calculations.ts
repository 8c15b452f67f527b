/** What can be reckoned by name, each beside what it reckons: one JSON object in, one out. */
import type { Calculation, Calculations } from './basics/calculation';

const found = import.meta.glob<Calculations>(['./formats/**/calc.ts', './links/*/calc.ts'], {
	eager: true,
	import: 'default'
});

/** By name, in the shapes of the check values. A bad input throws with a sentence. */
export const calculations: Readonly<Record<string, Calculation>> = Object.assign({}, ...Object.values(found));
