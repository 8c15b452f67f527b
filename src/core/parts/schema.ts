import { z } from 'zod';
import { lineText } from '../plan/text';

/** How sure a figure is: from a standard, typical for the class, or measured by the person. */
export const SURENESS = ['standard', 'typical', 'measured'] as const;

const base = {
	id: z.string().min(1),
	name: lineText(80).min(1),
	sure: z.enum(SURENESS),
	price: z.number().min(0).nullable()
};

/** ALSA sample formats with the bits that matter in each. Source: alsa-lib, snd_pcm_format_width. */
export const SAMPLE_BITS = {
	U8: 8,
	S16_LE: 16,
	S24_LE: 24,
	S24_3LE: 24,
	S32_LE: 32,
	FLOAT_LE: 24,
	IEC958_SUBFRAME_LE: 24
} as const;
export type SampleFormat = keyof typeof SAMPLE_BITS;
const sampleFormat = z.enum(Object.keys(SAMPLE_BITS) as [SampleFormat, ...SampleFormat[]]);

/** What a playback device takes. */
export const playbackSchema = z.object({
	ratesHz: z.array(z.number().int().min(4000).max(3_000_000)).min(1),
	formats: z.array(sampleFormat).min(1),
	channels: z.array(z.number().int().min(1).max(32)).min(1)
});
export type Playback = z.infer<typeof playbackSchema>;

const board = z.object({
	...base,
	kind: z.literal('board'),
	memoryMb: z.number().positive(),
	idleW: z.number().positive(),
	peakW: z.number().positive(),
	brownOutV: z.number().positive(),
	/** From power on to the kernel's first line, from there to the first service, from there until all are begun. */
	firmwareSec: z.number().min(0),
	kernelSec: z.number().min(0),
	servicesSec: z.number().min(0),
	hasClock: z.boolean(),
	radio: z.boolean(),
	wired: z.boolean()
});
const supply = z.object({
	...base,
	kind: z.literal('supply'),
	volts: z.number().positive(),
	amperes: z.number().positive()
});
const card = z.object({ ...base, kind: z.literal('card'), capacityGb: z.number().positive() });
const converter = z.object({
	...base,
	kind: z.literal('converter'),
	joint: z.enum(['usb', 'header', 'jack', 'optical', 'display']),
	playback: playbackSchema,
	fullScaleVrms: z.number().positive(),
	volts: z.number().positive(),
	milliamperes: z.number().min(0),
	/** From plug or power to being listed by the kernel. */
	readySec: z.number().min(0),
	/** Its own volume, when it has one: name, range, and where it stands when power comes. */
	volume: z.object({ name: z.string(), lowestDb: z.number().max(0), startDb: z.number().max(0) }).nullable()
});
const amplifier = z.object({
	...base,
	kind: z.literal('amplifier'),
	/** Input for rated power at the rated load. */
	sensitivityVrms: z.number().positive(),
	ratedW: z.number().positive(),
	ratedOhm: z.number().positive()
});
const speakers = z.object({
	...base,
	kind: z.literal('speakers'),
	ohm: z.number().positive(),
	/** dB at 1 m for 2.83 V. */
	sensitivityDb: z.number().min(60).max(120),
	count: z.number().int().min(1).max(8)
});

export const partSchema = z.discriminatedUnion('kind', [board, supply, card, converter, amplifier, speakers]);
export type Part = z.infer<typeof partSchema>;
export type PartKind = Part['kind'];
export type PartOf<K extends PartKind> = Extract<Part, { kind: K }>;
