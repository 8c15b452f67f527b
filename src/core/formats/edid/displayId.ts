import type { Fault } from '../../basics/result';
import type { VideoTiming } from '../../standards/videoTiming';
import type { EdidMode } from './edid';

const TYPE_ONE = 0x03;
const TYPE_SEVEN = 0x22;
const TIMING_BYTES = 20;

/** Twenty bytes of type I (clock in 10 kHz) or VII (in kHz). Source: VESA DisplayID 1.3, clause 4.4.1; 2.0, clause 4.3. */
function readTiming(bytes: Uint8Array, at: number, clockKhz: number): VideoTiming | null {
	const word = (n: number): number => bytes[at + n]! | (bytes[at + n + 1]! << 8);
	const clock = (bytes[at]! | (bytes[at + 1]! << 8) | (bytes[at + 2]! << 16)) + 1;
	const interlaced = (bytes[at + 3]! & 0x10) !== 0;
	const per = interlaced ? 2 : 1;
	const widthPx = word(4) + 1;
	const hBlank = word(6) + 1;
	const hFront = (word(8) & 0x7fff) + 1;
	const hSync = word(10) + 1;
	const lines = word(12) + 1;
	const vBlank = word(14) + 1;
	const vFront = (word(16) & 0x7fff) + 1;
	const vSync = word(18) + 1;
	// All ones is what an empty place looks like.
	if (clock > 0xffffff) return null;
	return {
		widthPx,
		heightPx: lines * per,
		interlaced,
		pixelClockKhz: clock * clockKhz,
		hSyncStart: widthPx + hFront,
		hSyncEnd: widthPx + hFront + hSync,
		hTotal: widthPx + hBlank,
		vSyncStart: (lines + vFront) * per,
		vSyncEnd: (lines + vFront + vSync) * per,
		vTotal: interlaced ? (lines + vBlank) * 2 + 1 : lines + vBlank,
		hSyncPositive: (word(8) & 0x8000) !== 0,
		vSyncPositive: (word(16) & 0x8000) !== 0
	};
}

/** A type VII timing as a CTA-861 extension carries it: a revision byte, then the timing. */
export function readTypeSeven(payload: Uint8Array): EdidMode | null {
	if (payload.length < TIMING_BYTES + 1) return null;
	const timing = readTiming(payload, 1, 1);
	return timing && { timing, from: 'displayId' };
}

/** The detailed timings of a DisplayID extension; other blocks of it are passed over. Source: VESA DisplayID 1.3, clause 4. */
export function readDisplayId(block: Uint8Array, remarks: Fault[]): EdidMode[] {
	const modes: EdidMode[] = [];
	const end = Math.min(5 + block[2]!, 126);
	for (let at = 5; at + 3 <= end;) {
		const tag = block[at]!;
		const length = block[at + 2]!;
		if (tag === 0 && length === 0) break;
		if (at + 3 + length > end) {
			remarks.push({
				code: 'block-too-long',
				message: 'A DisplayID block runs past its end: it and what follows are passed over.',
				where: `DisplayID, byte ${at}`
			});
			break;
		}
		if (tag === TYPE_ONE || tag === TYPE_SEVEN)
			for (let n = at + 3; n + TIMING_BYTES <= at + 3 + length; n += TIMING_BYTES) {
				const timing = readTiming(block, n, tag === TYPE_ONE ? 10 : 1);
				if (timing)
					modes.push({
						timing,
						from: 'displayId',
						...(block[n + 3]! & 0x80 ? { native: true as const } : {})
					});
			}
		at += 3 + length;
	}
	return modes;
}
