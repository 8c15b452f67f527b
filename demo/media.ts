import { box, frame, word, wordWidth, writePng, type Drawing, type Shape } from '$core/formats/drawing';
import { CORNER_COLOURS } from '$core/links/picture/edges/cards';
import { FILM, POSTER, POSTERS } from './facts';
import { LENS_FILM } from './film';
import { toneBytes } from './tones';

const PAPER = '#f5efdd';
const BOTTLE = '#155b48';
const SEA = '#2f6f8f';
const LAMP = '#e0a030';
function poster(lines: readonly string[]): Drawing {
	const { widthPx, heightPx } = POSTER;
	const longest = Math.max(...lines.map((line) => line.length));
	const dot = Math.floor((widthPx * 0.8) / wordWidth('0'.repeat(longest), 1));
	const side = 72;
	const marks: Shape[] = [
		// Of known colours, so that a photograph of the screen tells which way up it stands.
		box(0, 0, side, side, CORNER_COLOURS[0]),
		box(widthPx - side, 0, side, side, CORNER_COLOURS[1]),
		box(widthPx - side, heightPx - side, side, side, CORNER_COLOURS[2]),
		box(0, heightPx - side, side, side, CORNER_COLOURS[3])
	];
	return {
		...POSTER,
		ground: PAPER,
		shapes: [
			box(0, heightPx * 0.78, widthPx, heightPx * 0.22, SEA),
			box(widthPx * 0.44, heightPx * 0.6, widthPx * 0.12, heightPx * 0.2, BOTTLE),
			box(widthPx * 0.41, heightPx * 0.57, widthPx * 0.18, heightPx * 0.03, LAMP),
			...frame(24, 24, widthPx - 48, heightPx - 48, 8, BOTTLE),
			...lines.flatMap((line, n) => word(line, Math.round(widthPx * 0.1), 160 + n * dot * 10, dot, BOTTLE)),
			...marks
		]
	};
}

const fromBase64 = (text: string): Uint8Array => Uint8Array.from(atob(text), (char) => char.charCodeAt(0));

const made = new Map<string, Uint8Array>();

/** The bytes of a piece of demo media, or null when it is none. */
export function demoMediaBytes(location: string): Uint8Array | null {
	let bytes = toneBytes(location) ?? made.get(location) ?? null;
	if (!bytes) {
		bytes = make(location);
		if (bytes) made.set(location, bytes);
	}
	return bytes;
}

function make(location: string): Uint8Array | null {
	if (location === FILM) return fromBase64(LENS_FILM);
	const lines = POSTERS[location]?.lines;
	return lines ? writePng(poster(lines)) : null;
}

/** What of a list the demo brings along, by location. */
export const demoMediaOf = (items: readonly { readonly location: string }[]): Map<string, Uint8Array> =>
	new Map(
		items.flatMap(({ location }) => {
			const bytes = demoMediaBytes(location);
			return bytes ? [[location, bytes] as const] : [];
		})
	);
