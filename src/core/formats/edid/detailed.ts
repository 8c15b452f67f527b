import type { VideoTiming } from '../../standards/videoTiming';

/** Of a detailed timing: the timing itself and the size of its picture. */
export interface Detailed {
	readonly timing: VideoTiming;
	readonly widthMm: number;
	readonly heightMm: number;
}

/** Bytes of a detailed timing and of every other 18-byte descriptor. */
export const DESCRIPTOR_BYTES = 18;
/** Below this it is no timing, whatever the bytes say. */
const LEAST_CLOCK_KHZ = 10_000;

/**
 * An 18-byte detailed timing; null where it holds none. Borders are taken as blanking, as most EDIDs have it.
 * Source: VESA E-EDID A.2, clause 3.10.2 "Detailed Timing Descriptor".
 */
export function readDetailed(bytes: Uint8Array, at: number): Detailed | null {
	const byte = (n: number): number => bytes[at + n]!;
	const pixelClockKhz = (byte(0) | (byte(1) << 8)) * 10;
	if (pixelClockKhz < LEAST_CLOCK_KHZ) return null;
	const flags = byte(17);
	const interlaced = (flags & 0x80) !== 0;
	const widthPx = byte(2) | ((byte(4) & 0xf0) << 4);
	const fieldLines = byte(5) | ((byte(7) & 0xf0) << 4);
	const hBlank = byte(3) | ((byte(4) & 0x0f) << 8);
	const vBlank = byte(6) | ((byte(7) & 0x0f) << 8);
	const hBorder = byte(15);
	const vBorder = byte(16);
	const hFront = (byte(8) | ((byte(11) & 0xc0) << 2)) + hBorder;
	const hSync = byte(9) | ((byte(11) & 0x30) << 4);
	const vFront = ((byte(10) >> 4) | ((byte(11) & 0x0c) << 2)) + vBorder;
	const vSync = (byte(10) & 0x0f) | ((byte(11) & 0x03) << 4);
	if (widthPx === 0 || fieldLines === 0) return null;
	const perFrame = interlaced ? 2 : 1;
	const separate = (flags & 0x18) === 0x18;
	const digital = (flags & 0x10) !== 0;
	return {
		timing: {
			widthPx,
			heightPx: fieldLines * perFrame,
			interlaced,
			pixelClockKhz,
			hSyncStart: widthPx + hFront,
			hSyncEnd: widthPx + hFront + hSync,
			hTotal: widthPx + hBlank,
			vSyncStart: (fieldLines + vFront) * perFrame,
			vSyncEnd: (fieldLines + vFront + vSync) * perFrame,
			vTotal: interlaced ? (fieldLines + vBlank) * 2 + 1 : fieldLines + vBlank,
			hSyncPositive: digital && (flags & 0x02) !== 0,
			vSyncPositive: separate && (flags & 0x04) !== 0
		},
		widthMm: byte(12) | ((byte(14) & 0xf0) << 4),
		heightMm: byte(13) | ((byte(14) & 0x0f) << 8)
	};
}

/** Whether 18 bytes can say this timing: each figure has only so many bits. */
export const fitsDetailed = (timing: VideoTiming): boolean => {
	const per = timing.interlaced ? 2 : 1;
	return (
		timing.pixelClockKhz >= LEAST_CLOCK_KHZ &&
		Math.round(timing.pixelClockKhz / 10) <= 0xffff &&
		timing.widthPx <= 0xfff &&
		timing.hTotal - timing.widthPx <= 0xfff &&
		timing.heightPx / per <= 0xfff &&
		(timing.vTotal - timing.heightPx) / per <= 0xfff &&
		timing.hSyncStart - timing.widthPx <= 0x3ff &&
		timing.hSyncEnd - timing.hSyncStart <= 0x3ff &&
		(timing.vSyncStart - timing.heightPx) / per <= 0x3f &&
		(timing.vSyncEnd - timing.vSyncStart) / per <= 0x3f
	);
};

/** The other half: 18 bytes for a timing. Call only with one that fits. */
export function writeDetailed({ timing, widthMm, heightMm }: Detailed): Uint8Array {
	const per = timing.interlaced ? 2 : 1;
	const clock = Math.round(timing.pixelClockKhz / 10);
	const hBlank = timing.hTotal - timing.widthPx;
	const lines = timing.heightPx / per;
	const vBlank = Math.floor((timing.vTotal - timing.heightPx) / per);
	const hFront = timing.hSyncStart - timing.widthPx;
	const hSync = timing.hSyncEnd - timing.hSyncStart;
	const vFront = (timing.vSyncStart - timing.heightPx) / per;
	const vSync = (timing.vSyncEnd - timing.vSyncStart) / per;
	return Uint8Array.of(
		...[clock & 0xff, clock >> 8],
		...[timing.widthPx & 0xff, hBlank & 0xff, ((timing.widthPx >> 8) << 4) | (hBlank >> 8)],
		...[lines & 0xff, vBlank & 0xff, ((lines >> 8) << 4) | (vBlank >> 8)],
		...[hFront & 0xff, hSync & 0xff, ((vFront & 0x0f) << 4) | (vSync & 0x0f)],
		((hFront >> 8) << 6) | ((hSync >> 8) << 4) | ((vFront >> 4) << 2) | (vSync >> 4),
		...[widthMm & 0xff, heightMm & 0xff, ((widthMm >> 8) << 4) | (heightMm >> 8)],
		...[0, 0],
		0x18 | (timing.interlaced ? 0x80 : 0) | (timing.vSyncPositive ? 0x04 : 0) | (timing.hSyncPositive ? 0x02 : 0)
	);
}
