import type { Fault } from '../../basics/result';
import type { VideoTiming } from '../../standards/videoTiming';

/** Bytes in one block. Source: VESA E-EDID A.2. */
export const BLOCK_BYTES = 128;

/** One mode that a screen announces, and where it says so. */
export interface EdidMode {
	readonly timing: VideoTiming;
	readonly from: 'detailed' | 'vic' | 'hdmiVic' | 'dmt' | 'established' | 'gtf' | 'cvt' | 'displayId';
	/** CTA-861's video code, where it is named by one. */
	readonly vic?: number;
	readonly dmtId?: number;
	/** The panel's own pixels, as it says. */
	readonly native?: true;
	/** Only with colour at a quarter of the resolution (YCbCr 4:2:0). */
	readonly only420?: true;
	/** The picture's size in that mode; 0 where it is not given. */
	readonly widthMm?: number;
	readonly heightMm?: number;
}

/** One short audio descriptor. Source: CTA-861-H, clause 7.5.2. */
export interface EdidSound {
	readonly formatCode: number;
	readonly format: string;
	readonly maxChannels: number;
	readonly ratesHz: readonly number[];
	/** Of LPCM. */
	readonly bits?: readonly number[];
	/** Of the older compressed formats. */
	readonly maxKbps?: number;
}

/** Sample rates and depths of LPCM, a bit each from the lowest. Source: the same, table "Short Audio Descriptor". */
export const LPCM_RATES_HZ: readonly number[] = [32_000, 44_100, 48_000, 88_200, 96_000, 176_400, 192_000];
export const LPCM_BITS: readonly number[] = [16, 20, 24];

/** What a screen can follow. Source: VESA E-EDID A.2, display range limits. */
export interface EdidRanges {
	readonly vMinHz: number;
	readonly vMaxHz: number;
	readonly hMinKhz: number;
	readonly hMaxKhz: number;
	/** null: not given. */
	readonly maxPixelClockMhz: number | null;
}

/** The HDMI vendor blocks together. Source: HDMI 1.4b, clause 8.3.2; HDMI Forum VSDB. */
export interface EdidHdmi {
	readonly physicalAddress: string;
	readonly maxTmdsMhz: number | null;
	/** Bits a colour beyond 8 that it takes. */
	readonly deepColour: readonly (10 | 12 | 16)[];
	/** From the signal to light and to sound, ms; null: not given. */
	readonly videoLatencyMs: number | null;
	readonly soundLatencyMs: number | null;
	/** The faster signalling of later HDMI, above 340 MHz. */
	readonly scrambling: boolean;
}

/** Transfer curves and light of HDR. Source: CTA-861-H, clause 7.5.13. */
export interface EdidHdr {
	readonly curves: readonly string[];
	readonly peakCdM2: number | null;
}

/** A CTA-861 extension. */
export interface EdidCta {
	readonly revision: number;
	readonly underscansIt: boolean;
	readonly basicAudio: boolean;
	readonly ycbcr: readonly ('4:4:4' | '4:2:2' | '4:2:0')[];
	readonly sound: readonly EdidSound[];
	readonly speakers: readonly string[];
	readonly hdmi: EdidHdmi | null;
	readonly hdr: EdidHdr | null;
	readonly colorimetry: readonly string[];
	/** Whether full range of levels can be chosen. */
	readonly quantizationSelectable: boolean;
}

/** What a screen says of itself. */
export interface Edid {
	readonly version: string;
	readonly manufacturer: string;
	readonly productCode: number;
	readonly serialNumber: number | null;
	readonly serialText: string | null;
	readonly name: string | null;
	/** Other lines of text. */
	readonly texts: readonly string[];
	readonly week: number | null;
	readonly year: number;
	readonly digital: boolean;
	/** Bits a colour, from 1.4 on; null: not said. */
	readonly bitsPerColour: number | null;
	readonly widthCm: number | null;
	readonly heightCm: number | null;
	readonly gamma: number | null;
	/** CIE 1931 x and y of red, green, blue and white. */
	readonly chromaticity: readonly (readonly [number, number])[];
	readonly srgb: boolean;
	/** Any mode within the ranges will do. */
	readonly continuous: boolean;
	readonly modes: readonly EdidMode[];
	readonly preferred: VideoTiming | null;
	readonly ranges: EdidRanges | null;
	readonly cta: EdidCta | null;
	readonly blockChecksumOk: readonly boolean[];
	readonly extensionBlocks: number;
	/** What is wrong or could not be used, each with what that means. */
	readonly remarks: readonly Fault[];
}

/** Whether the bytes of a block add up to nothing. Source: VESA E-EDID A.2, "Checksum". */
export const sumsToZero = (block: Uint8Array): boolean => block.reduce((sum, byte) => (sum + byte) & 0xff, 0) === 0;
