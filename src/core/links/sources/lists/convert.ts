import type { Context } from '../../../link/context';
import type { Media, MediaDetails, PlayedPicture } from '../../../parts/media';
import { MOST_SHARE, playLoad, type PlayLoad } from '../../../parts/playLoad';
import { videoShapeSchema, type PartOf, type VideoShape } from '../../../parts/schema';
import { shellWord } from '../../../formats/shell/quote';

type Board = Pick<PartOf<'board'>, 'name' | 'decoders' | 'softwareMpixPerSec'>;
type Film = Media & { readonly picture: PlayedPicture & { readonly framesPerSec: number } };

/** How a board plays a film. */
export interface FilmJudged {
	readonly load: PlayLoad | null;
	readonly plays: boolean;
	/** Why not, or how: "by circuit", "12 % of the processor". */
	readonly why: string;
	/** It plays, and looks wrong: as two fields, or in the colours of a brighter screen. */
	readonly flaw: 'interlaced' | 'hdr' | null;
}
/** A film made anew so that the board plays it. */
export interface Conversion {
	readonly location: string;
	/** What the new file is called; dropped under that name, it takes the old one's place. */
	readonly name: string;
	readonly shape: VideoShape;
	/** What the film is beyond its size, which the new one is not. */
	readonly from: Pick<MediaDetails, 'interlaced' | 'hdr'> & { readonly mixDown: boolean };
	/** null: its length is not known. */
	readonly sizeBytes: number | null;
	/** On an ordinary computer; null: its length is not known. */
	readonly minutes: number | null;
}

/** A film and not a still. */
export const isFilm = (media: Media | null): media is Film =>
	media?.picture != null && media.picture.framesPerSec !== null;

/** Whether the board plays it, by the same reckoning as the rehearsal. */
export function judgeFilm(whole: Board, { picture, details }: Pick<Film, 'picture' | 'details'>): FilmJudged {
	const flaw = details?.interlaced ? 'interlaced' : details?.hdr ? 'hdr' : null;
	const chroma = details?.chroma ?? '4:2:0';
	// Circuits of such boards take one way of sampling colour.
	const board = chroma === '4:2:0' ? whole : { ...whole, decoders: [] };
	const shape = videoShapeSchema.safeParse(picture);
	if (!shape.success)
		return {
			load: null,
			plays: false,
			flaw,
			why: `${picture.codec} in that size and depth is a kind that Yphos cannot judge`
		};
	const load = playLoad(board, shape.data);
	const percent = `${Math.round(load.share * 100)}\u2009% of the processor`;
	if (load.by === 'circuit') return { load, plays: true, flaw, why: 'decoded by circuit' };
	if (load.share <= MOST_SHARE) return { load, plays: true, flaw, why: percent };
	const circuits = whole.decoders.filter(({ codec }) => codec === shape.data.codec);
	const because =
		circuits.length === 0
			? `${board.name} has no circuit for ${shape.data.codec}`
			: shape.data.bitDepth > Math.max(...circuits.map(({ bitDepth }) => bitDepth))
				? `its circuit takes ${Math.max(...circuits.map(({ bitDepth }) => bitDepth))} bits a colour, the film has ${shape.data.bitDepth}`
				: chroma === '4:2:0'
					? 'it is larger or faster than its circuit takes'
					: `its circuit takes colour sampled 4:2:0, the film has ${chroma}`;
	return { load, plays: false, flaw, why: `it would need ${percent}: ${because}` };
}

/** Heights that films are made in, the tallest first. */
const HEIGHTS = [2160, 1440, 1080, 720, 576, 480, 360, 240];
/** Bits for each pixel that leave nothing to be seen of it. Typical of x264 at crf 20 and x265 at crf 22. */
const BITS_PER_PIXEL = { h264: 0.1, h265: 0.06 } as const;
/** Of x264 and x265 at their usual pace, on four cores of an ordinary computer, million pixels a second. Typical. */
const ENCODES_MPIX = { h264: 120, h265: 25 } as const;
const SOUND_BPS = 160_000;
const ENCODERS = { h264: 'libx264', h265: 'libx265' } as const;
type Encoded = keyof typeof ENCODERS;

/**
 * The nearest film that the board plays: as large as the screen shows, by circuit where it has one, at its own rate or half of it.
 * null: none, however small.
 */
export function convertFilm(
	board: Board,
	film: Film,
	most: { readonly widthPx: number; readonly heightPx: number } | null,
	/** Channels of the endpoint's output. */
	channels = 2
): Conversion | null {
	const { picture, durationMs, location, details } = film;
	const rates = picture.framesPerSec > 30 ? [picture.framesPerSec, picture.framesPerSec / 2] : [picture.framesPerSec];
	const scale = most ? Math.min(1, most.widthPx / picture.widthPx, most.heightPx / picture.heightPx) : 1;
	const tallest = Math.floor(picture.heightPx * scale);
	const heights = [tallest, ...HEIGHTS.filter((height) => height < tallest)];
	const even = (px: number): number => Math.max(16, 2 * Math.round(px / 2));
	for (const height of heights)
		for (const framesPerSec of rates)
			for (const codec of ['h264', 'h265'] as const) {
				const shape = {
					codec,
					widthPx: even((picture.widthPx * height) / picture.heightPx),
					heightPx: even(height),
					framesPerSec,
					bitDepth: 8 as const
				};
				if (!videoShapeSchema.safeParse(shape).success) continue;
				const load = playLoad(board, shape);
				if (load.by !== 'circuit' && (codec === 'h265' || load.share > MOST_SHARE)) continue;
				const mpix = (shape.widthPx * shape.heightPx * framesPerSec) / 1e6;
				const seconds = durationMs === null ? null : durationMs / 1000;
				const bps = mpix * 1e6 * BITS_PER_PIXEL[codec] + (film.silent ? 0 : SOUND_BPS);
				return {
					location,
					name: convertedName(location),
					shape,
					from: {
						...(details?.interlaced ? { interlaced: true } : {}),
						...(details?.hdr ? { hdr: details.hdr } : {}),
						mixDown: !film.silent && film.channels > channels && channels <= 2
					},
					sizeBytes: seconds === null ? null : Math.round((bps * seconds) / 8),
					minutes: seconds === null ? null : (mpix * seconds) / ENCODES_MPIX[codec] / 60
				};
			}
	return null;
}

/** Beside the old file: "Lens turning.mkv.plays.mp4"; of another kind, one of that name may lie there too. */
export const convertedName = (location: string): string => `${location.slice(location.lastIndexOf('/') + 1)}.plays.mp4`;

/** How each shell keeps a name as it is. Source: POSIX.1-2017, 2.2.2; PowerShell, about_Quoting_Rules. */
const WORD = {
	posix: (text: string): string => shellWord(text.startsWith('-') ? `./${text}` : text),
	powershell: (text: string): string => `'${(text.startsWith('-') ? `./${text}` : text).replaceAll("'", "''")}'`
} as const;
/** The person's own shell. */
export type Shell = keyof typeof WORD;

/** As a fraction where television made it a thousandth slower: 30000/1001, not 29.97. */
export function exactRate(framesPerSec: number): string {
	const whole = Math.round(framesPerSec);
	if (Math.abs(framesPerSec - whole) < 1e-6) return String(whole);
	return Math.abs(framesPerSec - (whole * 1000) / 1001) < 0.005
		? `${whole * 1000}/1001`
		: String(Number(framesPerSec.toFixed(6)));
}

/** Linear light, the screen's own primaries, and what is too bright bent into its range. Source: ffmpeg-filters(1), zscale, tonemap. */
const TONE_MAPPED =
	'zscale=t=linear:npl=100,format=gbrpf32le,zscale=p=bt709,tonemap=hable:desat=0,zscale=t=bt709:m=bt709:r=tv';
/** A screen that joins, a stream that seeks and a player that begins in the middle find a whole frame so often, s. */
const GOP_SEC = 2;
/** A passage that moves a lot may take so many times the usual rate; beyond that readers of old boards stall. */
const MOST_OF_USUAL = 3;

/** What makes it, on the person's own computer. Source: ffmpeg(1), ffmpeg-codecs(1), ffmpeg-filters(1): libx264, libx265, aac, bwdif, zscale. */
export function convertCommand({ location, name, shape, from }: Conversion, shell: Shell): string {
	const word = WORD[shell];
	const codec = shape.codec as Encoded;
	const usualBps = shape.widthPx * shape.heightPx * shape.framesPerSec * BITS_PER_PIXEL[codec];
	const mostKbps = Math.ceil((usualBps * MOST_OF_USUAL) / 1000);
	const filters = [
		...(from.interlaced ? ['bwdif=mode=send_frame'] : []),
		...(from.hdr ? [TONE_MAPPED] : []),
		`scale=${shape.widthPx}:${shape.heightPx}`,
		'format=yuv420p'
	];
	return [
		'ffmpeg',
		'-i',
		word(location.slice(location.lastIndexOf('/') + 1)),
		'-map 0:v:0 -map 0:a:0? -sn -dn',
		`-vf ${filters.join()} -r ${exactRate(shape.framesPerSec)}`,
		`-c:v ${ENCODERS[codec]} -crf ${codec === 'h264' ? '20 -profile:v high' : '22 -tag:v hvc1'}`,
		`-maxrate ${mostKbps}k -bufsize ${2 * mostKbps}k -g ${Math.round(shape.framesPerSec * GOP_SEC)}`,
		...(from.hdr ? ['-color_primaries bt709 -color_trc bt709 -colorspace bt709'] : []),
		`-c:a aac -b:a 160k${from.mixDown ? ' -ac 2' : ''} -movflags +faststart`,
		word(name)
	].join(' ');
}

/** What the browser of the pages decodes, all of it by the processor: Debian's is built with nothing else that such boards have. Tried with Chromium 156 in Debian 12. */
const BROWSER_PLAYS = ['h264', 'vp8', 'vp9', 'av1'];
/** What is left to decode with where a compositor without a graphics unit draws each frame too. Typical. */
const BROWSER_SHARE = 0.6;

/** The board as pages have it. */
const asBrowser = ({ name, softwareMpixPerSec }: Board): Board => ({
	name,
	decoders: [],
	softwareMpixPerSec: softwareMpixPerSec * BROWSER_SHARE
});

/** Whether a page on the board plays it. */
export function judgeOnPage(board: Board, film: Pick<Film, 'picture' | 'details'>): FilmJudged {
	const { codec } = film.picture;
	return BROWSER_PLAYS.includes(codec)
		? judgeFilm(asBrowser(board), film)
		: { load: null, plays: false, flaw: null, why: `the browser that shows the pages decodes no ${codec}` };
}

/** Films of the list that the board does not play, or not as they should look, with what makes them so. */
export function conversionsOf(
	items: readonly { readonly location: string }[],
	context: Context
): readonly { readonly film: Film; readonly judged: FilmJudged; readonly made: Conversion | null }[] {
	const board = context.part('board', context.facts.parts.board);
	if (!board || context.facts.picture === undefined) return [];
	const screen = context.part('screen', context.facts.parts.screen);
	const channels = Math.max(2, ...(context.part('converter', context.facts.parts.converter)?.playback.channels ?? []));
	return [...new Set(items.map(({ location }) => location))].flatMap((location) => {
		const film = context.media(location);
		if (!isFilm(film) || /^(?:udp|rtp|https?):/i.test(location)) return [];
		const byPage = context.facts.pageBrowser === true;
		const judged = byPage ? judgeOnPage(board, film) : judgeFilm(board, film);
		return judged.plays && judged.flaw === null
			? []
			: [{ film, judged, made: convertFilm(byPage ? asBrowser(board) : board, film, screen, channels) }];
	});
}
