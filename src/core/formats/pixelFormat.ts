import type { Chroma } from './codecString';

/** What a name of a pixel format says. */
export interface PixelFormat {
	readonly bitDepth: number;
	readonly chroma: Chroma;
	readonly fullRange: boolean;
}

const SAMPLED: Readonly<Record<string, Chroma>> = {
	'420': '4:2:0',
	'422': '4:2:2',
	'444': '4:4:4',
	// Sampled as in no film that circuits take; nearer to the finer of its neighbours.
	'440': '4:2:2',
	'411': '4:2:2',
	'410': '4:2:0'
};
/** Two planes, colour in the second. */
const SEMI_PLANAR: Readonly<Record<string, readonly [Chroma, number]>> = {
	nv12: ['4:2:0', 8],
	nv21: ['4:2:0', 8],
	nv16: ['4:2:2', 8],
	nv20: ['4:2:2', 10],
	nv24: ['4:4:4', 8]
};

/** Reads the name that ffprobe gives the samples of a picture, as yuv422p10le; null: none that is known. Source: FFmpeg's libavutil, pixdesc.c. */
export function readPixelFormat(name: string): PixelFormat | null {
	const read = name.length <= LONGEST_NAME ? named(name.toLowerCase()) : null;
	return read && read.bitDepth >= 1 && read.bitDepth <= 16 ? read : null;
}
const LONGEST_NAME = 40;

function named(text: string): PixelFormat | null {
	const planar = /^yuv(j?)a?(4\d\d)p(\d{1,2})?(?:le|be)?$/.exec(text);
	if (planar)
		return {
			bitDepth: Number(planar[3] ?? 8),
			chroma: SAMPLED[planar[2]!] ?? '4:4:4',
			fullRange: planar[1] === 'j'
		};
	const semi = SEMI_PLANAR[text.replace(/(?:le|be)$/, '')];
	if (semi) return { chroma: semi[0], bitDepth: semi[1], fullRange: false };
	const deep = /^p([024])(\d\d)(?:le|be)?$/.exec(text);
	if (deep)
		return {
			bitDepth: Number(deep[2]),
			chroma: ({ '0': '4:2:0', '2': '4:2:2', '4': '4:4:4' } as const)[deep[1] as '0' | '2' | '4'],
			fullRange: false
		};
	const grey = /^gray(\d{1,2})?(?:le|be)?$/.exec(text);
	if (grey) return { bitDepth: Number(grey[1] ?? 8), chroma: '4:0:0', fullRange: false };
	const mixed = /^(?:gbra?p|rgb|bgr|[argb0]{4}|pal)(\d{1,2})?(?:le|be)?$/.exec(text);
	if (mixed) {
		const bits = Number(mixed[1] ?? 8);
		// As many for the whole pixel, where the colours stand together.
		return { bitDepth: bits > 16 ? Math.round(bits / 3) : bits, chroma: '4:4:4', fullRange: true };
	}
	return null;
}
