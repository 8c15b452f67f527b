import type { Block } from './blocks';
import type { Shown } from './content';
import { GLYPH_WIDTHS, GLYPHS } from './glyphTable';
import type { Zone } from '../settings';
import type { NoticeTheme } from '../../../standards/pageTheme';

/**
 * Sizes against the zone's own text, and distances in its font's size. What is drawn and what is reckoned both read them: see
 * `src/player/draw.ts`.
 */
export const SET = {
	headingEm: 1.3,
	noteEm: 0.6,
	headEm: 0.75,
	lineHeight: 1.25,
	betweenBlocksEm: 0.3,
	indentEm: 0.9,
	betweenColumnsEm: 0.7,
	/** A wrapped column is never narrower. */
	leastColumnEm: 4,
	belowTitleEm: 0.25,
	leastCurveEm: 4
} as const;

type Font = NoticeTheme['font'];
const tables = new Map<string, ReadonlyMap<string, number>>();
function widthsOf(font: Font, bold: boolean): ReadonlyMap<string, number> {
	const key = `${font} ${bold}`;
	let table = tables.get(key);
	if (!table) {
		const widths = GLYPH_WIDTHS[font][bold ? 'bold' : 'plain'];
		tables.set(key, (table = new Map([...GLYPHS].map((character, n) => [character, widths[n]!]))));
	}
	return table;
}

/** For a character that the table lacks: as wide as it is high. */
const UNKNOWN = 1000;
/** Width of a text in its font's size. */
export function textEm(text: string, font: Font, bold = false): number {
	const widths = widthsOf(font, bold);
	let sum = 0;
	for (const character of text) sum += widths.get(character) ?? UNKNOWN;
	return sum / 1000;
}

/** How many lines a text makes in a width, both in its font's size; a word that is too long is broken. */
export function linesIn(text: string, widthEm: number, font: Font, bold = false): number {
	const space = textEm(' ', font, bold);
	let lines = 1;
	let at = 0;
	for (const word of text.split(/[ \u00ad]+/)) {
		const width = textEm(word, font, bold);
		if (at > 0 && at + space + width > widthEm) {
			lines++;
			at = 0;
		}
		if (width > widthEm) {
			lines += Math.ceil(width / widthEm) - 1;
			at = width % widthEm;
		} else at += (at > 0 ? space : 0) + width;
	}
	return lines;
}

/** Columns as they share a width, in the font's size: each as its widest cell, and the widest of all takes what is left. */
export function columnsEm(rows: readonly (readonly string[])[], widthEm: number, font: Font): number[] {
	const many = rows[0]?.length ?? 0;
	const wanted = Array.from({ length: many }, (_, n) => Math.max(0, ...rows.map((row) => textEm(row[n] ?? '', font))));
	const room = widthEm - SET.betweenColumnsEm * Math.max(0, many - 1);
	const over = wanted.reduce((a, b) => a + b, 0) - room;
	if (over <= 0) return wanted;
	const widest = wanted.indexOf(Math.max(...wanted));
	return wanted.map((em, n) => (n === widest ? Math.max(SET.leastColumnEm, em - over) : em));
}

/** Room that a zone's text takes, against what it has, px. */
export interface Fit {
	readonly heightPx: number;
	readonly roomPx: number;
	/** The widest thing that cannot be broken, and the room for it. */
	readonly widthPx: number;
	readonly roomWidthPx: number;
	/** How many rows have room; null: it has none. */
	readonly rowsFit: number | null;
}
/** Whether all of it is seen. */
export const fits = ({ heightPx, roomPx, widthPx, roomWidthPx }: Fit): boolean =>
	heightPx <= roomPx + 0.5 && widthPx <= roomWidthPx + 0.5;

const blocksEm = (blocks: readonly Block[], widthEm: number, font: Font): number =>
	blocks.reduce((sum, { kind, runs }, n) => {
		const text = runs.map((run) => run.text).join('');
		const size = kind === 'heading' ? SET.headingEm : 1;
		const width = (kind === 'item' ? widthEm - SET.indentEm : widthEm) / size;
		const lines = linesIn(text, width, font, kind === 'heading' || runs.some(({ bold }) => bold));
		return sum + lines * SET.lineHeight * size + (n > 0 ? SET.betweenBlocksEm : 0);
	}, 0);

/** What a zone's content needs of a room, all in pixels. */
export function fitOf(
	zone: Pick<Zone, 'title' | 'textPx'>,
	{ content, note }: Pick<Shown, 'content' | 'note'>,
	room: { readonly width: number; readonly height: number },
	font: Font
): Fit {
	const { textPx } = zone;
	const widthEm = Math.max(0.1, room.width / textPx);
	const titleEm = zone.title ? linesIn(zone.title, widthEm, font, true) * SET.lineHeight + SET.belowTitleEm : 0;
	const noteEm = note ? SET.noteEm * SET.lineHeight * linesIn(note, widthEm / SET.noteEm, font) : 0;
	const fit = (bodyEm: number, wideEm = 0, rowsFit: number | null = null): Fit => ({
		heightPx: (titleEm + bodyEm + noteEm) * textPx,
		roomPx: room.height,
		widthPx: wideEm * textPx,
		roomWidthPx: room.width,
		rowsFit
	});
	switch (content.kind) {
		case 'blocks':
			return fit(blocksEm(content.blocks, widthEm, font));
		case 'line':
			return fit(linesIn(content.text, widthEm, font, true) * SET.lineHeight);
		case 'rows': {
			const { heads, rows } = content;
			const columns = columnsEm(rows, widthEm, font);
			const headEm = heads.some(Boolean) ? SET.headEm * SET.lineHeight : 0;
			const rowEm = rows.map(
				(row) =>
					SET.lineHeight * Math.max(1, ...row.map((cell, n) => linesIn(cell, Math.max(0.1, columns[n]! + 0.01), font)))
			);
			const free = room.height / textPx - titleEm - noteEm - headEm;
			let used = 0;
			let rowsFit = 0;
			for (const em of rowEm) if ((used += em) <= free + 0.01) rowsFit++;
			const wideEm = columns.reduce((a, b) => a + b, 0) + SET.betweenColumnsEm * Math.max(0, columns.length - 1);
			return fit(headEm + rowEm.reduce((a, b) => a + b, 0), wideEm, rowsFit);
		}
		case 'curve':
			return fit(SET.leastCurveEm);
		case 'code':
		case 'media':
			return fit(titleEm > 0 ? 1 : 0);
		case 'nothing':
			return fit(0);
	}
}
