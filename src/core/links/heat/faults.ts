import type { Fault } from '../../engines/machine';

/** What can befall the cooling while a rehearsal runs. */
export const HEAT_FAULTS = {
	'fan-stops': { label: 'Fan stops', lastsMs: 3_600_000 }
} as const satisfies Record<string, Fault>;
