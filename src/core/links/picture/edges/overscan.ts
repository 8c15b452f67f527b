import type { Edges } from '../../../standards/edges';
import { fault, type Fault, type Result } from '../../../basics/result';

/** No edge is cut. */
export const NO_EDGES: Edges = { left: 0, right: 0, top: 0, bottom: 0 };
/** The edges in the kernel's order. Source: the kernel's fb/modedb document. */
export const SIDES = ['left', 'right', 'top', 'bottom'] as const;
/** One of the four edges. */
export type Side = (typeof SIDES)[number];

/** A mode's size. */
export interface Size {
	readonly widthPx: number;
	readonly heightPx: number;
}

/** What is left of a mode within its margins. */
export interface ActiveArea extends Size {
	readonly leftPx: number;
	readonly topPx: number;
	/** Of all pixels, %. */
	readonly percent: number;
	/** How much wider the area is than the mode's own shape, %; negative: taller. */
	readonly aspectErrorPercent: number;
}

/** Whether any edge is cut. */
export const anyEdge = (edges: Edges): boolean => SIDES.some((side) => edges[side] > 0);

/** What is left when each edge takes its share. Call with margins that leave something: see `questionEdges`. */
export function activeArea({ widthPx, heightPx }: Size, { left, right, top, bottom }: Edges): ActiveArea {
	const width = widthPx - left - right;
	const height = heightPx - top - bottom;
	return {
		leftPx: left,
		topPx: top,
		widthPx: width,
		heightPx: height,
		percent: (100 * width * height) / (widthPx * heightPx),
		aspectErrorPercent: 100 * (width / height / (widthPx / heightPx) - 1)
	};
}

/** More than a set ever cuts from one side, as part of the mode. Sets cut 2 to 5 %, some 8. Typical. */
const MOST_PART = 0.12;
/** The picture is shifted rather than cut. Typical. */
const UNEVEN_PART = 0.04;
/** A circle looks round below this. Typical. */
const ROUND_PERCENT = 1.5;

/**
 * What is odd about a reading. `impossible` leaves no picture and is not taken; the rest may be right and is asked about: a slip of
 * the finger, a picture that is shifted rather than cut, a shape that is no longer true.
 */
export function questionEdges(size: Size, edges: Edges): Fault[] {
	const faults: Fault[] = [];
	const across = edges.left + edges.right;
	const down = edges.top + edges.bottom;
	if (across >= size.widthPx || down >= size.heightPx) {
		const [what, cut, of] =
			across >= size.widthPx ? ['left and right', across, size.widthPx] : ['top and bottom', down, size.heightPx];
		return [
			{
				code: 'impossible',
				message: `${what[0]!.toUpperCase()}${what.slice(1)} together cut ${cut} of ${of} pixels: nothing would be left. Read them again.`
			}
		];
	}
	for (const side of SIDES) {
		const whole = side === 'left' || side === 'right' ? size.widthPx : size.heightPx;
		if (edges[side] > whole * MOST_PART)
			faults.push({
				code: 'much',
				where: side,
				message: `${edges[side]} pixels at the ${side} are ${((100 * edges[side]) / whole).toFixed(0)}\u2009% of the picture; sets cut 2 to 5\u2009%. Is a digit too many, or another picture shape chosen on the set?`
			});
	}
	if (faults.length > 0) return faults;
	for (const [first, second, whole] of [
		['left', 'right', size.widthPx],
		['top', 'bottom', size.heightPx]
	] as const)
		if (Math.abs(edges[first] - edges[second]) > whole * UNEVEN_PART)
			faults.push({
				code: 'uneven',
				where: first,
				message: `${first[0]!.toUpperCase()}${first.slice(1)} and ${second} differ by ${Math.abs(edges[first] - edges[second])} pixels: the picture is shifted rather than cut. Look for a position setting on the set first.`
			});
	const { aspectErrorPercent } = activeArea(size, edges);
	if (anyEdge(edges) && Math.abs(aspectErrorPercent) > ROUND_PERCENT)
		faults.push({
			code: 'shape',
			message: `What is left is ${Math.abs(aspectErrorPercent).toFixed(1)}\u2009% too ${aspectErrorPercent > 0 ? 'wide' : 'tall'}: where the picture is stretched to it, circles show it. The player keeps the shape and leaves a narrow bar instead.`
		});
	return faults;
}

/** Readings as margins, where they leave a picture. The reading is the first visible count, so the number of hidden pixels. */
export function computeMargins(size: Size, edges: Edges): Result<ActiveArea> {
	const impossible = questionEdges(size, edges).find(({ code }) => code === 'impossible');
	if (impossible) return { ok: false, faults: [impossible] };
	if (SIDES.some((side) => edges[side] < 0 || !Number.isInteger(edges[side])))
		return fault('no-count', 'An edge is a whole number of pixels, 0 or more.');
	return { ok: true, value: activeArea(size, edges) };
}

/** The kernel's argument for one connector. Source: Documentation/fb/modedb.rst. */
export interface KernelVideo {
	readonly connector: string;
	/** null: what the screen prefers. */
	readonly mode: (Size & { readonly refreshHz: number | null; readonly interlaced: boolean }) | null;
	readonly edges?: Edges;
	/** Switched on even where nothing is found at the connector. */
	readonly forced?: boolean;
	/** Quarter turns clockwise of what the console shows. */
	readonly rotateDeg?: number;
}

/** `video=` without its name: connector, mode in whole Hz, for the kernel reads no fraction, then options in its order; null: it would say nothing. */
export function kernelVideo(video: KernelVideo): string | null {
	const { connector, mode, edges = NO_EDGES, forced, rotateDeg = 0 } = video;
	const size = mode
		? `${mode.widthPx}x${mode.heightPx}${mode.refreshHz === null ? '' : `@${mode.refreshHz}`}${mode.interlaced ? 'i' : ''}`
		: '';
	const parts = [
		`${size}${forced ? 'D' : ''}`,
		...(anyEdge(edges) ? SIDES.map((side) => `margin_${side}=${edges[side]}`) : []),
		...(rotateDeg === 0 ? [] : [`rotate=${rotateDeg}`])
	].filter(Boolean);
	return parts.length === 0 ? null : `${connector}:${parts.join(',')}`;
}
