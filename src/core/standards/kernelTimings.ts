import { fault, ok, type Result } from '../basics/result';
import type { VideoTiming } from './videoTiming';

/** A mode that the kernel is asked for by `video=`, in whole numbers as it reads them. */
export interface KernelWish {
	readonly widthPx: number;
	readonly heightPx: number;
	readonly refreshHz: number;
	readonly interlaced: boolean;
	/** By CVT, by that with reduced blanking, or by GTF, which it takes where nothing is said. */
	readonly by: 'cvt' | 'cvt-rb' | 'gtf';
}

const CELL_PX = 8;
/** Time for sync and back porch, and for all of reduced blanking, ns. */
const SYNC_AND_BACK_NS = 550_000;
const REDUCED_BLANK_NS = 460_000;
/** Lines before the sync: CVT, GTF. */
const CVT_FRONT_LINES = 3;
const GTF_FRONT_LINES = 1;
const CVT_BACK_LINES = 6;
const GTF_SYNC_LINES = 3;
/** Below this the blanking takes a fifth of a line; in thousandths of a per cent, as all parts of a line here. */
const LEAST_DUTY = 20_000;
const WHOLE = 100_000;

/** All divisions of the kernel's leave the rest. */
const div = (value: number, by: number): number => Math.floor(value / by);
const downTo = (value: number, step: number): number => value - (value % step);

/** Lines of sync, by which a receiver tells the shape; ten where the shape is none of the usual. */
function syncLines({ widthPx, heightPx }: KernelWish): number {
	const isShape = (part: number, across: number, down: number): boolean =>
		heightPx % part === 0 && div(heightPx * across, down) === widthPx;
	if (isShape(3, 4, 3)) return 4;
	if (isShape(9, 16, 9)) return 5;
	if (isShape(10, 16, 10)) return 6;
	return isShape(4, 5, 4) || isShape(9, 15, 9) ? 7 : 10;
}

/** A field as it is counted on: half of an interlaced picture, twice as often. */
const fieldOf = ({ heightPx, refreshHz, interlaced }: KernelWish): { lines: number; hz: number; half: number } =>
	interlaced ? { lines: div(heightPx, 2), hz: refreshHz * 2, half: 1 } : { lines: heightPx, hz: refreshHz, half: 0 };

/** The clock comes of the line's whole nanoseconds and is rounded to no step: the kernel takes the rest of a clock that it has not set yet. */
const clockKhz = (hTotal: number, lineNs: number): number => div(hTotal * 1e6, lineNs);

function cvt(wish: KernelWish): VideoTiming | null {
	const { lines, hz, half } = fieldOf(wish);
	const sync = syncLines(wish);
	const widthPx = downTo(wish.widthPx, CELL_PX);
	const lineNs = div((1e9 - SYNC_AND_BACK_NS * hz) * 2, ((lines + CVT_FRONT_LINES) * 2 + half) * hz);
	const syncAndBack = Math.max(div(SYNC_AND_BACK_NS, lineNs) + 1, sync + CVT_FRONT_LINES);
	const duty = 30_000 - div(300 * lineNs, 1000);
	// A line of more than 100 µs makes it negative, which the kernel reads as four thousand million.
	if (duty < 0) return null;
	const part = Math.max(LEAST_DUTY, duty);
	const blank = downTo(div(widthPx * part, WHOLE - part), 2 * CELL_PX);
	const hTotal = widthPx + blank;
	const hSyncEnd = widthPx + blank / 2;
	const start = hSyncEnd - div(hTotal * 8, 100);
	return {
		...framed(wish, lines + syncAndBack + CVT_FRONT_LINES),
		widthPx,
		pixelClockKhz: clockKhz(hTotal, lineNs),
		hSyncStart: start + CELL_PX - (start % CELL_PX),
		hSyncEnd,
		hTotal,
		vSyncStart: wish.heightPx + CVT_FRONT_LINES,
		vSyncEnd: wish.heightPx + CVT_FRONT_LINES + sync
	};
}

function reduced(wish: KernelWish): VideoTiming {
	const { lines, hz } = fieldOf(wish);
	const sync = syncLines(wish);
	const widthPx = downTo(wish.widthPx, CELL_PX);
	const lineNs = div(1e9 - REDUCED_BLANK_NS * hz, lines * hz);
	const blankLines = Math.max(div(REDUCED_BLANK_NS, lineNs) + 1, CVT_FRONT_LINES + sync + CVT_BACK_LINES);
	const hTotal = widthPx + 160;
	return {
		...framed(wish, lines + blankLines),
		widthPx,
		pixelClockKhz: clockKhz(hTotal, lineNs),
		hSyncStart: widthPx + 48,
		hSyncEnd: widthPx + 80,
		hTotal,
		vSyncStart: wish.heightPx + CVT_FRONT_LINES,
		vSyncEnd: wish.heightPx + CVT_FRONT_LINES + sync,
		hSyncPositive: true,
		vSyncPositive: false
	};
}

function gtf(wish: KernelWish): VideoTiming {
	const { lines, hz, half } = fieldOf(wish);
	const widthPx = div(wish.widthPx + CELL_PX / 2, CELL_PX) * CELL_PX;
	const lineHz = div(((lines + GTF_FRONT_LINES) * 2 + half) * 1000 * hz, div(1e6 - 550 * hz, 500));
	const syncAndBack = div(div(550 * lineHz, 1000) + 500, 1000);
	const duty = 30_000 - div(300 * 1e6, lineHz);
	const blank = div(div(widthPx * duty, WHOLE - duty) + CELL_PX, 2 * CELL_PX) * 2 * CELL_PX;
	const hTotal = widthPx + blank;
	const sync = div(div(8 * hTotal, 100) + CELL_PX / 2, CELL_PX) * CELL_PX;
	// Cells are eight wide; this size alone is put right. Source: drm_mode_fixup_1366x768().
	const isOdd = wish.widthPx === 1366 && widthPx === 1368 && wish.heightPx === 768;
	const [shown, shift] = isOdd ? [1366, 1] : [widthPx, 0];
	return {
		...framed(wish, lines + syncAndBack + GTF_FRONT_LINES),
		widthPx: shown,
		pixelClockKhz: div(hTotal * lineHz, 1000),
		hSyncStart: widthPx + blank / 2 - sync - shift,
		hSyncEnd: widthPx + blank / 2 - shift,
		hTotal,
		vSyncStart: wish.heightPx + GTF_FRONT_LINES,
		vSyncEnd: wish.heightPx + GTF_FRONT_LINES + GTF_SYNC_LINES
	};
}

const framed = ({ heightPx, interlaced }: KernelWish, linesOfField: number) => ({
	heightPx,
	interlaced,
	vTotal: interlaced ? linesOfField * 2 : linesOfField,
	hSyncPositive: false,
	vSyncPositive: true
});

/**
 * The timing that the kernel computes for `video=` where no list of the screen's has the size. Faults: `too-fast` where blanking takes longer
 * than a picture may, `too-slow` where a line would take longer than the formula knows.
 * Source: Linux 6.1, drm_modes.c, drm_cvt_mode() and drm_gtf_mode(); held to modes that a running kernel gave.
 */
export function kernelTiming(wish: KernelWish): Result<VideoTiming> {
	const leastNs = wish.by === 'cvt-rb' ? REDUCED_BLANK_NS : SYNC_AND_BACK_NS;
	if (fieldOf(wish).hz * leastNs >= 1e9)
		return fault('too-fast', `At ${wish.refreshHz} Hz no time is left for a picture. Choose a lower rate.`);
	const made = wish.by === 'gtf' ? gtf(wish) : wish.by === 'cvt' ? cvt(wish) : reduced(wish);
	return made && made.pixelClockKhz > 0 && made.hTotal > made.widthPx
		? ok(made)
		: fault(
				'too-slow',
				`The kernel's formula knows no picture of so few lines at ${wish.refreshHz} Hz. Choose a higher rate.`
			);
}
