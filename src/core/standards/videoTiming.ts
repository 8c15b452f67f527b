/**
 * A video timing as the kernel and X write it, and what follows from it. Vertical figures are lines of the whole frame, also
 * where it is interlaced. Source: VESA E-EDID A.2, clause 3.12; modeline in xorg.conf(5).
 */
export interface VideoTiming {
	readonly widthPx: number;
	readonly heightPx: number;
	readonly interlaced: boolean;
	readonly pixelClockKhz: number;
	readonly hSyncStart: number;
	readonly hSyncEnd: number;
	readonly hTotal: number;
	readonly vSyncStart: number;
	readonly vSyncEnd: number;
	readonly vTotal: number;
	readonly hSyncPositive: boolean;
	readonly vSyncPositive: boolean;
}

/** A table's row: size, clock in kHz, sync start, sync end and total across and down, signs of the syncs, "i" for interlaced. */
export type TimingRow = readonly [
	id: number,
	widthPx: number,
	heightPx: number,
	pixelClockKhz: number,
	across: readonly [number, number, number],
	down: readonly [number, number, number],
	signs: '++' | '+-' | '-+' | '--' | '++i' | '--i' | '+-i',
	more?: number | string
];

/** A row as a timing with named fields. */
export const timingOf = ([, widthPx, heightPx, pixelClockKhz, across, down, signs]: TimingRow): VideoTiming => ({
	widthPx,
	heightPx,
	interlaced: signs.endsWith('i'),
	pixelClockKhz,
	hSyncStart: across[0],
	hSyncEnd: across[1],
	hTotal: across[2],
	vSyncStart: down[0],
	vSyncEnd: down[1],
	vTotal: down[2],
	hSyncPositive: signs[0] === '+',
	vSyncPositive: signs[1] === '+'
});

type Rates = Pick<VideoTiming, 'pixelClockKhz' | 'hTotal' | 'vTotal' | 'interlaced'>;

/** Pictures a second: fields where it is interlaced, Hz. */
export const refreshHzOf = ({ pixelClockKhz, hTotal, vTotal, interlaced }: Rates): number =>
	((pixelClockKhz * 1000) / (hTotal * vTotal)) * (interlaced ? 2 : 1);

/** Lines a second, kHz. */
export const hSyncKhzOf = ({ pixelClockKhz, hTotal }: Rates): number => pixelClockKhz / hTotal;

/** A modeline in X's and the kernel's order. Source: xorg.conf(5), MONITOR SECTION. */
export const modelineOf = (name: string, timing: VideoTiming): string =>
	[
		'Modeline',
		`"${name}"`,
		(timing.pixelClockKhz / 1000).toFixed(3),
		...[timing.widthPx, timing.hSyncStart, timing.hSyncEnd, timing.hTotal],
		...[timing.heightPx, timing.vSyncStart, timing.vSyncEnd, timing.vTotal],
		...(timing.interlaced ? ['interlace'] : []),
		timing.hSyncPositive ? '+hsync' : '-hsync',
		timing.vSyncPositive ? '+vsync' : '-vsync'
	].join(' ');
