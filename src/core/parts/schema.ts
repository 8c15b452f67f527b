import { z } from 'zod';
import { lineText } from '../basics/text';
import { CARGO } from './plugs';
import {
	end,
	drawSchema,
	base,
	radioShape,
	bluetoothDbm,
	type Sureness,
	playbackSchema,
	videoShapeSchema
} from './common';

export * from './common';

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
