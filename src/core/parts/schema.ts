import { z } from 'zod';
import { idText, lineText } from '../basics/text';
import { CARGO, PLUG_IDS } from './plugs';

/** How sure a figure is: from a standard, typical for the class, or measured by the person. */
export const SURENESS = ['standard', 'typical', 'measured'] as const;
/** How sure a figure is: measured, from a data sheet, typical. */
export type Sureness = (typeof SURENESS)[number];

const end = z.object({ plug: z.enum(PLUG_IDS), male: z.boolean() });

/** A place where something is joined: what it carries, and whether it gives or takes. */
const socketSchema = end.extend({
	way: z.enum(['in', 'out']),
	carries: z.array(z.enum(CARGO)).min(1),
	count: z.number().int().min(1).max(16)
});
/** A place on a part for a plug. */
export type Socket = z.infer<typeof socketSchema>;

const watts = z.number().min(0).max(2000);
/** What a part draws, and from where. */
const drawSchema = z
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

const gpio = z.number().int().min(0).max(27);
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

const base = {
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
const sampleFormat = z.enum(Object.keys(SAMPLE_BITS) as [SampleFormat, ...SampleFormat[]]);

/** What a playback device takes. */
export const playbackSchema = z.object({
	ratesHz: z.array(z.number().int().min(4000).max(3_000_000)).min(1),
	formats: z.array(sampleFormat).min(1),
	channels: z.array(z.number().int().min(1).max(32)).min(1)
});
/** What a playback device takes. */
export type Playback = z.infer<typeof playbackSchema>;

const VIDEO_CODECS = ['mpeg2', 'h264', 'h265', 'vp9', 'av1'] as const;
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
const radioShape = {
	/** Besides 2.4 GHz, the upper band too. */
	fiveGhz: z.boolean().default(true),
	radioWidthMhz: z.union([z.literal(20), z.literal(40), z.literal(80)]).default(80),
	radioStreams: z.union([z.literal(1), z.literal(2)]).default(1)
};

/** How strongly it sends by Bluetooth, dBm; null: it has none. Source: Bluetooth Core 5.3, vol. 2, part A, 3 (classes 1 to 3). */
const bluetoothDbm = z.number().min(-20).max(20).nullable().default(null);

const board = z
	.object({
		...base,
		kind: z.literal('board'),
		memoryMb: z.number().min(64).max(65_536),
		idleW: z.number().min(0.1).max(60),
		peakW: z.number().min(0.1).max(60),
		surgeW: z.number().min(0.1).max(120).default(12),
		/** Below it the board restarts. */
		brownOutV: z.number().min(3).max(24),
		/** Below it the board reports too little voltage and slows itself; null: it does neither. */
		warnsV: z.number().min(3).max(24).nullable().default(null),
		/** From power on to the kernel's first line, from there to the first service, from there until all are begun. */
		firmwareSec: z.number().min(0).max(120),
		kernelSec: z.number().min(0).max(120),
		servicesSec: z.number().min(0).max(120),
		hasClock: z.boolean(),
		radio: z.boolean(),
		/** What its own Wi-Fi can do at most. */
		...radioShape,
		bluetoothDbm,
		wired: z.boolean(),
		wiredMbps: z.number().positive().nullable().default(null),
		/** What all USB sockets together, and each, may give. */
		usbTotalA: z.number().min(0).max(10).default(1.2),
		usbPortA: z.number().min(0).max(5).default(0.5),
		/** What the header's 3.3 V pins together may give. */
		header3V3A: z.number().min(0).max(3).default(0.5),
		/** The fastest pixel clock of its display output. Source: HDMI 1.4b, clause 4.2.3; HDMI 2.0 doubles it. */
		displayMhz: z.number().min(10).max(1200).default(165),
		/** Streams that a circuit of its own decodes. */
		decoders: z.array(videoShapeSchema).default([]),
		/** Million pixels a second that its processor decodes of an 8-bit stream of the easiest codec. */
		softwareMpixPerSec: z.number().min(0).max(10_000).default(60),
		/** Chip to air, with nothing on it. */
		bareKPerW: z.number().min(0.5).max(100).default(12),
		heatJPerK: z.number().min(1).max(2000).default(40),
		throttleC: z.number().min(40).max(125).default(80)
	})
	.refine((part) => part.idleW <= part.peakW && part.peakW <= part.surgeW, 'Idle, peak and surge must rise.')
	.refine((part) => part.warnsV === null || part.warnsV > part.brownOutV, 'It warns before it restarts.');

const supply = z.object({
	...base,
	kind: z.literal('supply'),
	volts: z.number().min(3).max(48),
	amperes: z.number().min(0.1).max(30),
	/** Drawn from the mains while nothing is drawn from it. */
	noLoadW: z.number().min(0).max(20).default(0.1),
	/** Its own lead, when it cannot be taken off. */
	lead: z
		.object({ lengthM: z.number().min(0).max(20), areaMm2: z.number().min(0.03).max(6) })
		.nullable()
		.default(null)
});

const lead = z.object({
	...base,
	kind: z.literal('lead'),
	ends: z.tuple([end, end]),
	carries: z.array(z.enum(CARGO)).min(1),
	lengthM: z.number().min(0).max(100),
	/** Cross-section of one power conductor; null when it carries none to speak of. */
	areaMm2: z.number().min(0.03).max(6).nullable(),
	/** dB along an aerial lead at 600 MHz. */
	lossDb: z.number().min(0).max(60).nullable().default(null),
	/** The fastest pixel clock of a picture through it; null: it carries none, or nobody has said. */
	maxPixelClockMhz: z.number().min(1).max(2000).nullable().default(null)
});
const card = z.object({
	...base,
	kind: z.literal('card'),
	capacityGb: z.number().min(1).max(4096),
	/** What it keeps up while it is written in one go; the class printed on it promises so much. */
	writeMBps: z.number().min(0.5).max(2000).default(10),
	/** Terabytes that may be written to it in its life; null: its maker does not say. */
	enduranceTb: z.number().min(0.1).max(100_000).nullable().default(null)
});
const drive = z.object({ ...base, kind: z.literal('drive'), capacityGb: z.number().min(1).max(100_000) });
/** What an amplifier needs besides signal: a direct voltage from a supply of its own. Null: it has its own mains lead, or is fed over USB. */
const feed = z
	.object({ lowestV: z.number().min(3).max(60), highestV: z.number().min(3).max(60) })
	.refine(({ lowestV, highestV }) => lowestV <= highestV, 'The lowest voltage is above the highest.')
	.nullable()
	.default(null);
/** What is on the plate of anything that drives speakers. */
const output = {
	/** Input for rated power at the rated load. */
	sensitivityVrms: z.number().min(0.01).max(20),
	/** Into each channel. */
	ratedW: z.number().min(0.1).max(2000),
	ratedOhm: z.number().min(1).max(600),
	/** The least that may hang on one channel, by its rating; null: not below the rated load. */
	leastOhm: z.number().min(1).max(600).nullable().default(null),
	channels: z.number().int().min(1).max(16).default(2),
	/** Both wires of an output are driven: none of them is ground. */
	bridged: z.boolean().default(false),
	feed
};
const converter = z.object({
	...base,
	kind: z.literal('converter'),
	joint: z.enum(['usb', 'header', 'jack', 'optical', 'display']),
	playback: playbackSchema,
	fullScaleVrms: z.number().min(0.05).max(20),
	/** From plug or power to being listed by the kernel. */
	readySec: z.number().min(0).max(60),
	/** Its own volume, when it has one: name, range, and where it stands when power comes. */
	volume: z
		.object({ name: z.string(), lowestDb: z.number().min(-150).max(0), startDb: z.number().min(-150).max(0) })
		.nullable(),
	/** It drives speakers itself. */
	amplifier: z
		.object({ ...output, draw: drawSchema.nullable() })
		.nullable()
		.default(null)
});
const tuner = z.object({
	...base,
	kind: z.literal('tuner'),
	systems: z.array(z.enum(['T', 'T2', 'C', 'S', 'S2', 'ATSC'])).min(1),
	tuners: z.number().int().min(1).max(8)
});
const screen = z.object({
	...base,
	kind: z.literal('screen'),
	widthPx: z.number().int().min(64).max(8192),
	heightPx: z.number().int().min(64).max(8192),
	refreshHz: z.number().min(20).max(240),
	diagonalIn: z.number().min(1).max(150),
	speakers: z.boolean(),
	touch: z.boolean(),
	/** Cuts its edges, and no setting of its own stops it. */
	cutsEdges: z.boolean(),
	/** How it makes light, by which a still picture harms it or does not. */
	panel: z.enum(['lcd', 'oled', 'tube', 'projector']).default('lcd'),
	/** White at its brightest. */
	peakCdM2: z.number().min(10).max(5000).default(250)
});
const videoAdapter = z.object({
	...base,
	kind: z.literal('video-adapter'),
	bitsPerColour: z.number().int().min(1).max(10),
	maxPixelClockMhz: z.number().min(1).max(600),
	/** Of one colour, from the most significant bit on; none: it is no ladder. */
	resistorsOhm: z.array(z.number().min(1).max(1_000_000)).max(12).default([]),
	tolerancePercent: z.number().min(0).max(50).default(1),
	/** What a pin of the header gives for a one. */
	logicV: z.number().min(1).max(5.5).default(3.3)
});
const caseKind = z.object({
	...base,
	kind: z.literal('case'),
	/** From the air inside to the room, for each watt inside. */
	kPerW: z.number().min(0).max(50),
	closed: z.boolean(),
	/** Against rain and dust. */
	sealed: z.boolean().default(false),
	/** Room between the board's underside and the floor of the case. */
	spacersMm: z.number().min(0).max(50)
});
const cooler = z.object({
	...base,
	kind: z.literal('cooler'),
	/** Chip to air through it, in still air. */
	kPerW: z.number().min(0.2).max(500),
	jPerK: z.number().min(0).max(2000),
	areaCm2: z.number().min(0).max(5000)
});
const fan = z.object({
	...base,
	kind: z.literal('fan'),
	/** How many times more heat leaves while it turns. */
	airFactor: z.number().min(1).max(10),
	volts: z.number().min(3).max(24),
	control: z.enum(['always', 'switched', 'pwm'])
});
const amplifier = z.object({
	...base,
	kind: z.literal('amplifier'),
	...output,
	/** Built into the speakers or the set that it drives: nothing is joined between them. */
	builtIn: z.boolean().default(false)
});
const speakers = z.object({
	...base,
	kind: z.literal('speakers'),
	ohm: z.number().min(1).max(600),
	/** dB at 1 m for 2.83 V. */
	sensitivityDb: z.number().min(60).max(140),
	/** Headphones: what they make of a voltage is heard at once, in whatever room. `sensitivityDb` is then at the ear. */
	atEar: z.boolean().default(false),
	/** The least of its impedance at any frequency; null: 80 % of the rated one. Source: IEC 60268-5, 16.1. */
	leastOhm: z.number().min(0.5).max(600).nullable().default(null),
	/** What each takes for long; null: its plate does not say. Source: IEC 60268-5, 18. */
	ratedW: z.number().min(0.1).max(5000).nullable().default(null),
	count: z.number().int().min(1).max(8)
});
const antenna = z.object({
	...base,
	kind: z.literal('antenna'),
	gainDbi: z.number().min(-20).max(50),
	outdoor: z.boolean()
});
const splitter = z.object({
	...base,
	kind: z.literal('splitter'),
	ways: z.number().int().min(2).max(16),
	lossDb: z.number().min(0).max(40)
});
const hub = z.object({
	...base,
	kind: z.literal('hub'),
	ports: z.number().int().min(2).max(16),
	/** Feeds its sockets from a supply of its own. */
	powered: z.boolean()
});
const holdUp = z.object({
	...base,
	kind: z.literal('hold-up'),
	wattHours: z.number().min(0.001).max(5000),
	/** Part of the charge that reaches the board. */
	efficiency: z.number().min(0.1).max(1),
	maxW: z.number().min(1).max(2000)
});
const networkAdapter = z.object({
	...base,
	kind: z.literal('network-adapter'),
	/** It brings a socket of so many Mbit/s; null: none. */
	wiredMbps: z.number().positive().nullable(),
	/** It brings Wi-Fi. */
	radio: z.boolean(),
	...radioShape
});
const soundAccessory = z.object({
	...base,
	kind: z.literal('sound-accessory'),
	does: lineText(160),
	/** Of what goes through it, dB. */
	lossDb: z.number().min(0).max(40).default(0)
});
const fileServer = z.object({ ...base, kind: z.literal('file-server'), mbps: z.number().min(1).max(100_000) });
const addOn = z.object({
	...base,
	kind: z.literal('add-on'),
	does: lineText(120),
	/** A clock that goes on without power. */
	keepsTime: z.boolean().default(false),
	bluetoothDbm
});
const kit = z.object({
	...base,
	kind: z.literal('kit'),
	contains: z.array(z.object({ part: z.string().min(1), count: z.number().int().min(1).max(20) })).min(1)
});

/** A part of any kind; the kind decides its fields. */
export const partSchema = z.discriminatedUnion('kind', [
	board,
	supply,
	lead,
	card,
	drive,
	converter,
	tuner,
	screen,
	videoAdapter,
	caseKind,
	cooler,
	fan,
	amplifier,
	speakers,
	antenna,
	splitter,
	hub,
	holdUp,
	networkAdapter,
	soundAccessory,
	fileServer,
	addOn,
	kit
]);
/** A part of the catalogue or the workshop. */
export type Part = z.infer<typeof partSchema>;
/** The name of a kind of part. */
export type PartKind = Part['kind'];
/** A part of one kind. */
export type PartOf<K extends PartKind> = Extract<Part, { kind: K }>;

/** Every kind in words, in the order of the drawer. */
export const KINDS: Readonly<Record<PartKind, string>> = {
	board: 'Boards',
	supply: 'Power supplies',
	lead: 'Cables and adapters',
	card: 'Memory cards',
	drive: 'Drives and sticks',
	converter: 'Outputs and converters',
	amplifier: 'Amplifiers',
	speakers: 'Speakers',
	screen: 'Screens',
	'video-adapter': 'Video adapters',
	tuner: 'Tuners',
	antenna: 'Antennas',
	splitter: 'Splitters',
	case: 'Cases',
	cooler: 'Heatsinks',
	fan: 'Fans',
	'sound-accessory': 'Sound accessories',
	'network-adapter': 'Network adapters',
	hub: 'USB hubs',
	'hold-up': 'Batteries and hold-up',
	'add-on': 'Header add-ons',
	'file-server': 'File servers',
	kit: 'Kits'
};

/** How sure one figure of a part is, and where it comes from. */
export const figureSource = (part: Part, field: string): { sure: Sureness; source: string } =>
	part.figures[field] ?? { sure: part.sure, source: part.source };
