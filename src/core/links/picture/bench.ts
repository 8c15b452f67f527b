import { z } from 'zod';
import { writeEdid, toBase64 } from '../../formats/edid';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link/context';
import { videoShapeSchema, type PartOf } from '../../parts/schema';
import { dmtById } from '../../standards/dmtTable';
import { vicTiming } from '../../standards/vicTable';
import { computeTiming } from '../../standards/computedTimings';
import type { VideoTiming } from '../../standards/videoTiming';
import { pictureMm } from '../../standards/legibility';
import { COMPOSITE, isLeftOff } from './modes/composite';
import { anyEdge } from './edges/overscan';
import type { PictureSettings } from './settings';
import { goesDark } from '../../onAir/followed';
import { socketOf } from './switching/switching';
import { panelShape, pictureWay, wayThere, type PictureWay } from './way';

const part = z.number().min(0).max(0.4);
const screen = z.object({
	name: z.string(),
	connector: z.string(),
	/** Its own word, as base64; "": it says nothing, or its lead carries none of it. */
	edid: z.string(),
	/** What it really follows; null: only what it announces. */
	ranges: z.object({ hMinKhz: z.number(), hMaxKhz: z.number(), vMinHz: z.number(), vMaxHz: z.number() }).nullable(),
	/** The one timing that its own driver gives the connector; null: it is found out from the screen, or stands on the card. */
	fixed: z
		.object({
			widthPx: z.number(),
			heightPx: z.number(),
			interlaced: z.boolean(),
			pixelClockKhz: z.number(),
			hSyncStart: z.number(),
			hSyncEnd: z.number(),
			hTotal: z.number(),
			vSyncStart: z.number(),
			vSyncEnd: z.number(),
			vTotal: z.number(),
			hSyncPositive: z.boolean(),
			vSyncPositive: z.boolean()
		})
		.nullable(),
	/** The fastest clock that cable and adapter let through. */
	wayMhz: z.number().positive(),
	/** The fastest that the output's driver has: what is above it, the kernel does not list. */
	outputMhz: z.number().positive().default(2000),
	/** What it cuts off each edge, as part of the whole. */
	cuts: z.object({ left: part, right: part, top: part, bottom: part }),
	/** How it hangs: the turn, clockwise, at which a picture stands upright. */
	hangsDeg: z.number(),
	/** From the first signal to light, ms. */
	wakesMs: z.number().min(0),
	/** What it does when its mains return. */
	afterCut: z.enum(['comes-on', 'stays-off']).default('comes-on'),
	/** CEC gets to it, and it obeys. */
	hearsCec: z.boolean().default(true),
	/** The GPIO line of the socket that it is plugged into; null: it hangs on the wall. */
	socketLine: z.number().int().nullable().default(null),
	/** Bits a colour that reach it. */
	bitsPerColour: z.number().int().min(1).max(16)
});
/** The set as it really is. */
export type BenchScreen = z.infer<typeof screen>;

const decoding = z.object({ decoders: z.array(videoShapeSchema), softwareMpixPerSec: z.number().min(0) });

declare module '../../engines/machine/bench' {
	interface Bench {
		screen: BenchScreen | null;
		/** The address of a phone in the same network. */
		phoneAt: string;
		/** What the board decodes, by circuit and by program; null: as much as is wanted. */
		decoding: z.infer<typeof decoding> | null;
	}
}
/** What a rehearsal knows of the screen and of decoding. */
export const pictureBenchShape = {
	screen: screen.nullable().default(null),
	phoneAt: z.string().default('192.168.1.50'),
	decoding: decoding.nullable().default(null)
};

/** What a way of unknown parts lets through: anything. */
const FASTEST_MHZ = 2000;

/** A set's own way with its edges when nobody has read them yet: between 2 and 4 % of each side, the same for the same set. */
function hiddenCuts(id: string): BenchScreen['cuts'] {
	let hash = 0x811c9dc5;
	for (const character of id) hash = Math.imul(hash ^ character.charCodeAt(0), 0x01000193) >>> 0;
	const cut = (shift: number): number => Number((0.02 + (((hash >>> shift) & 0xff) / 0xff) * 0.02).toFixed(4));
	return { left: cut(0), right: cut(8), top: cut(16), bottom: cut(24) };
}
const NO_CUTS: BenchScreen['cuts'] = { left: 0, right: 0, top: 0, bottom: 0 };

/** Modes that a set of this size is likely to have, its own first; a monitor has none but at 60 Hz. */
function likelyModes({ widthPx, heightPx, speakers }: PartOf<'screen'>): VideoTiming[] {
	const vics = (...codes: number[]): VideoTiming[] => codes.map((vic) => vicTiming(vic)!.timing);
	const known: Readonly<Record<string, readonly VideoTiming[]>> = {
		'3840x2160': vics(97, 95, 93, 16, 31),
		'1920x1080': speakers ? vics(16, 31, 4, 19) : vics(16, 4),
		'1280x720': vics(4, 19),
		'1366x768': [dmtById(0x51)!.timing, ...vics(4, 19)],
		'1280x1024': [dmtById(0x23)!.timing, dmtById(0x10)!.timing, dmtById(0x09)!.timing]
	};
	const own = computeTiming('cvt-rb', { widthPx, heightPx, refreshHz: 60 });
	return [...(known[`${widthPx}x${heightPx}`] ?? (own.ok ? [own.value] : []))];
}

/** What a tube follows: the fields that it is made for, whatever the lines. */
const tubeRanges = ({ refreshHz }: PartOf<'screen'>): BenchScreen['ranges'] => ({
	hMinKhz: 15.2,
	hMaxKhz: 16.2,
	vMinHz: refreshHz - 1,
	vMaxHz: refreshHz + 1
});

/** What the maker's driver of a flat panel sends it: its own size, about 60 times a second. */
function flatTiming({ widthPx, heightPx }: PartOf<'screen'>): VideoTiming | null {
	const timing = computeTiming('cvt-rb', { widthPx, heightPx, refreshHz: 60 });
	return timing.ok ? timing.value : null;
}

/** The word of a set that nobody has read yet, as its class would say it. */
function likelyEdid(way: PictureWay): string {
	const { screen: part } = way;
	const panel = panelShape(way);
	if (!part || !panel || way.output !== 'digital') return '';
	const { widthMm, heightMm } = pictureMm(panel);
	const bytes = writeEdid({
		name: 'SET ON BENCH',
		widthMm: Math.round(widthMm),
		heightMm: Math.round(heightMm),
		modes: likelyModes(part),
		sound: part.speakers ? { channels: 2, ratesHz: [32_000, 44_100, 48_000], bits: [16] } : null,
		year: 2020
	});
	return bytes.ok ? toBase64(bytes.value) : '';
}

/** The set of the plan: with its own word where that was read, else with one as its class would have. */
export function pictureBench(settings: PictureSettings, context: Context): Partial<Bench> {
	const way = pictureWay(settings, context);
	const { screen: part, board, adapter, chosen } = way;
	const phoneAt = context.venue.lan ? { phoneAt: context.venue.lan.poolFrom } : {};
	// Where the device tree leaves the yellow socket off, there is no connector that a set could hang on.
	if (!part || (way.output === 'composite' && board && isLeftOff(board))) return phoneAt;
	const { left, right, top, bottom } = settings.edges;
	const mode = chosen?.timing ?? part;
	return {
		...phoneAt,
		screen: {
			name: part.name,
			connector: way.output === 'composite' ? COMPOSITE : settings.connector,
			edid: settings.edid || likelyEdid(way),
			ranges: settings.ranges ?? (way.output === 'composite' ? tubeRanges(part) : null),
			fixed: way.output === 'flat' ? flatTiming(part) : null,
			wayMhz: Math.min(FASTEST_MHZ, ...wayThere(context, way.output).map(({ maxPixelClockMhz }) => maxPixelClockMhz)),
			outputMhz: board && way.output === 'digital' ? board.displayMhz : FASTEST_MHZ,
			cuts: !part.cutsEdges
				? NO_CUTS
				: anyEdge(settings.edges)
					? {
							left: left / mode.widthPx,
							right: right / mode.widthPx,
							top: top / mode.heightPx,
							bottom: bottom / mode.heightPx
						}
					: settings.wholePicture === 'on'
						? NO_CUTS
						: hiddenCuts(part.id),
			hangsDeg: settings.turn,
			wakesMs: part.panel === 'projector' ? 20_000 : part.panel === 'tube' ? 8000 : 3000,
			// Televisions wait for their button, monitors go on: typical, until somebody has tried.
			afterCut: settings.afterCut === 'untried' ? (part.speakers ? 'stays-off' : 'comes-on') : settings.afterCut,
			hearsCec: way.output === 'digital',
			socketLine: goesDark(settings) && settings.offBy === 'socket' ? (socketOf(context)?.line ?? null) : null,
			bitsPerColour: adapter?.bitsPerColour ?? 8
		},
		decoding: board && { decoders: board.decoders, softwareMpixPerSec: board.softwareMpixPerSec }
	};
}
