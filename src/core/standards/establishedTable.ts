import { dmtById } from './dmtTable';
import { timingOf, type TimingRow, type VideoTiming } from './videoTiming';

/** Older than DMT: five timings of two makers that every EDID can announce by a bit. Source: VESA E-EDID A.2, "Established Timings"; as edid-decode 0.1~git20220315 lists them. */
const BEFORE_DMT: readonly TimingRow[] = [
	[1, 720, 400, 28320, [738, 846, 900], [421, 423, 449], '-+'],
	[2, 720, 400, 35500, [738, 846, 900], [412, 414, 449], '-+'],
	[3, 640, 480, 30240, [704, 768, 864], [483, 486, 525], '--'],
	[4, 832, 624, 57284, [864, 928, 1152], [625, 628, 667], '--'],
	[5, 1152, 870, 100000, [1200, 1328, 1456], [873, 876, 915], '++']
];
const older = (n: number): VideoTiming => timingOf(BEFORE_DMT[n - 1]!);
const dmt = (id: number): VideoTiming => dmtById(id)!.timing;

/** One bit of established timings: its timing, and its DMT ID where it has one. */
export interface Established {
	readonly timing: VideoTiming;
	readonly dmtId: number | null;
}
const known = (dmtId: number): Established => ({ dmtId, timing: dmt(dmtId) });
const unknown = (n: number): Established => ({ dmtId: null, timing: older(n) });

/** Bytes 35, 36 and the first bit of 37, from bit 7 downwards. Source: VESA E-EDID A.2, "Established Timings"; as edid-decode 0.1~git20220315 lists them. */
export const ESTABLISHED: readonly Established[] = [
	...[unknown(1), unknown(2), known(0x04), unknown(3), known(0x05), known(0x06), known(0x08), known(0x09)],
	...[known(0x0a), known(0x0b), unknown(4), known(0x0f), known(0x10), known(0x11), known(0x12), known(0x24)],
	unknown(5)
];

/** Bytes 6 to 11 of the descriptor F7h, from bit 7 downwards. Source: VESA E-EDID A.2, "Established Timings III Descriptor". */
export const ESTABLISHED_III: readonly Established[] = [
	0x01, 0x02, 0x03, 0x07, 0x0e, 0x0c, 0x13, 0x15, 0x16, 0x17, 0x18, 0x19, 0x20, 0x21, 0x23, 0x25, 0x27, 0x2e, 0x2f,
	0x30, 0x31, 0x29, 0x2a, 0x2b, 0x2c, 0x39, 0x3a, 0x3b, 0x3c, 0x33, 0x34, 0x35, 0x36, 0x37, 0x3e, 0x3f, 0x41, 0x42,
	0x44, 0x45, 0x46, 0x47, 0x49, 0x4a
].map(known);
