import type { Finding, Fix } from '../link/finding';
import type { Link } from '../link';
import type { Surroundings } from '../link/context';
import type { Plan } from '../plan/plan';
import { assess } from './assess';

/** So many further fixes at most follow from one that is pressed; more would be another plan. */
const MOST_MORE = 3;
/** A finding is offered no fix that takes longer to find. */
const MOST_TRIES = 24;

/**
 * Fixes that cure: after each the finding is gone, and no stop stands that did not stand before. Where a fix brings a new stop that
 * has a fix of its own, both are one press and the label says so; where it cannot be had, it is not offered.
 */
export function curesOf(
	chain: readonly Link[],
	plan: Plan,
	surroundings: Surroundings,
	finding: Pick<Finding, 'id' | 'fixes'>
): readonly Fix[] {
	let cures = known.get(finding);
	if (!cures) known.set(finding, (cures = findCures(chain, plan, surroundings, finding)));
	return cures;
}
const known = new WeakMap<Pick<Finding, 'id' | 'fixes'>, readonly Fix[]>();

function findCures(
	chain: readonly Link[],
	plan: Plan,
	surroundings: Surroundings,
	{ id, fixes }: Pick<Finding, 'id' | 'fixes'>
): Fix[] {
	const stopsOf = (of: Plan): readonly Finding[] =>
		assess(chain, of, surroundings).findings.filter(({ level }) => level === 'stop');
	const before = new Set(stopsOf(plan).map((stop) => stop.id));
	let tries = 0;
	/** The fixes that settle what is new in a plan, none when nothing is; null when they cannot be had. */
	const settle = (changed: Plan, more: number): readonly Fix[] | null => {
		if (++tries > MOST_TRIES) return null;
		const stop = stopsOf(changed).find((known) => !before.has(known.id));
		if (!stop) return assess(chain, changed, surroundings).findings.some((known) => known.id === id) ? null : [];
		if (more === 0) return null;
		for (const fix of stop.fixes) {
			const rest = settle(fix.apply(changed), more - 1);
			if (rest) return [fix, ...rest];
		}
		return null;
	};
	return fixes.flatMap((fix) => {
		tries = 0;
		const rest = settle(fix.apply(plan), MOST_MORE);
		if (rest === null) return [];
		if (rest.length === 0) return [fix];
		const steps = [fix, ...rest];
		return [
			{
				label: steps
					.map(({ label }, n) => (n === 0 ? label : label.charAt(0).toLowerCase() + label.slice(1)))
					.join(', and '),
				apply: (any: Plan, nowUtcMs?: number) => steps.reduce((changed, step) => step.apply(changed, nowUtcMs), any)
			}
		];
	});
}
