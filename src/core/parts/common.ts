import { z } from 'zod';
import { idText, lineText } from '../basics/text';
import { CARGO, PLUG_IDS } from './plugs';

/** How sure a figure is: from a standard, typical for the class, or measured by the person. */
export const SURENESS = ['standard', 'typical', 'measured'] as const;
/** How sure a figure is: measured, from a data sheet, typical. */
export type Sureness = (typeof SURENESS)[number];

/** One end of a lead, or the socket for it. */
export const end = z.object({ plug: z.enum(PLUG_IDS), male: z.boolean() });

/** A place where something is joined: what it carries, and whether it gives or takes. */
export const socketSchema = end.extend({
	way: z.enum(['in', 'out']),
	carries: z.array(z.enum(CARGO)).min(1),
	count: z.number().int().min(1).max(16)
});
/** A place on a part for a plug. */
export type Socket = z.infer<typeof socketSchema>;

/** Of a consumer. */
export const watts = z.number().min(0).max(2000);
/** What a part draws, and from where. */
export const drawSchema = z
	.object({
		via: z.enum(['usb', 'header', 'board', 'mains']),
		idleW: watts,
		/** While it does its work. */
		typicalW: watts,
		peakW: watts,
		/** For some milliseconds at the moment power comes. */
		surgeW: watts
	})
	.refine(
		(draw) => draw.idleW <= draw.typicalW && draw.typicalW <= draw.peakW && draw.peakW <= draw.surgeW,
		'Idle, typical, peak and surge must not fall from one to the next.'
	);
/** What a part draws, and from where, W. */
export type Draw = z.infer<typeof drawSchema>;

/** A line of the header, by the processor's number. */
export const gpio = z.number().int().min(0).max(27);
/** What a part takes of the 40-pin header. Numbers are GPIO numbers, never pin numbers. */
export const headerUseSchema = z.object({
	i2s: z.boolean(),
	spi: z.array(z.object({ bus: z.union([z.literal(0), z.literal(1)]), select: z.number().int().min(0).max(2) })),
	i2c: z.array(z.object({ address: z.number().int().min(0x03).max(0x77) })),
	uart: z.boolean(),
	/** Bits of a parallel display bus; 0: none. */
	displayBits: z.union([z.literal(0), z.literal(18), z.literal(24)]),
	/** Lines that may not be moved. */
	gpio: z.array(gpio),
	/** Lines that may be wired to any free GPIO, with the one the maker suggests. */
	movable: z.array(z.object({ what: lineText(40), suggested: gpio, pwm: z.boolean() })),
	milliamperes5V: z.number().min(0).max(5000),
	milliamperes3V3: z.number().min(0).max(1000),
	/** Carries the small memory by which a board learns at boot what sits on it. */
	idMemory: z.boolean(),
	/** Another add-on can sit on top or beside: its pins come through, or it takes single wires. */
	passesThrough: z.boolean()
});
/** What a part takes of the 40-pin header. */
export type HeaderUse = z.infer<typeof headerUseSchema>;

/** What every part has. */
export const base = {
	id: idText,
	name: lineText(80).min(1),
	/** Holds for every figure that `figures` does not list. */
	sure: z.enum(SURENESS),
	source: lineText(200).default('Typical of the class; what is printed on yours beats it.'),
	/** Figures that are surer, or from elsewhere, than the rest. */
	figures: z.record(z.string().max(60), z.object({ sure: z.enum(SURENESS), source: lineText(200).min(1) })).default({}),
	price: z.number().min(0).max(100_000).nullable(),
	sockets: z.array(socketSchema).default([]),
	draw: drawSchema.nullable().default(null),
	header: headerUseSchema.nullable().default(null)
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
/** A format of samples by ALSA's name. Source: alsa-lib 1.2.8, pcm.h. */
export type SampleFormat = keyof typeof SAMPLE_BITS;
/** One of them. */
export const sampleFormat = z.enum(Object.keys(SAMPLE_BITS) as [SampleFormat, ...SampleFormat[]]);

/** What a playback device takes. */
export const playbackSchema = z.object({
	ratesHz: z.array(z.number().int().min(4000).max(3_000_000)).min(1),
	formats: z.array(sampleFormat).min(1),
	channels: z.array(z.number().int().min(1).max(32)).min(1)
});
/** What a playback device takes. */
export type Playback = z.infer<typeof playbackSchema>;

/** Kinds of film that parts speak of. */
export const VIDEO_CODECS = ['mpeg2', 'h264', 'h265', 'vp9', 'av1'] as const;
/** A video codec that boards know. */
export type VideoCodec = (typeof VIDEO_CODECS)[number];
/** Codecs in words. */
export const CODEC_WORDS: Readonly<Record<VideoCodec, string>> = {
	mpeg2: 'MPEG-2',
	h264: 'H.264',
	h265: 'H.265',
	vp9: 'VP9',
	av1: 'AV1'
};

/** A video stream's size and rate, as a decoder sees it. */
export const videoShapeSchema = z.object({
	codec: z.enum(VIDEO_CODECS),
	widthPx: z.number().int().min(16).max(8192),
	heightPx: z.number().int().min(16).max(8192),
	framesPerSec: z.number().min(1).max(240),
	bitDepth: z.union([z.literal(8), z.literal(10), z.literal(12)])
});
/** Codec, size, rate and depth of a film. */
export type VideoShape = z.infer<typeof videoShapeSchema>;

/** The most that one end of a Wi-Fi path can do. */
export const radioShape = {
	/** Besides 2.4 GHz, the upper band too. */
	fiveGhz: z.boolean().default(true),
	radioWidthMhz: z.union([z.literal(20), z.literal(40), z.literal(80)]).default(80),
	radioStreams: z.union([z.literal(1), z.literal(2)]).default(1)
};

/** How strongly it sends by Bluetooth, dBm; null: it has none. Source: Bluetooth Core 5.3, vol. 2, part A, 3 (classes 1 to 3). */
export const bluetoothDbm = z.number().min(-20).max(20).nullable().default(null);
