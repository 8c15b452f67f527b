import { z } from 'zod';
import { playbackSchema } from '../parts/schema';

/** One playback device as the board's kernel knows it. Known by card id and device number, never by the card's index. */
export const soundDeviceSchema = z.object({
	cardId: z.string(),
	cardName: z.string(),
	deviceNumber: z.number().int().min(0),
	deviceName: z.string(),
	/** The USB speed class when it is a USB device. */
	usbSpeed: z.enum(['full', 'high', 'super']).nullable(),
	/** Null when no listing said what the device takes. */
	playback: playbackSchema.nullable(),
	/** Volume controls that `amixer` lists. */
	mixers: z.array(z.object({ name: z.string(), lowestDb: z.number().nullable(), nowDb: z.number().nullable() })),
	/** Ways in that `aplay -L` lists for this card: hw, iec958, hdmi … */
	doors: z.array(z.string())
});
export type SoundDevice = z.infer<typeof soundDeviceSchema>;

/** What a probe report says of a board. Every part may be missing. */
export const probeFactsSchema = z.object({
	takenUtc: z.string().nullable(),
	model: z.string().nullable(),
	system: z.string().nullable(),
	memoryMb: z.number().nullable(),
	soundDevices: z.array(soundDeviceSchema),
	connectors: z.array(
		z.object({ name: z.string(), connected: z.boolean(), modes: z.array(z.string()), edidHex: z.string().nullable() })
	),
	displaySound: z.array(
		z.object({
			cardIndex: z.number(),
			monitor: z.string().nullable(),
			present: z.boolean(),
			formats: z.array(z.string())
		})
	),
	disks: z.array(
		z.object({
			name: z.string(),
			sizeBytes: z.number(),
			type: z.string(),
			mountPoints: z.array(z.string()),
			removable: z.boolean()
		})
	),
	addresses: z.array(z.object({ name: z.string(), address: z.string(), up: z.boolean() })),
	linkMbps: z.array(z.object({ name: z.string(), mbps: z.number() })),
	temperaturesC: z.array(z.object({ name: z.string(), celsius: z.number() })),
	/** True when a supply alarm stood, or the board had too little voltage since its start; null when nothing told. */
	supplyAlarm: z.boolean().nullable(),
	/** True when the board has said that it slowed itself; null when nothing told. */
	throttled: z.boolean().nullable(),
	/** USB devices as `lsusb` names them, the board's own hubs left out. */
	usbDevices: z.array(z.string()),
	tuners: z.array(z.string())
});
export type ProbeFacts = z.infer<typeof probeFactsSchema>;

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
