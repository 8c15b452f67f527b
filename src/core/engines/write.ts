import type { CardFile } from '../link/file';
import type { Link } from '../link';
import type { Surroundings } from '../link/context';
import type { Secrets } from '../secrets';
import type { Plan } from '../plan/plan';
import { lines, textFile } from '../files/cardFile';
import { fitNames } from '../files/renamed';
import { benchFor } from './benchFor';
import { derive, sliceOf } from './derive';
import { printRunSheet } from './printRunSheet';
import { runSheet } from './runSheet';

/** Every file of the card set, in the order of the chain. The same plan gives the same bytes. */
export function write(
	chain: readonly Link[],
	plan: Plan,
	surroundings: Surroundings,
	secrets: Secrets = {}
): CardFile[] {
	const { links, context, claims } = derive(chain, plan, surroundings);
	const made = fitNames(links.flatMap((link) => link.files?.(sliceOf(plan, link), context, claims, secrets) ?? []));
	const seals = links.flatMap((link) => link.seal?.(made, sliceOf(plan, link), claims) ?? []);
	return [
		...made,
		...seals,
		printRunSheet(context.facts.endpointName, runSheet(chain, plan, surroundings)),
		describeBench(chain, plan, surroundings)
	].sort((a, b) => (a.path < b.path ? -1 : 1));
}

/** The surroundings that the plan expects, beside the set: so a folder alone can be rehearsed. */
const describeBench = (chain: readonly Link[], plan: Plan, surroundings: Surroundings): CardFile =>
	textFile(
		'docs/bench.json',
		'The surroundings on which the set was rehearsed; it does not go on the card.',
		lines('parts', ...JSON.stringify(benchFor(chain, plan, surroundings), null, '\t').split('\n'))
	);
