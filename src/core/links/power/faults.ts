import type { Fault } from '../../engines/machine';

/** What can befall the feed while a rehearsal runs. */
export const POWER_FAULTS = {
	'power-cut': { label: 'Cut the power', lastsMs: 5_000 },
	'supply-weak': { label: 'Weak supply', lastsMs: 30_000 }
} as const satisfies Record<string, Fault>;
