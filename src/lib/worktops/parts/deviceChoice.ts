import type { Plan } from '$core/plan/plan';
import type { SoundDevice } from '$core/probe';

/** The plan with this device as its way out. */
export const change =
	(device: SoundDevice) =>
	(plan: Plan): Plan => ({
		...plan,
		sound: { ...plan.sound, cardId: device.cardId, deviceNumber: device.deviceNumber }
	});
