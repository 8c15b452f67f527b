import type { Fault } from '../../engines/machine';

/** What can become of new content while a rehearsal runs. */
export const DELIVERY_FAULTS = {
	'new-set': { label: 'New content is there', lastsMs: 86_400_000 },
	'set-breaks-off': { label: 'New content, and the connection breaks off half-way', lastsMs: 600_000 },
	'set-spoilt': { label: 'New content, and a file of it is spoilt', lastsMs: 86_400_000 },
	'set-forged': { label: 'New content, signed by somebody else', lastsMs: 86_400_000 },
	'set-endless': { label: 'Whoever answers at the address sends without end', lastsMs: 86_400_000 },
	'set-dead': { label: 'New content that does not play', lastsMs: 86_400_000 }
} as const satisfies Record<string, Fault>;
