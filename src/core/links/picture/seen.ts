import type { Shown } from '../../engines/machine/signals';
import type { VideoTiming } from '../../standards/videoTiming';
import type { BenchScreen } from './bench';
import { computeCadence, readRate, slipsASecond } from './modes/cadence';
import { rateOf } from './modes/modes';

/** A rectangle as parts of the screen, 0 to 1. */
export interface Part {
	readonly left: number;
	readonly top: number;
	readonly right: number;
	readonly bottom: number;
}

/** What somebody before the set sees. */
export interface Seen extends Shown {
	readonly mode: string;
	readonly widthPx: number;
	readonly heightPx: number;
	readonly refreshHz: number;
	/** Where the picture stands, before the set cuts. */
	readonly area: Part;
	/** What the set shows. */
	readonly window: Part;
	/** Of the picture, %. */
	readonly cutPercent: number;
	/** How far from upright, clockwise. */
	readonly turnedDeg: number;
	/** Frames a second that are really shown; null: a still. */
	readonly shownFps: number | null;
	readonly wantedFps: number | null;
	/** Visible slips a second. */
	readonly slipsPerSec: number;
	readonly bitsPerColour: number;
}

/** What the set shows of the whole. */
export const windowOf = ({ cuts }: Pick<BenchScreen, 'cuts'>): Part => ({
	left: cuts.left,
	top: cuts.top,
	right: 1 - cuts.right,
	bottom: 1 - cuts.bottom
});

/**
 * Where a picture of this size stands within margins, its shape kept: as large as fits, in the middle.
 * Source: mpv 0.35, video/out/aspect.c; measured on a real start.
 */
export function placed(
	picture: { readonly widthPx: number; readonly heightPx: number },
	mode: { readonly widthPx: number; readonly heightPx: number },
	{ turnDeg, margins, stretches }: { turnDeg: number; margins: Part; stretches: boolean }
): Part {
	const width = mode.widthPx * (1 - margins.left - margins.right);
	const height = mode.heightPx * (1 - margins.top - margins.bottom);
	const [across, down] =
		turnDeg % 180 === 0 ? [picture.widthPx, picture.heightPx] : [picture.heightPx, picture.widthPx];
	const scale = Math.min(width / across, height / down);
	const [w, h] = stretches ? [width, height] : [across * scale, down * scale];
	const left = margins.left + (width - w) / 2 / mode.widthPx;
	const top = margins.top + (height - h) / 2 / mode.heightPx;
	return { left, top, right: left + w / mode.widthPx, bottom: top + h / mode.heightPx };
}

/** How much of the picture lies outside of what the set shows, %. */
export function cutPercent(area: Part, window: Part): number {
	const overlap = (a0: number, a1: number, b0: number, b1: number): number =>
		Math.max(0, Math.min(a1, b1) - Math.max(a0, b0));
	const whole = (area.right - area.left) * (area.bottom - area.top);
	const shown =
		overlap(area.left, area.right, window.left, window.right) *
		overlap(area.top, area.bottom, window.top, window.bottom);
	// A rounding is no cut.
	return whole <= 0 ? 0 : Math.max(0, Number((100 * (1 - shown / whole)).toFixed(6)));
}

/** Slips that are seen, a second: none where frames divide evenly, or slip more seldom than anybody notices. */
export function slipsPerSec(fps: number | null, timing: VideoTiming): number {
	if (fps === null) return 0;
	const rate = readRate(String(fps));
	if (!rate.ok) return 0;
	return slipsASecond(computeCadence(rate.value, rateOf(timing)));
}
