import { z } from 'zod';
import { playbackSchema } from './schema';
import { CARD_ID } from '../formats/alsa/deviceName';
import { lineText } from '../basics/text';

/** What a board printed: one line, never long. */
const word = lineText(300);

/** One playback device as the board's kernel knows it. Known by card id and device number, never by the card's index. */
const soundDeviceSchema = z.object({
	cardId: z.string().regex(CARD_ID),
	cardName: word,
	deviceNumber: z.number().int().min(0).max(31),
	deviceName: word,
	/** The USB speed class when it is a USB device. */
	usbSpeed: z.enum(['full', 'high', 'super']).nullable(),
	/** Null when no listing said what the device takes. */
	playback: playbackSchema.nullable(),
	/** Volume controls that `amixer` lists; one that is not the first of its name has its number behind a comma: PCM,1. */
	mixers: z
		.array(z.object({ name: lineText(44), lowestDb: z.number().nullable(), nowDb: z.number().nullable() }))
		.max(200),
	/** Ways in that `aplay -L` lists for this card: hw, iec958, hdmi … */
	doors: z.array(word).max(500)
});
/** One playback device of a report. */
export type SoundDevice = z.infer<typeof soundDeviceSchema>;

/** What a probe report says of a board. Every part may be missing. */
export const probeFactsSchema = z.object({
	takenUtc: word.nullable(),
	model: word.nullable(),
	system: word.nullable(),
	memoryMb: z.number().nullable(),
	soundDevices: z.array(soundDeviceSchema).max(64),
	connectors: z.array(
		z.object({
			name: word,
			connected: z.boolean(),
			modes: z.array(word).max(500),
			edidHex: z
				.string()
				.max(8192)
				.regex(/^([0-9a-f]{2})*$/)
				.nullable()
		})
	),
	displaySound: z.array(
		z.object({
			cardIndex: z.number(),
			monitor: word.nullable(),
			present: z.boolean(),
			formats: z.array(word).max(500)
		})
	),
	disks: z.array(
		z.object({
			name: word,
			sizeBytes: z.number().min(0),
			type: word,
			mountPoints: z.array(word).max(500),
			removable: z.boolean()
		})
	),
	addresses: z.array(
		z.object({
			name: word,
			address: word,
			up: z.boolean(),
			/** Bits of its range; null: not said. */
			prefixLength: z.number().int().min(0).max(128).nullable().default(null)
		})
	),
	linkMbps: z.array(z.object({ name: word, mbps: z.number() })),
	temperaturesC: z.array(z.object({ name: word, celsius: z.number() })),
	/** True when a supply alarm stood, or the board had too little voltage since its start; null when nothing told. */
	supplyAlarm: z.boolean().nullable(),
	/** True when the board has said that it slowed itself; null when nothing told. */
	throttled: z.boolean().nullable(),
	/** USB devices as `lsusb` names them, the board's own hubs left out. */
	usbDevices: z.array(word).max(500),
	tuners: z.array(word).max(500)
});
/** What a report says of a board; null where it says nothing. */
export type ProbeFacts = z.infer<typeof probeFactsSchema>;

/** The facts of an empty report. */
export const noFacts = (): ProbeFacts => ({
	takenUtc: null,
	model: null,
	system: null,
	memoryMb: null,
	soundDevices: [],
	connectors: [],
	displaySound: [],
	disks: [],
	addresses: [],
	linkMbps: [],
	temperaturesC: [],
	supplyAlarm: null,
	throttled: null,
	usbDevices: [],
	tuners: []
});
