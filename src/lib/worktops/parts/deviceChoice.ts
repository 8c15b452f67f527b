import type { Plan } from '$core/plan/plan';
import type { SoundDevice } from '$core/probe';

/** The plan with this device as its way out. */
export const change =
	({ cardId, deviceNumber }: Pick<SoundDevice, 'cardId' | 'deviceNumber'>) =>
	(plan: Plan): Plan => ({
		...plan,
		sound: { ...plan.sound, cardId, deviceNumber }
	});
