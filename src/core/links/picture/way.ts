import { readEdid, fromBase64, type Edid } from '../../formats/edid';
import type { Context } from '../../link/context';
import { chosenParts } from '../../parts/chosen';
import type { PartOf } from '../../parts/schema';
import { hungEdges } from '../../standards/edges';
import type { DrawnScreen } from '../../standards/legibility';
import { refreshHzOf } from '../../standards/videoTiming';
import { readRate, type Rate } from './modes/cadence';
import { NO_EDGES } from './edges/overscan';
import { rankModes, type Candidate, type Hurdle, type ModeQuestion } from './modes/modes';
import type { ModeChoice, PictureSettings } from './settings';

/** By which kind of output the picture leaves the board. */
export type Output = 'digital' | 'ladder' | 'composite' | 'flat';

/** All that follows from the parts and settings, before anything is judged. */
export interface PictureWay {
	readonly screen: PartOf<'screen'> | null;
	readonly adapter: PartOf<'video-adapter'> | null;
	readonly board: PartOf<'board'> | null;
	readonly output: Output;
	readonly edid: Edid | null;
	readonly candidates: readonly Candidate[];
	/** The one that the card set asks for; null: none goes. */
	readonly chosen: Candidate | null;
	/** The person's own choice is none that is known. */
	readonly unknownChoice: boolean;
	/** What a browser's compositor takes, whatever is chosen: the mode that the screen marks; null: the player has the screen, or nobody knows. */
	readonly compositor: Candidate | null;
}

const REMEMBERED = 40;
const parsed = new Map<string, Edid | null>();
/** What the screen says, parsed once for the same text. */
export function edidOf(base64: string): Edid | null {
	if (base64 === '') return null;
	let edid = parsed.get(base64);
	if (edid === undefined) {
		const bytes = fromBase64(base64);
		const read = bytes.ok ? readEdid(bytes.value) : bytes;
		edid = read.ok ? read.value : null;
		if (parsed.size >= REMEMBERED) parsed.clear();
		parsed.set(base64, edid);
	}
	return edid;
}

/** A panel of no particular kind, until one is chosen. */
const ANY_PANEL = { widthPx: 1920, heightPx: 1080, refreshHz: 60 };

/** The panel's own pixels: by its EDID's preferred mode, else as its class has them. */
function panelOf(screen: PartOf<'screen'> | null, edid: Edid | null): ModeQuestion['panel'] {
	const own = edid?.modes.find(({ native }) => native)?.timing ?? edid?.preferred;
	if (screen) return screen;
	return own ? { widthPx: own.widthPx, heightPx: own.heightPx, refreshHz: refreshHzOf(own) } : ANY_PANEL;
}

/** What stands between the board's frames and the screen. */
export function wayThere(context: Context, output: Output): Hurdle[] {
	const board = context.part('board', context.facts.parts.board);
	const out: Hurdle[] = [];
	if (board && output === 'digital') out.push({ what: board.name, maxPixelClockMhz: board.displayMhz });
	for (const { part } of chosenParts(context)) {
		if (part.kind === 'lead' && part.carries.includes('picture') && part.maxPixelClockMhz !== null)
			out.push({ what: part.name, maxPixelClockMhz: part.maxPixelClockMhz });
		if (part.kind === 'video-adapter') out.push({ what: part.name, maxPixelClockMhz: part.maxPixelClockMhz });
	}
	return out;
}

/** The same, and what the screen itself says that it takes. */
function hurdlesOf(context: Context, output: Output, edid: Edid | null): Hurdle[] {
	const out = wayThere(context, output);
	const screenMhz = edid?.ranges?.maxPixelClockMhz ?? null;
	const tmdsMhz = edid?.cta?.hdmi?.maxTmdsMhz ?? null;
	const most = tmdsMhz === null ? screenMhz : Math.max(tmdsMhz, screenMhz ?? 0);
	if (most !== null) out.push({ what: edid?.name ?? 'The screen', maxPixelClockMhz: most + 5 });
	return out;
}

function outputOf(screen: PartOf<'screen'> | null, adapter: PartOf<'video-adapter'> | null): Output {
	if (adapter) return 'ladder';
	const plugs = screen?.sockets.filter(({ way }) => way === 'in').map(({ plug }) => plug) ?? [];
	if (plugs.includes('flat-display')) return 'flat';
	return plugs.includes('composite') && !plugs.includes('display') ? 'composite' : 'digital';
}

/** Frames a second of the hardest film as an exact rate. */
export function contentRate(context: Context): Rate | null {
	const { film } = context.facts;
	if (!film) return null;
	const rate = readRate(String(film.framesPerSec));
	return rate.ok ? rate.value : null;
}

const isChoice = (choice: ModeChoice, { timing }: Pick<Candidate, 'timing'>): boolean =>
	timing.widthPx === choice.widthPx &&
	timing.heightPx === choice.heightPx &&
	timing.interlaced === choice.interlaced &&
	// The kernel's own lists are good to a hundredth.
	Math.abs(refreshHzOf(timing) * 1000 - choice.milliHz) < 10;

/** A candidate as a setting. */
export const choiceOf = ({ timing }: Pick<Candidate, 'timing'>): ModeChoice => ({
	widthPx: timing.widthPx,
	heightPx: timing.heightPx,
	milliHz: Math.round(refreshHzOf(timing) * 1000),
	interlaced: timing.interlaced
});

const known = new WeakMap<PictureSettings, { context: readonly unknown[]; way: PictureWay }>();

/** Worked out once for the same settings among the same parts: claims, figures, findings and files all ask. */
export function pictureWay(settings: PictureSettings, context: Context): PictureWay {
	const { facts, drawer } = context;
	const by = [facts.parts, facts.film, facts.pageBrowser, drawer];
	const found = known.get(settings);
	if (found && by.every((one, n) => one === found.context[n])) return found.way;
	const way = findWay(settings, context);
	known.set(settings, { context: by, way });
	return way;
}

function findWay(settings: PictureSettings, context: Context): PictureWay {
	const { parts } = context.facts;
	const screen = context.part('screen', parts.screen);
	const adapter = chosenParts(context).flatMap(({ part }) => (part.kind === 'video-adapter' ? [part] : []))[0] ?? null;
	const output = outputOf(screen, adapter);
	const edid = edidOf(settings.edid);
	const candidates = rankModes({
		edid,
		ranges: settings.ranges ?? edid?.ranges ?? null,
		panel: panelOf(screen, edid),
		screen: edid?.name ?? screen?.name ?? 'the screen',
		hurdles: hurdlesOf(context, output, edid),
		toldBy:
			output === 'ladder' || output === 'flat'
				? 'device-tree'
				: output === 'composite'
					? 'composite'
					: settings.writesEdid
						? 'own-edid'
						: 'screen',
		content: contentRate(context)
	});
	const own = settings.mode && candidates.find((candidate) => isChoice(settings.mode!, candidate));
	const best = candidates.find(({ refused }) => refused.length === 0) ?? null;
	const compositor =
		context.facts.pageBrowser && edid && output === 'digital' && !settings.writesEdid
			? markedOf(edid, candidates, context.part('board', parts.board)?.displayMhz ?? Infinity)
			: null;
	return {
		screen,
		adapter,
		board: context.part('board', parts.board),
		output,
		edid,
		candidates,
		chosen: settings.mode ? (own ?? null) : compositor?.refused.length === 0 ? compositor : best,
		compositor,
		unknownChoice: settings.mode !== null && !own
	};
}

/** The mode that the screen prefers, else the first of the kernel's list; none that the board's output cannot make. Source: wlroots 0.15, wlr_output_preferred_mode(). */
function markedOf(edid: Edid, candidates: readonly Candidate[], boardMhz: number): Candidate | null {
	const made = candidates.filter(({ timing, from }) => from === 'edid' && timing.pixelClockKhz <= boardMhz * 1000);
	const { preferred } = edid;
	const marked = made.find(({ timing }) => preferred && isChoice(choiceOf({ timing: preferred }), { timing }));
	const area = ({ timing }: Candidate): number => timing.widthPx * timing.heightPx;
	return (
		marked ?? made.toSorted((a, b) => area(b) - area(a) || refreshHzOf(b.timing) - refreshHzOf(a.timing))[0] ?? null
	);
}

/** The panel's diagonal and shape, for what can be read on it; null until a screen is chosen. */
export const panelShape = ({
	screen
}: PictureWay): { diagonalIn: number; aspectWidth: number; aspectHeight: number } | null =>
	screen && { diagonalIn: screen.diagonalIn, aspectWidth: screen.widthPx, aspectHeight: screen.heightPx };

/** The upright screen, within the edges that the set cuts. */
export function drawnScreen(settings: PictureSettings, context: Context): DrawnScreen {
	const way = pictureWay(settings, context);
	const { widthPx, heightPx } = way.chosen?.timing ?? ANY_PANEL;
	const isAcross = settings.turn % 180 === 0;
	return {
		widthPx: isAcross ? widthPx : heightPx,
		heightPx: isAcross ? heightPx : widthPx,
		// The kernel's own margins hold for all that is drawn.
		edges: settings.edgesBy === 'kernel' ? NO_EDGES : hungEdges(settings.edges, settings.turn),
		turn: settings.turn,
		panel: panelShape(way),
		modeRows: heightPx,
		distanceM: settings.distanceM,
		reader: settings
	};
}
