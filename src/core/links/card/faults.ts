import type { Fault } from '../../engines/machine';

/** What can befall a card while a rehearsal runs. */
export const CARD_FAULTS = {
	'card-full': { label: 'Fill the card', lastsMs: 60_000 }
} as const satisfies Record<string, Fault>;
