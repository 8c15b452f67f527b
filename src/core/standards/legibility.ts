import type { Edges, Turn } from './edges';

/** A screen's picture as it hangs there. */
export interface Panel {
	readonly diagonalIn: number;
	/** The picture's shape: for square pixels its width and height in pixels do. */
	readonly aspectWidth: number;
	readonly aspectHeight: number;
}

const MM_PER_INCH = 25.4;
const ARCMIN = Math.PI / (180 * 60);

/** Height and width of the picture, mm. */
export function pictureMm({ diagonalIn, aspectWidth, aspectHeight }: Panel): { widthMm: number; heightMm: number } {
	const unit = (diagonalIn * MM_PER_INCH) / Math.hypot(aspectWidth, aspectHeight);
	return { widthMm: unit * aspectWidth, heightMm: unit * aspectHeight };
}

/** How large something stands in the picture that spans this angle from there. */
export interface SeenHeight {
	readonly screenHeightMm: number;
	readonly heightMm: number;
	readonly heightPx: number;
}

/** The height that spans an angle at a distance: 2·d·tan(angle/2), and its pixels at so many rows. */
export function heightFor(panel: Panel, rows: number, distanceM: number, angleArcmin: number): SeenHeight {
	const { heightMm: screenHeightMm } = pictureMm(panel);
	const heightMm = 2 * distanceM * 1000 * Math.tan((angleArcmin * ARCMIN) / 2);
	return { screenHeightMm, heightMm, heightPx: (heightMm * rows) / screenHeightMm };
}

/** From how far something of this height in pixels spans the angle, m. */
export const readableFrom = (panel: Panel, rows: number, heightPx: number, angleArcmin: number): number =>
	(heightPx * pictureMm(panel).heightMm) / rows / 1000 / (2 * Math.tan((angleArcmin * ARCMIN) / 2));

/** Pixels an inch. */
export const pixelsPerInch = (panel: Panel, rows: number): number => rows / (pictureMm(panel).heightMm / MM_PER_INCH);

/** Whose eyes, and in what light. */
export interface Reader {
	readonly eyes: 'good' | 'usual' | 'weak';
	readonly light: 'dim' | 'room' | 'bright' | 'daylight';
	/** From the side: between the line of sight and the screen's own axis. */
	readonly angleDeg: number;
}

/**
 * Height of a capital letter for comfortable reading, arc minutes. ISO 9241-303 asks for 16 at least and prefers 20 to 22; weak
 * sight and light on the glass ask for more (its annex names 1.5 to 2 times for low vision; the shares here are typical).
 */
const CAPITAL_ARCMIN = { good: 16, usual: 20, weak: 32 } as const;
const LIGHT_FACTOR = { dim: 1, room: 1, bright: 1.25, daylight: 1.5 } as const;
/** What is read in passing: an icon's height against a capital letter's. Typical. */
const ICON_FACTOR = 2;

/**
 * Arc minutes that a capital letter needs for these readers. From the side it looks as much narrower as the cosine of the angle; taller by as
 * much, its strokes stand as far apart as before.
 */
export const capitalArcmin = ({ eyes, light, angleDeg }: Reader): number =>
	(CAPITAL_ARCMIN[eyes] * LIGHT_FACTOR[light]) / Math.cos((angleDeg * Math.PI) / 180);

/** A capital letter against the size of its font. Typical of plain typefaces: 0.7. */
export const CAPITAL_PER_FONT = 0.7;

/**
 * One module of a code that a phone's camera reads from there, mm: a code's side is a tenth of the distance for one of 25 modules.
 * Typical of phones; Source: ISO/IEC 18004 leaves it to the application.
 */
export const codeModuleMm = (distanceM: number): number => (distanceM * 1000) / 10 / 25;

/** The smallest that can be read there, mm and pixels of the mode. */
export interface Legible {
	readonly capitalMm: number;
	readonly capitalPx: number;
	readonly fontPx: number;
	readonly iconPx: number;
	/** Side of a code of 25 modules with its quiet zone. */
	readonly codePx: number;
}

/** Smallest readable sizes on this panel from this distance. */
export function legibleSizes(panel: Panel, rows: number, distanceM: number, reader: Reader): Legible {
	const capital = heightFor(panel, rows, distanceM, capitalArcmin(reader));
	const pxPerMm = rows / capital.screenHeightMm;
	return {
		capitalMm: capital.heightMm,
		capitalPx: Math.ceil(capital.heightPx),
		fontPx: Math.ceil(capital.heightPx / CAPITAL_PER_FONT),
		iconPx: Math.ceil(capital.heightPx * ICON_FACTOR),
		codePx: Math.ceil(codeModuleMm(distanceM) * (25 + 8) * pxPerMm)
	};
}

/** What light of the room leaves of a screen's contrast: white over black, both with what the glass throws back. */
export function contrastIn(peakCdM2: number, blackCdM2: number, roomLux: number, reflects: number): number {
	// A matt surface that throws back a share of the light is as bright as E·ρ/π. Source: CIE 17.4, luminance of a diffuser.
	const glare = (roomLux * reflects) / Math.PI;
	return (peakCdM2 + glare) / (blackCdM2 + glare);
}

/** A screen as who reads it sees it: upright, in pixels of its mode. */
export interface DrawnScreen {
	readonly widthPx: number;
	readonly heightPx: number;
	/** What the set cuts off, and what is drawn leaves free. */
	readonly edges: Edges;
	/** Quarter turns of what is drawn on its panel, clockwise. */
	readonly turn: Turn;
	/** null: nobody has chosen a screen, so nobody knows how large a pixel is. */
	readonly panel: Panel | null;
	/** Rows of the mode on the panel as it is made. */
	readonly modeRows: number;
	readonly distanceM: number;
	readonly reader: Reader;
}
