import type { Context } from '../../link';
import type { Playback } from '../../parts/schema';
import type { SoundDevice } from '../../probe/facts';
import type { Route } from './treatment';
import type { SoundSettings } from './settings';

/** The probed device that the plan names, when there is one. */
export const probedDevice = (settings: SoundSettings, context: Context): SoundDevice | null =>
	context.probe?.soundDevices.find(
		(device) => device.cardId === settings.cardId && device.deviceNumber === settings.deviceNumber
	) ?? null;

/** What the converter takes: as the board itself reported, else as its class typically does. */
export function playbackOf(
	settings: SoundSettings,
	context: Context
): { playback: Playback; sure: 'measured' | 'typical' } | null {
	const probed = probedDevice(settings, context)?.playback;
	if (probed) return { playback: probed, sure: 'measured' };
	const part = context.part('converter', context.facts.parts.converter);
	return part ? { playback: part.playback, sure: 'typical' } : null;
}

const gainInPlayerDb = (settings: SoundSettings): number => (settings.volumeAt === 'player' ? settings.volumeDb : 0);

/** How samples reach the converter by plan; null until one is chosen. */
export function routeOf(settings: SoundSettings, context: Context): Route | null {
	const found = playbackOf(settings, context);
	return found
		? {
				playback: found.playback,
				door: settings.door,
				forcedRateHz: settings.travel === 'follow' ? null : settings.fixedRateHz,
				gainDb: gainInPlayerDb(settings)
			}
		: null;
}
