import type { Fault } from '../../basics/result';
import { hdmiVicTiming, vicTiming } from '../../standards/vicTable';
import { DESCRIPTOR_BYTES, readDetailed } from './detailed';
import { readTypeSeven } from './displayId';
import {
	LPCM_BITS,
	LPCM_RATES_HZ,
	type EdidCta,
	type EdidHdmi,
	type EdidHdr,
	type EdidMode,
	type EdidSound
} from './edid';

/** What a CTA-861 extension says, and the modes that it adds. */
export interface CtaRead {
	readonly cta: EdidCta;
	readonly modes: readonly EdidMode[];
}

/** Names of sound formats by code; the others go by their number. Source: CTA-861-H, table "Audio Format Code". */
const SOUND_FORMATS: Readonly<Record<number, string>> = {
	1: 'LPCM',
	2: 'AC-3',
	3: 'MPEG-1 layers 1 and 2',
	4: 'MP3',
	5: 'MPEG-2',
	6: 'AAC LC',
	9: 'One Bit Audio',
	10: 'E-AC-3',
	12: 'MAT'
};
/** Source: CTA-861-H, clause 7.5.3 "Speaker Allocation Data Block". */
const SPEAKERS = [
	...['FL/FR', 'LFE1', 'FC', 'BL/BR', 'BC', 'FLc/FRc', 'RLC/RRC', 'FLw/FRw'],
	...['TpFL/TpFR', 'TpC', 'TpFC', 'LS/RS', 'LFE2', 'TpBC', 'SiL/SiR', 'TpSiL/TpSiR'],
	...['TpBL/TpBR', 'BtFC', 'BtFL/BtFR', 'TpLS/TpRS']
];
/** Source: CTA-861-H, clause 7.5.5 "Colorimetry Data Block". */
const COLORIMETRY = [
	...['xvYCC601', 'xvYCC709', 'sYCC601', 'opYCC601', 'opRGB', 'BT.2020 constant', 'BT.2020 YCC', 'BT.2020 RGB']
];
/** Source: CTA-861-H, clause 7.5.13 "HDR Static Metadata Data Block". */
const CURVES = ['SDR', 'traditional HDR', 'SMPTE ST 2084', 'HLG'];

/** Codes whose bit is set, from the lowest. */
const named = <T>(names: readonly T[], bits: number): T[] => names.filter((_, n) => (bits >> n) & 1);

interface Gathered {
	sound: EdidSound[];
	speakers: string[];
	hdmi: EdidHdmi | null;
	hdr: EdidHdr | null;
	colorimetry: string[];
	quantizationSelectable: boolean;
	ycbcr420: boolean;
	readonly modes: EdidMode[];
	readonly remarks: Fault[];
}
/** Reads the payload of one data block into what is gathered. */
type BlockReader = (payload: Uint8Array, into: Gathered) => void;

const readSound: BlockReader = (payload, into) => {
	for (let at = 0; at + 3 <= payload.length; at += 3) {
		const code = (payload[at]! >> 3) & 0x0f;
		const third = payload[at + 2]!;
		// Code 0 is reserved: an empty place.
		if (code !== 0)
			into.sound.push({
				formatCode: code,
				format: SOUND_FORMATS[code] ?? `code ${code}`,
				maxChannels: (payload[at]! & 7) + 1,
				ratesHz: named(LPCM_RATES_HZ, payload[at + 1]!),
				...(code === 1 ? { bits: named(LPCM_BITS, third) } : {}),
				...(code >= 2 && code <= 8 ? { maxKbps: third * 8 } : {})
			});
	}
};

/** Codes up to 64 may carry a flag for "native". Source: CTA-861-H, clause 7.5.1. */
const svd = (byte: number): { vic: number; native: boolean } =>
	byte >= 129 && byte <= 192 ? { vic: byte & 0x7f, native: true } : { vic: byte, native: false };

const readVideo =
	(only420: boolean): BlockReader =>
	(payload, into) => {
		for (const byte of payload) {
			const { vic, native } = svd(byte);
			const known = vicTiming(vic);
			if (known)
				into.modes.push({
					timing: known.timing,
					from: 'vic',
					vic,
					...(native ? { native: true as const } : {}),
					...(only420 ? { only420: true as const } : {})
				});
			else if (vic !== 0)
				into.remarks.push({
					code: 'unknown-vic',
					message: `Video code ${vic} is in no table known here; it is passed over.`
				});
		}
	};

const address = (high: number, low: number): string =>
	`${(high >> 4).toString(16)}.${(high & 15).toString(16)}.${(low >> 4).toString(16)}.${(low & 15).toString(16)}`;
/** (value − 1) · 2 ms; 0 and 255 say that nothing is known or none is there. */
const latency = (value: number | undefined): number | null =>
	value === undefined || value === 0 || value === 255 ? null : (value - 1) * 2;

/** Source: HDMI 1.4b, clause 8.3.2, table 8-16. */
const readHdmi: BlockReader = (payload, into) => {
	if (payload.length < 5) return;
	const flags = payload[5] ?? 0;
	const third = payload[7] ?? 0;
	const hasLatency = (third & 0x80) !== 0;
	const clock = payload[6] ?? 0;
	into.hdmi = {
		physicalAddress: address(payload[3]!, payload[4]!),
		maxTmdsMhz: clock === 0 ? (into.hdmi?.maxTmdsMhz ?? null) : Math.max(clock * 5, into.hdmi?.maxTmdsMhz ?? 0),
		deepColour: named([10, 12, 16] as const, (flags >> 4) & 7),
		videoLatencyMs: hasLatency ? latency(payload[8]) : null,
		soundLatencyMs: hasLatency ? latency(payload[9]) : null,
		scrambling: into.hdmi?.scrambling ?? false
	};
	if ((third & 0x20) === 0) return;
	const at = 8 + (hasLatency ? 2 : 0) + (third & 0x40 ? 2 : 0);
	const count = (payload[at + 1] ?? 0) >> 5;
	for (let n = 0; n < count; n++) {
		const vic = payload[at + 2 + n];
		const timing = vic === undefined ? null : hdmiVicTiming(vic);
		if (timing) into.modes.push({ timing, from: 'hdmiVic', vic: vic! });
	}
};

/** What the HDMI Forum adds: faster signalling. Source: HDMI 2.0, clause 10.3.2. */
const readHdmiForum: BlockReader = (payload, into) => {
	const maxMhz = (payload[4] ?? 0) * 5;
	into.hdmi = {
		physicalAddress: into.hdmi?.physicalAddress ?? '0.0.0.0',
		deepColour: into.hdmi?.deepColour ?? [],
		videoLatencyMs: into.hdmi?.videoLatencyMs ?? null,
		soundLatencyMs: into.hdmi?.soundLatencyMs ?? null,
		maxTmdsMhz: maxMhz === 0 ? (into.hdmi?.maxTmdsMhz ?? null) : Math.max(maxMhz, into.hdmi?.maxTmdsMhz ?? 0),
		scrambling: maxMhz > 340
	};
};

const OUI_HDMI = 0x000c03;
const OUI_HDMI_FORUM = 0xc45dd8;
const readVendor: BlockReader = (payload, into) => {
	if (payload.length < 3) return;
	const oui = payload[0]! | (payload[1]! << 8) | (payload[2]! << 16);
	if (oui === OUI_HDMI) readHdmi(payload, into);
	else if (oui === OUI_HDMI_FORUM) readHdmiForum(payload, into);
};

/** By tag. Source: CTA-861-H, clause 7.5, table "CTA Data Block Tag Codes". */
const BLOCKS: Readonly<Record<number, BlockReader>> = {
	1: readSound,
	2: readVideo(false),
	3: readVendor,
	4: (payload, into) => {
		const bits = (payload[0] ?? 0) | ((payload[1] ?? 0) << 8) | ((payload[2] ?? 0) << 16);
		into.speakers = named(SPEAKERS, bits);
	}
};
/** By extended tag. Source: the same, table "Extended Tag Codes". */
const EXTENDED: Readonly<Record<number, BlockReader>> = {
	0: (payload, into) => {
		into.quantizationSelectable = ((payload[0] ?? 0) & 0x40) !== 0;
	},
	5: (payload, into) => {
		into.colorimetry = named(COLORIMETRY, payload[0] ?? 0);
	},
	6: (payload, into) => {
		const code = payload[2] ?? 0;
		into.hdr = {
			curves: named(CURVES, payload[0] ?? 0),
			peakCdM2: code === 0 ? null : Math.round(50 * 2 ** (code / 32))
		};
	},
	14: (payload, into) => {
		into.ycbcr420 = true;
		readVideo(true)(payload, into);
	},
	15: (_payload, into) => {
		into.ycbcr420 = true;
	},
	0x22: (payload, into) => {
		const mode = readTypeSeven(payload);
		if (mode) into.modes.push(mode);
	}
};

/** One extension of tag 2. Source: CTA-861-H, clause 7. */
export function readCta(block: Uint8Array, remarks: Fault[]): CtaRead {
	const revision = block[1]!;
	const detailedAt = block[2]!;
	const flags = revision >= 2 ? block[3]! : 0;
	const into: Gathered = {
		sound: [],
		speakers: [],
		hdmi: null,
		hdr: null,
		colorimetry: [],
		quantizationSelectable: false,
		ycbcr420: false,
		modes: [],
		remarks
	};
	const dataEnd = detailedAt >= 4 && detailedAt <= 127 ? detailedAt : detailedAt === 0 ? 127 : 4;
	if (revision >= 3)
		for (let at = 4; at < dataEnd;) {
			const length = block[at]! & 0x1f;
			const tag = block[at]! >> 5;
			const end = at + 1 + length;
			if (end > dataEnd) {
				remarks.push({
					code: 'block-too-long',
					message: 'A data block runs past its end: it and what follows are passed over.',
					where: `extension, byte ${at}`
				});
				break;
			}
			const payload = block.subarray(at + 1, end);
			if (tag === 7) {
				if (length > 0) EXTENDED[payload[0]!]?.(payload.subarray(1), into);
			} else BLOCKS[tag]?.(payload, into);
			at = end;
		}
	if (detailedAt >= 4)
		for (let at = detailedAt; at + DESCRIPTOR_BYTES <= 127 && (block[at] !== 0 || block[at + 1] !== 0); at += 18) {
			const detailed = readDetailed(block, at);
			if (detailed) into.modes.push({ ...detailed, from: 'detailed' });
		}
	return {
		modes: into.modes,
		cta: {
			revision,
			underscansIt: (flags & 0x80) !== 0,
			basicAudio: (flags & 0x40) !== 0,
			ycbcr: [
				...(flags & 0x20 ? (['4:4:4'] as const) : []),
				...(flags & 0x10 ? (['4:2:2'] as const) : []),
				...(into.ycbcr420 ? (['4:2:0'] as const) : [])
			],
			sound: into.sound,
			speakers: into.speakers,
			hdmi: into.hdmi,
			hdr: into.hdr,
			colorimetry: into.colorimetry,
			quantizationSelectable: into.quantizationSelectable
		}
	};
}
