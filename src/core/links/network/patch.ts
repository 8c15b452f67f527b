import type { Fix } from '../../link';
import type { Plan } from '../../plan/plan';

/** A fix that changes settings of the network. */
export const patch = (label: string, change: Partial<Plan['network']>): Fix => ({
	label,
	apply: (p) => ({ ...p, network: { ...p.network, ...change } })
});
