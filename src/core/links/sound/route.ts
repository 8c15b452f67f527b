import type { Context } from '../../link';
import type { Playback } from '../../parts/schema';
import type { Plan } from '../../plan/plan';
import type { SoundDevice } from '../../probe/facts';
import type { Route } from './treatment';

/** The probed device that the plan names, when there is one. */
export const probedDevice = (plan: Plan, context: Context): SoundDevice | null =>
	context.probe?.soundDevices.find(
		(device) => device.cardId === plan.sound.cardId && device.deviceNumber === plan.sound.deviceNumber
	) ?? null;

/** What the converter takes: as the board itself reported, else as its class typically does. */
export function playbackOf(plan: Plan, context: Context): { playback: Playback; sure: 'measured' | 'typical' } | null {
	const probed = probedDevice(plan, context)?.playback;
	if (probed) return { playback: probed, sure: 'measured' };
	const part = context.part('converter', plan.parts.converter);
	return part ? { playback: part.playback, sure: 'typical' } : null;
}

export const gainInPlayerDb = (plan: Plan): number => (plan.sound.volumeAt === 'player' ? plan.sound.volumeDb : 0);

export function routeOf(plan: Plan, context: Context): Route | null {
	const found = playbackOf(plan, context);
	return found
		? {
				playback: found.playback,
				door: plan.sound.door,
				forcedRateHz: plan.sound.travel === 'follow' ? null : plan.sound.fixedRateHz,
				gainDb: gainInPlayerDb(plan)
			}
		: null;
}
