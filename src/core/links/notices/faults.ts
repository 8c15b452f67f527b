import type { Fault } from '../../engines/machine';

/** What can befall pages while a rehearsal runs. */
export const NOTICES_FAULTS = {
	'page-crashes': { label: 'The page crashes', lastsMs: 1000 },
	'feed-refuses': { label: 'Feeds refuse', lastsMs: 3_600_000 },
	'feed-wrong': { label: 'Feeds give something else', lastsMs: 3_600_000 }
} as const satisfies Record<string, Fault>;
