import { z } from 'zod';
import { CARD_ID } from '../../formats/alsa/deviceName';
import { lineText } from '../../basics/text';

/** The schema of the sound's slice of a plan. */
export const soundSettings = z.object({
	/** Off: silent by plan. */
	used: z.boolean(),
	/** The name that the endpoint's kernel gives the converter; empty until a probe report or the person says it. */
	cardId: z
		.string()
		.refine(
			(id) => id === '' || CARD_ID.test(id),
			'Letters, digits, _ and -, at most 15: the word in square brackets of /proc/asound/cards.'
		),
	/** The part that this name was told for; empty: not known. */
	cardFor: z.string().max(60),
	/** What its maker has you name in the board’s start file, where it carries no memory that says so: "name,parameter=value", or a path for extlinux.conf. */
	overlay: z
		.string()
		.regex(
			/^(?:[\w./=+-]+(?:,[\w./=+-]+)*)?$/,
			'Letters, digits and - _ . / = + between commas, without spaces: as its maker prints it behind dtoverlay=.'
		)
		.max(200),
	deviceNumber: z.number().int().min(0).max(31),
	/** hw: samples as they are. iec958 and hdmi: by ways that alsa-lib's configuration has for some drivers; a display output's frames come by hdmi. */
	door: z.enum(['hw', 'iec958', 'hdmi']),
	/** follow: each source at its own rate where the converter can. fixed: one rate for all. shared: one rate, several programs at once. */
	travel: z.enum(['follow', 'fixed', 'shared']),
	fixedRateHz: z.number().int().min(8000).max(768_000),
	volumeAt: z.enum(['fixed', 'player', 'converter']),
	/** 0 is full scale. Unused when the volume is fixed. */
	volumeDb: z.number().min(-90).max(0),
	/** The converter's own control, as `amixer` lists it; empty when it has none. */
	mixerName: lineText(44),
	distanceM: z.number().min(0.2).max(50),
	/** Where one listens: a room's own reflections are louder than the speaker itself beyond a metre or two. */
	place: z.enum(['unknown', 'room', 'outdoors']),
	roomM3: z.number().min(5).max(100_000),
	/** How much its surfaces swallow; measured: by the reverberation time. */
	furnishing: z.enum(['hard', 'ordinary', 'soft', 'measured']),
	/** RT60, as an app or a handclap recorder reads it. */
	reverbSec: z.number().min(0.1).max(20),
	/** Several speakers on one channel of the amplifier. */
	wiring: z.enum(['parallel', 'series']),
	/** Sound pressure that a full-scale passage should not exceed at the listener. */
	loudestDb: z.number().min(40).max(115)
});
/** The sound's slice of a plan. */
export type SoundSettings = z.infer<typeof soundSettings>;

/** Nothing chosen yet, and quiet to begin with. */
export const calmSound: SoundSettings = {
	used: true,
	cardId: '',
	cardFor: '',
	overlay: '',
	deviceNumber: 0,
	door: 'hw',
	travel: 'follow',
	fixedRateHz: 48_000,
	volumeAt: 'player',
	volumeDb: -12,
	mixerName: '',
	distanceM: 2.5,
	place: 'unknown',
	roomM3: 60,
	furnishing: 'ordinary',
	reverbSec: 0.5,
	wiring: 'parallel',
	loudestDb: 95
};
