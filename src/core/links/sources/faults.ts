import type { Fault } from '../../engines/machine';

/** What can befall a stream while a rehearsal runs. */
export const SOURCES_FAULTS = {
	'stream-refuses': { label: 'Stream refuses', lastsMs: 60_000 },
	'stream-pauses': { label: 'Stream stands still', lastsMs: 3_000 },
	'server-asleep': { label: 'File server asleep', lastsMs: 90_000 },
	'server-unnamed': { label: 'File server\u2019s name not found', lastsMs: 60_000 },
	'share-password': { label: 'Share refuses the password', lastsMs: 60_000 },
	'share-read-only': { label: 'Share may only be read', lastsMs: 600_000 },
	'share-full': { label: 'Share full', lastsMs: 600_000 },
	'stick-out': { label: 'Stick pulled out', lastsMs: 30_000 }
} as const satisfies Record<string, Fault>;
