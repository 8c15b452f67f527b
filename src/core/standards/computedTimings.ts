import { fault, ok, type Result } from '../basics/result';
import type { VideoTiming } from './videoTiming';

/** What a computed timing is asked for. */
export interface WantedTiming {
	readonly widthPx: number;
	readonly heightPx: number;
	readonly refreshHz: number;
}
/** The formulas, each older one with longer blanking. */
export const TIMING_METHODS = ['cvt', 'cvt-rb', 'gtf'] as const;
/** CVT, CVT with reduced blanking, GTF. */
export type TimingMethod = (typeof TIMING_METHODS)[number];

const CELL_PX = 8;
/** Lines from the end of the picture to the sync. Source: VESA CVT 1.1. */
const FRONT_LINES = 3;
/** The clock comes in steps of 250 kHz. Source: VESA CVT 1.1. */
const CLOCK_STEP_KHZ = 250;
/** Least time for sync and back porch, and for reduced blanking, µs. Source: VESA CVT 1.1; GTF 1.1. */
const SYNC_AND_BACK_US = 550;
const REDUCED_BLANK_US = 460;

const upTo = (value: number, step: number): number => Math.ceil(value / step) * step;
/** To the nearest, halves to the even one, as C's rint() has it. */
const nearest = (value: number): number => {
	const below = Math.floor(value);
	const rest = value - below;
	return rest > 0.5 || (rest === 0.5 && below % 2 === 1) ? below + 1 : below;
};
const downTo = (value: number, step: number): number => Math.floor(value / step) * step;

/** Lines of vertical sync, by which a receiver tells the shape of the picture. Source: VESA CVT 1.1, table of aspect ratios. */
function syncLines(widthPx: number, heightPx: number): number {
	const shapes = [
		[3, 4 / 3, 4],
		[9, 16 / 9, 5],
		[10, 16 / 10, 6],
		[4, 5 / 4, 7],
		[9, 15 / 9, 7]
	] as const;
	return (
		shapes.find(([part, ratio]) => heightPx % part === 0 && Math.floor(heightPx * ratio + 1e-9) === widthPx)?.[2] ?? 10
	);
}

const COMPUTE: Readonly<Record<TimingMethod, (wanted: WantedTiming) => VideoTiming>> = {
	cvt({ widthPx: asked, heightPx, refreshHz }) {
		const widthPx = upTo(asked, CELL_PX);
		const sync = syncLines(widthPx, heightPx);
		const lineUs = (1e6 / refreshHz - SYNC_AND_BACK_US) / (heightPx + FRONT_LINES);
		const syncAndBack = Math.max(Math.floor(SYNC_AND_BACK_US / lineUs) + 1, sync + 3);
		const dutyPercent = Math.max(20, 30 - 0.3 * lineUs);
		const blank = downTo((widthPx * dutyPercent) / (100 - dutyPercent), 2 * CELL_PX);
		const hTotal = widthPx + blank;
		const hSyncEnd = widthPx + blank / 2;
		// Up to the next cell, a whole one further where it stands on a cell already: as the kernel and X have it.
		const hSyncStart = downTo(hSyncEnd - Math.floor(0.08 * hTotal), CELL_PX) + CELL_PX;
		return {
			widthPx,
			heightPx,
			interlaced: false,
			pixelClockKhz: downTo((hTotal / lineUs) * 1000, CLOCK_STEP_KHZ),
			hSyncStart,
			hSyncEnd,
			hTotal,
			vSyncStart: heightPx + FRONT_LINES,
			vSyncEnd: heightPx + FRONT_LINES + sync,
			vTotal: heightPx + syncAndBack + FRONT_LINES,
			hSyncPositive: false,
			vSyncPositive: true
		};
	},
	'cvt-rb'({ widthPx: asked, heightPx, refreshHz }) {
		const widthPx = upTo(asked, CELL_PX);
		const sync = syncLines(widthPx, heightPx);
		const lineUs = (1e6 / refreshHz - REDUCED_BLANK_US) / heightPx;
		const blankLines = Math.max(Math.floor(REDUCED_BLANK_US / lineUs) + 1, FRONT_LINES + sync + 6);
		const hTotal = widthPx + 160;
		return {
			widthPx,
			heightPx,
			interlaced: false,
			pixelClockKhz: downTo((hTotal / lineUs) * 1000, CLOCK_STEP_KHZ),
			hSyncStart: widthPx + 48,
			hSyncEnd: widthPx + 80,
			hTotal,
			vSyncStart: heightPx + FRONT_LINES,
			vSyncEnd: heightPx + FRONT_LINES + sync,
			vTotal: heightPx + blankLines,
			hSyncPositive: true,
			vSyncPositive: false
		};
	},
	gtf({ widthPx: asked, heightPx, refreshHz }) {
		const widthPx = nearest(asked / CELL_PX) * CELL_PX;
		const lineGuessUs = (1e6 / refreshHz - SYNC_AND_BACK_US) / (heightPx + 1);
		const syncAndBack = nearest(SYNC_AND_BACK_US / lineGuessUs);
		const vTotal = heightPx + syncAndBack + 1;
		const lineUs = 1e6 / (refreshHz * vTotal);
		const dutyPercent = 30 - 0.3 * lineUs;
		const blank = nearest((widthPx * dutyPercent) / (100 - dutyPercent) / (2 * CELL_PX)) * 2 * CELL_PX;
		const hTotal = widthPx + blank;
		const sync = nearest((0.08 * hTotal) / CELL_PX) * CELL_PX;
		return {
			widthPx,
			heightPx,
			interlaced: false,
			pixelClockKhz: (hTotal / lineUs) * 1000,
			hSyncStart: widthPx + blank / 2 - sync,
			hSyncEnd: widthPx + blank / 2,
			hTotal,
			vSyncStart: heightPx + 1,
			vSyncEnd: heightPx + 4,
			vTotal,
			hSyncPositive: false,
			vSyncPositive: true
		};
	}
};

/**
 * A timing by formula, as X and the kernel read the standards. Faults: `reduced-60` where reduced blanking is asked for anything
 * but a multiple of 60 Hz, `too-fast` where the blanking alone takes longer than a picture may.
 * Source: VESA CVT 1.1; VESA GTF 1.1 with its default parameters; held to `cvt`, `cvt -r` and `gtf`.
 */
export function computeTiming(method: TimingMethod, wanted: WantedTiming): Result<VideoTiming> {
	if (method === 'cvt-rb' && wanted.refreshHz % 60 !== 0)
		return fault('reduced-60', 'Reduced blanking is defined for multiples of 60 Hz only. Choose 60 Hz, or CVT.');
	const least = method === 'cvt-rb' ? REDUCED_BLANK_US : SYNC_AND_BACK_US;
	if (1e6 / wanted.refreshHz <= least)
		return fault('too-fast', `At ${wanted.refreshHz} Hz no time is left for a picture. Choose a lower rate.`);
	return ok(COMPUTE[method](wanted));
}

/** What the tools print as a name: 640x480_60.00, and 640x480R with reduced blanking. */
export const timingName = (method: TimingMethod, { widthPx, heightPx, refreshHz }: WantedTiming): string =>
	method === 'cvt-rb' ? `${widthPx}x${heightPx}R` : `${widthPx}x${heightPx}_${refreshHz.toFixed(2)}`;
