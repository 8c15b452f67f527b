import type { Change, Changes } from '../changes';
import type { Claim } from '../claims';
import type { Facts } from '../facts';
import type { Context, Surroundings } from '../link/context';
import type { Link } from '../link';
import type { Plan } from '../plan/plan';

/** What every engine begins with: the links in use, what they publish, and what they claim of each other. */
export interface Derived {
	readonly links: readonly Link[];
	readonly context: Context;
	readonly claims: readonly Claim[];
}

type Slices = Readonly<Record<string, unknown>>;
/** The settings of one link. */
export const sliceOf = (plan: Plan, link: Pick<Link, 'id'>): unknown => (plan as unknown as Slices)[link.id];

/** A link that a plan may do without is passed over when it does. */
export const isUsed = (link: Link, plan: Plan): boolean => link.use?.is(sliceOf(plan, link)) ?? true;

interface Known {
	readonly surroundings: Surroundings;
	readonly of: Map<readonly Link[], Derived>;
}
const known = new WeakMap<Plan, Known>();

const areSame = (one: readonly Link[], other: readonly Link[]): boolean =>
	one.length === other.length &&
	one.every(({ publish, claims }, n) => publish === other[n]!.publish && claims === other[n]!.claims);

/** Worked out once for the same plan in the same surroundings; all engines share it. */
export function derive(chain: readonly Link[], plan: Plan, surroundings: Surroundings): Derived {
	let found = known.get(plan);
	if (found?.surroundings !== surroundings) known.set(plan, (found = { surroundings, of: new Map() }));
	let derived = found.of.get(chain);
	if (!derived) {
		// The same links with more of them loaded: what follows from the plan is the same.
		const same = [...found.of].find(([other]) => areSame(other, chain))?.[1];
		const links = chain.filter((link) => isUsed(link, plan));
		const context = same?.context ?? contextOf(chain, plan, surroundings);
		const claims = same?.claims ?? links.flatMap((link) => link.claims?.(sliceOf(plan, link), context) ?? []);
		found.of.set(chain, (derived = { links, context, claims }));
	}
	return derived;
}

/** What the links of a plan publish, joined. */
export const factsOf = (chain: readonly Link[], plan: Plan): Facts =>
	Object.assign(
		{},
		...chain.filter((link) => isUsed(link, plan)).map((link) => link.publish?.(sliceOf(plan, link)) ?? {})
	) as Facts;

function contextOf(chain: readonly Link[], plan: Plan, surroundings: Surroundings): Context {
	return {
		...surroundings,
		facts: factsOf(chain, plan),
		change: changesOf(chain),
		suppose: (change) => contextOf(chain, change(plan), surroundings)
	};
}

const offered = new WeakMap<readonly Link[], Changes>();

/** What the owners let others change, joined. */
function changesOf(chain: readonly Link[]): Changes {
	let changes = offered.get(chain);
	if (!changes) {
		changes = Object.assign(
			{ use: (id: string, on = true) => useLink(chain, id, on) },
			...chain.map((link) => link.changes ?? {})
		) as Changes;
		offered.set(chain, changes);
	}
	return changes;
}

/** Adds a link to a plan, or takes it out; its settings stay as they were. */
export function useLink(chain: readonly Link[], id: string, on: boolean): Change {
	const link = chain.find((known) => known.id === id);
	return (plan) => {
		const use = link?.use;
		return use ? { ...plan, [id]: use.set(sliceOf(plan, { id }), on) } : plan;
	};
}
