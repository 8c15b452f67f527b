/**
 * What a codec's parameter string says. Source: RFC 6381; ISO/IEC 14496-15, annex E (avc, hevc); the VP9 and AV1 bindings for
 * ISO base media; ITU-T H.264, annex A; H.265, annex A.
 */
export interface CodecSaid {
	/** "High 10, level 4.1"; "": it does not say. */
	readonly words: string;
	readonly bitDepth: number;
	/** As in "4:2:0". */
	readonly chroma: Chroma;
}
/** How finely colour is sampled against brightness. */
export const CHROMAS = ['4:0:0', '4:2:0', '4:2:2', '4:4:4'] as const;
/** The same, as a type. */
export type Chroma = (typeof CHROMAS)[number];

const SAYS_NOTHING: CodecSaid = { words: '', bitDepth: 8, chroma: '4:2:0' };

/** By profile_idc: name, bits, chroma. */
const AVC: Readonly<Record<number, readonly [string, number, Chroma]>> = {
	66: ['Baseline', 8, '4:2:0'],
	77: ['Main', 8, '4:2:0'],
	88: ['Extended', 8, '4:2:0'],
	100: ['High', 8, '4:2:0'],
	110: ['High 10', 10, '4:2:0'],
	122: ['High 4:2:2', 10, '4:2:2'],
	244: ['High 4:4:4 Predictive', 14, '4:4:4']
};
const HEVC: Readonly<Record<number, readonly [string, number]>> = {
	1: ['Main', 8],
	2: ['Main 10', 10],
	3: ['Main Still Picture', 8]
};
const AAC: Readonly<Record<string, string>> = { 2: 'LC', 5: 'HE', 29: 'HE v2', 42: 'xHE', 23: 'LD', 39: 'ELD' };
const AV1 = ['Main', 'High', 'Professional'];
const CONSTRAINED = 0x40;

const level = (tenths: number): string => `level ${(tenths / 10).toFixed(1)}`;

/** Anything that is not known says nothing: 8 bits, 4:2:0. */
export function readCodecString(text: string): CodecSaid {
	const [kind = '', ...rest] = text.slice(0, 200).split('.');
	if (kind === 'avc1' || kind === 'avc3') return avc(rest[0] ?? '');
	if (kind === 'hvc1' || kind === 'hev1') return hevc(rest);
	if (kind === 'vp09') return vp9(rest);
	if (kind === 'av01') return av1(rest);
	if (kind === 'mp4a' && rest[0] === '40') return { ...SAYS_NOTHING, words: AAC[rest[1] ?? ''] ?? '' };
	return SAYS_NOTHING;
}

function avc(hex: string): CodecSaid {
	if (!/^[0-9a-f]{6}$/i.test(hex)) return SAYS_NOTHING;
	const [profile, constraints, levelIdc] = [0, 2, 4].map((at) => parseInt(hex.slice(at, at + 2), 16)) as [
		number,
		number,
		number
	];
	const [name, bitDepth, chroma] = AVC[profile] ?? [`profile ${profile}`, 8, '4:2:0'];
	const constrained = profile === 66 && (constraints & CONSTRAINED) !== 0 ? 'Constrained ' : '';
	return { words: `${constrained}${name}, ${level(levelIdc)}`, bitDepth, chroma };
}

function hevc([profileText = '', , tier = '', ...constraints]: readonly string[]): CodecSaid {
	const profile = Number(/^[A-C]?(\d{1,2})$/.exec(profileText)?.[1] ?? NaN);
	const levelIdc = Number(/^[LH](\d{1,3})$/.exec(tier)?.[1] ?? NaN);
	if (!Number.isFinite(profile) || !Number.isFinite(levelIdc)) return SAYS_NOTHING;
	const at = `${level(levelIdc / 3)}${tier.startsWith('H') ? ', high tier' : ''}`;
	const known = HEVC[profile];
	if (known) return { words: `${known[0]}, ${at}`, bitDepth: known[1], chroma: '4:2:0' };
	// Format range extensions say by flags what they keep to: 12, 10, 8 bits; 4:2:2, then 4:2:0, none.
	const [flags = 0, more = 0] = constraints.map((hex) => parseInt(hex, 16));
	const bitDepth = flags & 2 ? 8 : flags & 4 ? 10 : flags & 8 ? 12 : 16;
	const chroma = more & 0x40 ? '4:0:0' : more & 0x80 ? '4:2:0' : flags & 1 ? '4:2:2' : '4:4:4';
	return { words: `${profile === 4 ? 'Range extensions' : `profile ${profile}`}, ${at}`, bitDepth, chroma };
}

function vp9([profile = '', levelText = '', bits = '', chromaText = '']: readonly string[]): CodecSaid {
	if (!/^0[0-3]$/.test(profile)) return SAYS_NOTHING;
	const chroma = { '02': '4:2:2', '03': '4:4:4' }[chromaText] ?? '4:2:0';
	return {
		words: `profile ${Number(profile)}${/^\d\d$/.test(levelText) && levelText !== '00' ? `, ${level(Number(levelText))}` : ''}`,
		bitDepth: /^(?:08|10|12)$/.test(bits) ? Number(bits) : 8,
		chroma: chroma as Chroma
	};
}

function av1([profile = '', tier = '', bits = '', mono = '', chromaText = '']: readonly string[]): CodecSaid {
	const index = Number(/^(\d\d)[MH]$/.exec(tier)?.[1] ?? NaN);
	const name = AV1[Number(profile)];
	if (!name || profile === '' || !Number.isFinite(index)) return SAYS_NOTHING;
	const chroma =
		mono === '1'
			? '4:0:0'
			: chromaText.startsWith('11')
				? '4:2:0'
				: chromaText.startsWith('10')
					? '4:2:2'
					: chromaText.startsWith('00')
						? '4:4:4'
						: '4:2:0';
	return {
		words: `${name}, level ${2 + (index >> 2)}.${index & 3}${tier.endsWith('H') ? ', high tier' : ''}`,
		bitDepth: /^(?:08|10|12)$/.test(bits) ? Number(bits) : 8,
		chroma
	};
}
