import { computeTiming } from '../../../standards/computedTimings';
import { DMT } from '../../../standards/dmtTable';
import { hSyncKhzOf, refreshHzOf, type VideoTiming } from '../../../standards/videoTiming';
import { VICS } from '../../../standards/vicTable';
import type { Edid, EdidRanges } from '../../../formats/edid';
import { kernelTiming } from '../../../standards/kernelTimings';
import { TV_TIMING } from './composite';
import { cadenceWords, computeCadence, stutters, type Cadence, type Rate } from './cadence';

/** What a picture has to pass, and where it ends. */
export interface Hurdle {
	/** In a person's words: "HDMI cable, 10 m". */
	readonly what: string;
	readonly maxPixelClockMhz: number;
}

/** All that decides which modes go, and which is best. */
export interface ModeQuestion {
	readonly edid: Edid | null;
	/** Of the screen's label, or of its EDID. */
	readonly ranges: Omit<EdidRanges, 'maxPixelClockMhz'> | null;
	/** The panel's own pixels. */
	readonly panel: { readonly widthPx: number; readonly heightPx: number; readonly refreshHz: number };
	readonly screen: string;
	readonly hurdles: readonly Hurdle[];
	/** Frames a second of what is to be shown; null: stills and text. */
	readonly content: Rate | null;
	/** Who tells the kernel which modes there are: the screen or a person's word of it, an EDID of ours, or the device tree, which gives one. */
	readonly toldBy: 'screen' | 'own-edid' | 'device-tree' | 'composite';
}

/** Where a mode comes from, in the order in which a person trusts it; `own`: the one that the screen itself prefers, its size by its class. */
export type ModeSource = 'edid' | 'own' | 'table' | 'computed';

/** A mode with everything that is to be said of it. */
export interface Candidate {
	readonly timing: VideoTiming;
	readonly from: ModeSource;
	/** The connector has it, and the screen takes it: as far as parts and labels are right. */
	readonly certain: boolean;
	/** Why it does not go, each with by how much and because of which part; none: it goes. */
	readonly refused: readonly string[];
	readonly cadence: Cadence | null;
	/** It has the panel's own pixels. */
	readonly native: boolean;
	/** Higher is better. */
	readonly score: number;
	/** What speaks for and against it, in words. */
	readonly reasons: readonly string[];
}

const MHZ = 1000;
/** The 1000/1001 rates that the kernel adds to each video code of 24, 30, 60 Hz and so on. Source: Linux 6.1, drm_edid.c, add_alternate_cea_modes(). */
const alternate = (timing: VideoTiming): VideoTiming | null =>
	Math.round(refreshHzOf(timing)) % 6 === 0 && Number.isInteger(Math.round(refreshHzOf(timing) * 1000) / 1000)
		? { ...timing, pixelClockKhz: Math.round((timing.pixelClockKhz * 1000) / 1001) }
		: null;

/** Two timings that a person would take for one mode. */
const keyOf = (timing: VideoTiming): string =>
	`${timing.widthPx}x${timing.heightPx}${timing.interlaced ? 'i' : ''}@${refreshHzOf(timing).toFixed(2)}`;

/** Numbers of the modes that send each pixel twice: the kernel names them by what is drawn. Source: Linux 6.1, drm_edid.c, DRM_MODE_FLAG_DBLCLK. */
const SENT_TWICE = new Set([6, 7, 8, 9, 21, 22, 23, 24, 44, 45, 50, 51, 54, 55, 58, 59]);
const halfAsWide = (timing: VideoTiming): VideoTiming => ({
	...timing,
	widthPx: timing.widthPx / 2,
	pixelClockKhz: timing.pixelClockKhz / 2,
	hSyncStart: timing.hSyncStart / 2,
	hSyncEnd: timing.hSyncEnd / 2,
	hTotal: timing.hTotal / 2
});

type Possible = readonly [timing: VideoTiming, from: ModeSource, certain: boolean];
const hasSize =
	({ widthPx, heightPx }: Pick<VideoTiming, 'widthPx' | 'heightPx'>) =>
	({ timing }: { readonly timing: VideoTiming }): boolean =>
		timing.widthPx === widthPx && timing.heightPx === heightPx && !timing.interlaced;
const near = (hz: number, timing: VideoTiming): boolean => Math.abs(refreshHzOf(timing) - hz) < 0.6;
const FULL_HD = { widthPx: 1920, heightPx: 1080 };
/** What every connector has whose screen says nothing. Source: Linux 6.1, drm_edid.c, drm_add_modes_noedid(). */
const isKernelsOwn = ({ widthPx, heightPx, interlaced, ...timing }: VideoTiming): boolean =>
	widthPx <= 1024 && heightPx <= 768 && !interlaced && refreshHzOf({ ...timing, interlaced }) < 61;

/** Modes to choose from: what the screen says, else what may be expected of its class, or what a label allows. */
function* possible(question: ModeQuestion): Generator<Possible> {
	const { edid, ranges, panel, toldBy } = question;
	if (edid) {
		for (const { timing: sent, vic, from } of edid.modes) {
			const timing = from === 'vic' && vic !== undefined && SENT_TWICE.has(vic) ? halfAsWide(sent) : sent;
			yield [timing, 'edid', true];
			const other = vic === undefined ? null : alternate(timing);
			if (other) yield [other, 'edid', true];
		}
		return;
	}
	if (toldBy === 'composite') return yield [TV_TIMING, 'table', true];
	if (toldBy !== 'device-tree' && !ranges) return yield* expected(question);
	const isTold = toldBy !== 'screen';
	for (const { timing } of isTold ? [...VICS.filter(hasSize(panel)), ...DMT] : DMT)
		if ((isTold || isKernelsOwn(timing)) && (ranges || near(60, timing))) yield [timing, 'table', true];
	for (const method of ['cvt-rb', 'cvt'] as const) {
		const wanted = { ...panel, refreshHz: method === 'cvt-rb' ? 60 : Math.round(panel.refreshHz) };
		const timing = isTold ? computeTiming(method, wanted) : kernelTiming({ ...wanted, interlaced: false, by: method });
		if (timing.ok) yield [timing.value, 'computed', true];
	}
}

/** Of a screen that nobody has asked: its own size at about 60 Hz, which it prefers itself; and what many of its class have besides. */
function* expected({ panel, toldBy }: ModeQuestion): Generator<Possible> {
	const listed = [...VICS, ...DMT]
		.map(({ timing }) => timing)
		.find((timing) => hasSize(panel)({ timing }) && near(60, timing));
	const formula = kernelTiming({ ...panel, refreshHz: 60, interlaced: false, by: 'cvt-rb' });
	// What an EDID of ours says is clocked out as it stands there: of a size in no table nobody knows how the screen wants it.
	if (listed) yield [listed, 'own', true];
	else if (formula.ok) yield [formula.value, 'own', toldBy === 'screen'];
	for (const size of panel.heightPx > FULL_HD.heightPx && panel.widthPx > FULL_HD.widthPx ? [panel, FULL_HD] : [panel])
		for (const { timing } of VICS.filter(hasSize(size))) {
			if (near(60, timing)) {
				if (size === FULL_HD) yield [timing, 'table', true];
				yield [alternate(timing) ?? timing, 'table', false];
			} else if (near(50, timing)) yield [timing, 'table', false];
		}
}

/** The exact rate of a timing. */
export const rateOf = ({ pixelClockKhz, hTotal, vTotal, interlaced }: VideoTiming): Rate => ({
	num: Math.round(pixelClockKhz * 1000) * (interlaced ? 2 : 1),
	den: hTotal * vTotal
});

function refusals(timing: VideoTiming, { ranges, hurdles, panel, screen, edid }: ModeQuestion): string[] {
	const out: string[] = [];
	const clockMhz = timing.pixelClockKhz / MHZ;
	for (const { what, maxPixelClockMhz } of hurdles)
		if (clockMhz > maxPixelClockMhz + 0.005)
			out.push(`${what} ends at ${maxPixelClockMhz}\u2009MHz, ${(clockMhz - maxPixelClockMhz).toFixed(1)} too few`);
	const hz = refreshHzOf(timing);
	const khz = hSyncKhzOf(timing);
	if (ranges && !edid) {
		if (khz > ranges.hMaxKhz + 0.5 || khz < ranges.hMinKhz - 0.5)
			out.push(`${khz.toFixed(1)}\u2009kHz; ${screen} follows ${ranges.hMinKhz} to ${ranges.hMaxKhz}`);
		if (hz > ranges.vMaxHz + 0.5 || hz < ranges.vMinHz - 0.5)
			out.push(`${hz.toFixed(1)}\u2009Hz; ${screen} follows ${ranges.vMinHz} to ${ranges.vMaxHz}`);
	}
	if (!edid && (timing.widthPx > panel.widthPx || timing.heightPx > panel.heightPx))
		out.push(`${screen} has ${panel.widthPx} × ${panel.heightPx} pixels`);
	return out;
}

/** How many points each virtue is worth: the panel's own pixels first, then an even film, then a mode that others made. */
const WORTH = {
	native: 400,
	even: 250,
	nearlyEven: 200,
	size: 200,
	progressive: 100,
	shape: 60,
	usual: 20,
	edid: 30,
	own: 30,
	table: 30,
	computed: 0
} as const;

function judge(timing: VideoTiming, question: ModeQuestion, cadence: Cadence | null): [number, string[]] {
	const { panel, edid } = question;
	const reasons: string[] = [];
	let score = 0;
	const native = timing.widthPx === panel.widthPx && timing.heightPx === panel.heightPx;
	if (native) {
		score += WORTH.native;
		reasons.push('the panel\u2019s own pixels');
	} else {
		const share = (timing.widthPx * timing.heightPx) / (panel.widthPx * panel.heightPx);
		score += WORTH.size * Math.min(share, 1 / share);
		reasons.push(
			share < 1
				? `text ${(panel.heightPx / timing.heightPx).toFixed(1)} times coarser`
				: 'more pixels than the panel has, so the set shrinks it'
		);
		if (Math.abs(timing.widthPx / timing.heightPx / (panel.widthPx / panel.heightPx) - 1) < 0.02) score += WORTH.shape;
		else reasons.push('another shape than the panel');
	}
	if (timing.interlaced) reasons.push('interlaced: fine lines flicker');
	else score += WORTH.progressive;
	if (cadence) {
		if (!stutters(cadence)) score += cadence.irregularSeconds === null ? WORTH.even : WORTH.nearlyEven;
		reasons.push(cadenceWords(cadence));
	} else if (Math.abs(refreshHzOf(timing) - 60) < 0.2) score += WORTH.usual;
	if (edid?.preferred && keyOf(edid.preferred) === keyOf(timing)) {
		score += WORTH.usual;
		reasons.push('preferred by the screen');
	}
	// Below that many sets take a mode for films alone, and what moves besides stutters.
	if (refreshHzOf(timing) > 47) score += WORTH.usual;
	// Of two alike the calmer.
	return [score - timing.pixelClockKhz / 1e6, reasons];
}

/** Every mode that comes into question, the best first; those that do not go stand last, with why. */
export function rankModes(question: ModeQuestion): Candidate[] {
	const { panel, content } = question;
	const seen = new Map<string, Candidate>();
	for (const [timing, from, certain] of possible(question)) {
		const key = keyOf(timing);
		if (seen.has(key)) continue;
		const cadence = content ? computeCadence(content, rateOf(timing)) : null;
		const [worth, reasons] = judge(timing, question, cadence);
		const score = worth + WORTH[from];
		seen.set(key, {
			timing,
			from,
			certain,
			cadence,
			score,
			reasons: certain ? reasons : ['many of its class have it, not all', ...reasons],
			refused: refusals(timing, question),
			native: timing.widthPx === panel.widthPx && timing.heightPx === panel.heightPx
		});
	}
	return withoutTwins([...seen.values()]).sort(
		(a, b) =>
			Number(a.refused.length > 0) - Number(b.refused.length > 0) ||
			Number(b.certain) - Number(a.certain) ||
			b.score - a.score
	);
}

/** An interlaced mode cannot be had where the list has the same size and rate without: the player, and the kernel, look at nothing else. */
function withoutTwins(candidates: readonly Candidate[]): Candidate[] {
	const rate = ({ timing }: Candidate): string =>
		`${timing.widthPx}x${timing.heightPx}@${refreshHzOf(timing).toFixed(2)}`;
	const whole = new Set(candidates.filter(({ timing }) => !timing.interlaced).map(rate));
	return candidates.map((one) =>
		one.timing.interlaced && whole.has(rate(one))
			? {
					...one,
					refused: [...one.refused, 'the player takes the one that is not interlaced, of the same size and rate']
				}
			: one
	);
}
