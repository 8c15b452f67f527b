import type { CardFile, Context, Link, Secrets } from '../link';
import type { Plan } from '../plan/plan';
import { collectClaims } from './assess';
import { printRunSheet } from './printRunSheet';
import { runSheet } from './runSheet';

/** Every file of the card set, in the order of the chain. The same plan gives the same bytes. */
export function write(chain: readonly Link[], plan: Plan, context: Context, secrets: Secrets = {}): CardFile[] {
	const claims = collectClaims(chain, plan, context);
	const made = chain.flatMap((link) => link.files(plan, context, claims, secrets));
	const seals = chain.flatMap((link) => link.seal?.(made, plan, claims) ?? []);
	return [...made, ...seals, printRunSheet(plan.brief.name, runSheet(chain, plan, context))].sort((a, b) =>
		a.path < b.path ? -1 : 1
	);
}
