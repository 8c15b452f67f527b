/** What the first bytes of a stream say of its sound, without reading all of it. */
export interface StreamHead {
	readonly codec: 'mp3' | 'mp2' | 'aac' | 'vorbis' | 'opus' | 'flac';
	readonly sampleRateHz: number;
	readonly channels: number;
	/** Where each frame says it; null: it does not. */
	readonly bitRateBps: number | null;
}

/** kbit/s of MPEG audio by index: version 1 layer II, version 1 layer III, version 2 layers II and III. Source: ISO/IEC 11172-3, 2.4.2.3; 13818-3. */
const KBPS = {
	v1l2: [0, 32, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320, 384],
	v1l3: [0, 32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320],
	v2: [0, 8, 16, 24, 32, 40, 48, 56, 64, 80, 96, 112, 128, 144, 160]
};
const MPEG_RATES = [44_100, 48_000, 32_000];
/** Source: ISO/IEC 14496-3, table 1.18. */
const AAC_RATES = [96_000, 88_200, 64_000, 48_000, 44_100, 32_000, 24_000, 22_050, 16_000, 12_000, 11_025, 8000, 7350];

interface Frame {
	readonly head: StreamHead;
	readonly bytes: number;
}

function mpegFrame(b: Uint8Array, at: number): Frame | null {
	const [b1, b2, b3] = [b[at + 1], b[at + 2], b[at + 3]];
	if (b[at] !== 0xff || b1 === undefined || b2 === undefined || b3 === undefined || (b1 & 0xe0) !== 0xe0) return null;
	const version = (b1 >> 3) & 3;
	const layer = (b1 >> 1) & 3;
	const rate = MPEG_RATES[(b2 >> 2) & 3];
	if (version === 1 || (layer !== 1 && layer !== 2) || rate === undefined) return null;
	const first = version === 3;
	const kbps = (first ? (layer === 1 ? KBPS.v1l3 : KBPS.v1l2) : KBPS.v2)[b2 >> 4];
	if (!kbps) return null;
	const sampleRateHz = rate / (first ? 1 : version === 2 ? 2 : 4);
	const samples = layer === 2 || first ? 1152 : 576;
	return {
		head: {
			codec: layer === 1 ? 'mp3' : 'mp2',
			sampleRateHz,
			channels: b3 >> 6 === 3 ? 1 : 2,
			bitRateBps: kbps * 1000
		},
		bytes: Math.floor((samples / 8) * ((kbps * 1000) / sampleRateHz)) + ((b2 >> 1) & 1)
	};
}

function aacFrame(b: Uint8Array, at: number): Frame | null {
	if (at + 7 > b.length || b[at] !== 0xff || (b[at + 1]! & 0xf6) !== 0xf0) return null;
	const sampleRateHz = AAC_RATES[(b[at + 2]! >> 2) & 15];
	const channels = ((b[at + 2]! & 1) << 2) | (b[at + 3]! >> 6);
	const bytes = ((b[at + 3]! & 3) << 11) | (b[at + 4]! << 3) | (b[at + 5]! >> 5);
	if (sampleRateHz === undefined || bytes < 7) return null;
	return {
		head: { codec: 'aac', sampleRateHz, channels: channels === 7 ? 8 : Math.max(1, channels), bitRateBps: null },
		bytes
	};
}

/** So many frames follow each other before they are believed. */
const BELIEVED = 3;
const MOST_LOOKED = 65_536;
const ascii = (b: Uint8Array, at: number, length: number): string =>
	String.fromCharCode(...b.subarray(at, at + length));

/** What these bytes, from anywhere in a stream, say; null: not enough of them, or nothing that is known. */
export function readStreamHead(bytes: Uint8Array): StreamHead | null {
	const b = bytes.subarray(0, MOST_LOOKED);
	const view = new DataView(b.buffer, b.byteOffset, b.byteLength);
	if (ascii(b, 0, 4) === 'OggS' && b.length > 64) {
		const at = 27 + b[26]!;
		if (ascii(b, at + 1, 6) === 'vorbis' && at + 28 <= b.length) {
			const bps = view.getUint32(at + 20, true);
			return {
				codec: 'vorbis',
				channels: Math.max(1, b[at + 11]!),
				sampleRateHz: view.getUint32(at + 12, true),
				bitRateBps: bps > 0 && bps < 2 ** 31 ? bps : null
			};
		}
		if (ascii(b, at, 8) === 'OpusHead')
			return { codec: 'opus', channels: Math.max(1, b[at + 9] ?? 2), sampleRateHz: 48_000, bitRateBps: null };
	}
	if (ascii(b, 0, 4) === 'fLaC' && b.length >= 42)
		return {
			codec: 'flac',
			sampleRateHz: view.getUint32(18) >>> 12,
			channels: ((b[20]! >> 1) & 7) + 1,
			bitRateBps: null
		};
	for (const frame of [aacFrame, mpegFrame])
		for (let from = 0; from + 4 <= b.length; from++) {
			let at = from;
			let found: Frame | null = null;
			let many = 0;
			while (many < BELIEVED) {
				const next = frame(b, at);
				if (!next || (found && next.head.sampleRateHz !== found.head.sampleRateHz)) break;
				found = next;
				at += next.bytes;
				many++;
			}
			if (many === BELIEVED) return found!.head;
		}
	return null;
}
