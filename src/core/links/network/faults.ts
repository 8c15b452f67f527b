import type { Fault } from '../../engines/machine';

/** What can befall the network while a rehearsal runs. */
export const NETWORK_FAULTS = {
	'network-late': { label: 'Network comes late', lastsMs: 40_000 }
} as const satisfies Record<string, Fault>;
