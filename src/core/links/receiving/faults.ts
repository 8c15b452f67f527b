import type { Fault } from '../../engines/machine';

/** What others may do while a rehearsal runs. */
export const RECEIVING_FAULTS = {
	'phone-sends': { label: 'A phone sends', lastsMs: 60_000 },
	'computer-sends': { label: 'A computer sends', lastsMs: 60_000 }
} as const satisfies Record<string, Fault>;
