import { writeDeviceName } from '../../formats/alsa/deviceName';
import type { SoundSettings } from './settings';

/** The name of the mixing device in our asound.conf, for several programs at once. */
export const SHARED_NAME = 'yphos_shared';

/** The ALSA device that the player opens, and what each part of its name says. */
export function deviceOf(
	settings: SoundSettings
): { name: string; explained: readonly { part: string; meaning: string }[] } | null {
	const { cardId, deviceNumber, door, travel } = settings;
	if (cardId === '') return null;
	if (travel === 'shared')
		return {
			name: SHARED_NAME,
			explained: [
				{
					part: SHARED_NAME,
					meaning: 'a mixing device, set up in asound.conf, through which several programs sound together at one rate'
				}
			]
		};
	const doors = {
		hw: 'straight to the hardware: nothing on the way may change a sample',
		iec958: 'to the digital output of a card for which alsa-lib has such a way',
		hdmi: 'straight to a display\u2019s sound, each sample in the frame that it needs'
	};
	return {
		name: writeDeviceName(door, cardId, deviceNumber),
		explained: [
			{ part: door, meaning: doors[door] },
			{
				part: `CARD=${cardId}`,
				meaning:
					'the card by its own name, which stays the same whichever socket it is in and whatever else is plugged in'
			},
			{ part: `DEV=${deviceNumber}`, meaning: `the card\u2019s output number ${deviceNumber}` }
		]
	};
}
