import type { Fault } from '../../engines/machine';

/** What can befall converter and amplifier while a rehearsal runs. */
export const SOUND_FAULTS = {
	'converter-unplugged': { label: 'Unplug converter', lastsMs: 15_000 },
	'amplifier-muted': { label: 'Mute amplifier', lastsMs: 15_000 }
} as const satisfies Record<string, Fault>;
