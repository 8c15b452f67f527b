import type { Fault } from '../../engines/machine';

/** What can befall a screen while a rehearsal runs. */
export const PICTURE_FAULTS = {
	'screen-late': { label: 'Screen off at the start', lastsMs: 60_000 },
	'screen-lead-out': { label: 'Screen cable out', lastsMs: 15_000 },
	'screen-wrong-input': { label: 'Set on another input', lastsMs: 15_000 },
	'edid-late': { label: 'EDID unreadable at the start', lastsMs: 60_000 },
	'other-screen': { label: 'Another screen plugged in', lastsMs: 30_000 },
	'phone-shows': { label: 'A page is shown by phone', lastsMs: 300_000 },
	'phone-shut-down': { label: 'Shut down by phone, then plugged in again', lastsMs: 60_000 }
} as const satisfies Record<string, Fault>;
