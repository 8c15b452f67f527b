import type { CardFile, Context, Link, Secrets } from '../link';
import type { Plan } from '../plan/plan';
import { lines, textFile } from '../cardFile';
import { collectClaims } from './assess';
import { benchFor } from './benchFor';
import { printRunSheet } from './printRunSheet';
import { runSheet } from './runSheet';

/** Every file of the card set, in the order of the chain. The same plan gives the same bytes. */
export function write(chain: readonly Link[], plan: Plan, context: Context, secrets: Secrets = {}): CardFile[] {
	const claims = collectClaims(chain, plan, context);
	const made = chain.flatMap((link) => link.files(plan, context, claims, secrets));
	const seals = chain.flatMap((link) => link.seal?.(made, plan, claims) ?? []);
	return [
		...made,
		...seals,
		printRunSheet(plan.brief.name, runSheet(chain, plan, context)),
		describeBench(chain, plan, context)
	].sort((a, b) => (a.path < b.path ? -1 : 1));
}

/** The surroundings that the plan expects, beside the set: so a folder alone can be rehearsed. */
const describeBench = (chain: readonly Link[], plan: Plan, context: Context): CardFile =>
	textFile(
		'docs/bench.json',
		'The surroundings on which the set was rehearsed; it does not go on the card.',
		lines('parts', ...JSON.stringify(benchFor(chain, plan, context), null, '\t').split('\n'))
	);
