import type { Context } from '../../link/context';
import { chosenOf, clockOf } from '../../parts/chosen';
import { decodes, MOST_SHARE, playLoad, softwareMpixPerSec } from '../../parts/playLoad';
import { CODEC_WORDS, type PartOf, type VideoShape } from '../../parts/schema';
import type { PartsSettings } from './settings';

type Board = PartOf<'board'>;

/** One reason for or against a board: what is needed, what it has, and by how much it falls short. */
interface Reason {
	readonly what: string;
	readonly good: boolean;
	readonly words: string;
}
interface Ranked {
	readonly board: Board;
	readonly fits: boolean;
	readonly reasons: readonly Reason[];
}

/** Memory that a wish takes with the system it runs on. Typical. */
const MEMORY_MB = { music: 300, film: 700, photos: 700, notices: 900, recorder: 700, 'second-screen': 700 } as const;

/** All boards of the drawer: those that fit first, cheapest first; the others by how little they miss. */
export function rankBoards(settings: PartsSettings, context: Context): Ranked[] {
	const needs = needsOf(settings, context);
	return context.drawer
		.flatMap((part) => (part.kind === 'board' ? [judge(part, needs)] : []))
		.sort(
			(a, b) =>
				a.reasons.filter(({ good }) => !good).length - b.reasons.filter(({ good }) => !good).length ||
				(a.board.price ?? Infinity) - (b.board.price ?? Infinity)
		);
}

/** The same for one board alone. */
export const judgeBoard = (board: Board, settings: PartsSettings, context: Context): Ranked =>
	judge(board, needsOf(settings, context));

function judge(board: Board, needs: readonly Need[]): Ranked {
	const reasons = needs.map((need) => need(board));
	return { board, reasons, fits: reasons.every(({ good }) => good) };
}

type Need = (board: Board) => Reason;

function needsOf(settings: PartsSettings, context: Context): Need[] {
	const chosen = chosenOf(settings, context);
	const usb = chosen.reduce(
		(sum, { part, count }) => sum + (part.kind !== 'board' && part.sockets.some(isUsbPlug) ? count : 0),
		0
	);
	const usesHeader = chosen.some(({ part }) => part.header !== null);
	const hubs = chosen.reduce((sum, { part, count }) => sum + (part.kind === 'hub' ? part.ports * count : 0), 0);
	const { wish, film } = context.facts;
	return [
		needMemory(MEMORY_MB[wish]),
		...(film ? [needDecoder(film)] : []),
		...(usb > 0 ? [needUsb(usb, hubs)] : []),
		...(usesHeader ? [need('header', (board) => has(board, 'header'), 'a 40-pin header', 'no header')] : []),
		...(context.facts.way === 'wired'
			? [need('network', (board) => board.wired, 'an Ethernet socket', 'no Ethernet socket')]
			: context.facts.way === 'radio'
				? [need('network', (board) => board.radio, 'Wi-Fi', 'no Wi-Fi')]
				: []),
		...(context.part('converter', settings.converter)?.joint === 'jack'
			? [
					need(
						'sound',
						(board) => has(board, 'jack-4') || has(board, 'jack-3'),
						'a headphone jack',
						'no headphone jack'
					)
				]
			: []),
		...(context.facts.programme?.quiet.length && context.facts.way === 'none' && !clockOf(context)
			? [need('clock', (board) => board.hasClock, 'a clock', 'no clock of its own')]
			: [])
	];
}

const isUsbPlug = (socket: { plug: string; way: string }): boolean =>
	socket.way === 'in' && (socket.plug === 'usb-a' || socket.plug === 'usb-b');
const has = (board: Board, plug: string): boolean => board.sockets.some((socket) => socket.plug === plug);
const need =
	(what: string, is: (board: Board) => boolean, yes: string, no: string): Need =>
	(board) => ({ what, good: is(board), words: is(board) ? yes : no });

const needMemory =
	(mb: number): Need =>
	({ memoryMb }) => ({
		what: 'memory',
		good: memoryMb >= mb,
		words: memoryMb >= mb ? `${memoryMb / 1024}\u2009GB` : `${mb - memoryMb}\u2009MB of memory short of ${mb}`
	});

function needUsb(devices: number, hubPorts: number): Need {
	return (board) => {
		const own = board.sockets
			.filter(({ way, plug }) => way === 'out' && (plug === 'usb-a' || plug === 'micro-usb'))
			.reduce((sum, { count }) => sum + count, 0);
		const missing = devices - own - hubPorts;
		return {
			what: 'USB',
			good: missing <= 0,
			words: missing <= 0 ? `${own} USB for ${devices}` : `${missing} USB socket${missing > 1 ? 's' : ''} short`
		};
	};
}

/** By its circuit, by its processors, or not, and then by how much. */
function needDecoder(video: VideoShape): Need {
	return (board) => {
		if (board.decoders.some((decoder) => decodes(decoder, video)))
			return { what: 'film', good: true, words: `${CODEC_WORDS[video.codec]} by its own circuit` };
		const { share } = playLoad(board, video);
		const same = board.decoders.filter(({ codec }) => codec === video.codec);
		const short =
			same.length === 0
				? `no circuit for ${CODEC_WORDS[video.codec]}`
				: same.every(({ bitDepth }) => bitDepth < video.bitDepth)
					? `its circuit takes ${Math.max(...same.map(({ bitDepth }) => bitDepth))} bit, not ${video.bitDepth}`
					: `its circuit ends at ${same[0]!.heightPx} lines, ${same[0]!.framesPerSec} a second`;
		return share <= MOST_SHARE
			? { what: 'film', good: true, words: `${short}; its processors manage with ${Math.round(share * 100)}\u2009%` }
			: {
					what: 'film',
					good: false,
					words: `${short}; its processors are ${(softwareMpixPerSec(video) / board.softwareMpixPerSec / MOST_SHARE).toFixed(1)} times too slow`
				};
	};
}
