import { z } from 'zod';
import { MOST_BYTES } from '../../formats/edid';
import { controlSchema } from './controls/controls';
import { lineText, timeOfDay } from '../../basics/text';

const pixels = z.number().int().min(0).max(2000);
const khz = z.number().min(1).max(1000);

/** A mode as a person chooses it; rates in thousandths of a hertz, so that 59.940 and 60.000 are two. */
const modeChoice = z.object({
	widthPx: z.number().int().min(64).max(8192),
	heightPx: z.number().int().min(64).max(8192),
	milliHz: z.number().int().min(1000).max(500_000),
	interlaced: z.boolean()
});
/** A mode as a person chooses it. */
export type ModeChoice = z.infer<typeof modeChoice>;

/** What the label of an old monitor says of the rates that it follows. */
const labelRanges = z
	.object({ hMinKhz: khz, hMaxKhz: khz, vMinHz: khz, vMaxHz: khz })
	.refine(
		({ hMinKhz, hMaxKhz, vMinHz, vMaxHz }) => hMinKhz <= hMaxKhz && vMinHz <= vMaxHz,
		'The lowest rate is above the highest.'
	);

/** The schema of the picture's slice of a plan. */
export const pictureSettings = z.object({
	/** Off: nothing is shown. */
	used: z.boolean(),
	/** As the kernel calls it: "HDMI-A-1". */
	connector: lineText(20).regex(
		/^[A-Za-z]+(?:-[A-Z])?-\d{1,2}$/,
		'A connector is called as in /sys/class/drm, such as HDMI-A-1.'
	),
	/** What the screen says of itself, as base64; "": nobody has read it. */
	edid: z
		.string()
		.max(Math.ceil((MOST_BYTES * 4) / 3))
		.regex(/^[A-Za-z0-9+/]*={0,2}$/, 'This is no base64.'),
	ranges: labelRanges.nullable(),
	/** null: the one that suits best. */
	mode: modeChoice.nullable(),
	/** The card brings an EDID of ours, which the kernel takes for the screen's own. */
	writesEdid: z.boolean(),
	/** What becomes of a screen that is off when the board starts. */
	whenOff: z.enum(['force', 'restart']),
	/** Quarter turns of the picture on its panel, clockwise. */
	turn: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
	/** Whether the set has a setting that shows the whole picture. */
	wholePicture: z.enum(['untried', 'none', 'on']),
	/** What the set cuts off, in pixels of the mode. */
	edges: z.object({ left: pixels, right: pixels, top: pixels, bottom: pixels }),
	/** Who leaves the edges free. */
	edgesBy: z.enum(['player', 'kernel']),
	/** The player draws with the graphics unit, or plainly with the processor. */
	draws: z.enum(['gpu', 'plain']),
	/** Levels of black and white; auto: as the player finds them. */
	levels: z.enum(['auto', 'full', 'limited']),
	/** How long each still picture stands, s. */
	stillSec: z.number().int().min(1).max(86_400),
	/** Nothing of the boot is seen, and the console goes dark after so many minutes; 0: never. */
	hidesBoot: z.boolean(),
	blankMin: z.number().int().min(0).max(60),
	/** When it is on; null: always. */
	hours: z.object({ from: timeOfDay, until: timeOfDay }).nullable(),
	/** It is off too while by the programme nothing is on. */
	darkWhileResting: z.boolean(),
	offBy: z.enum(['cec', 'signal', 'socket']),
	/** What the set does when mains comes back. */
	afterCut: z.enum(['untried', 'comes-on', 'stays-off']),
	/** What stands still moves by a few pixels now and then, so that its edges do not wear into the panel. */
	shifts: z.boolean(),
	/** What is asked for by which key; none: nobody drives it. */
	controls: z.array(controlSchema).max(24),
	/** The page for a phone asks for a password. */
	phonePassword: z.boolean(),
	/** From where it is read, by whom, in what light. */
	distanceM: z.number().min(0.2).max(100),
	eyes: z.enum(['good', 'usual', 'weak']),
	light: z.enum(['dim', 'room', 'bright', 'daylight']),
	angleDeg: z.number().min(0).max(75)
});
/** The picture's slice of a plan. */
export type PictureSettings = z.infer<typeof pictureSettings>;

/** What a new plan begins with. */
export const calmPicture: PictureSettings = {
	used: false,
	connector: 'HDMI-A-1',
	edid: '',
	ranges: null,
	mode: null,
	writesEdid: false,
	whenOff: 'force',
	turn: 0,
	wholePicture: 'untried',
	edges: { left: 0, right: 0, top: 0, bottom: 0 },
	edgesBy: 'player',
	draws: 'plain',
	levels: 'auto',
	stillSec: 12,
	hidesBoot: true,
	blankMin: 0,
	hours: null,
	darkWhileResting: false,
	offBy: 'cec',
	afterCut: 'untried',
	shifts: false,
	controls: [],
	phonePassword: false,
	distanceM: 2.5,
	eyes: 'usual',
	light: 'room',
	angleDeg: 0
};
