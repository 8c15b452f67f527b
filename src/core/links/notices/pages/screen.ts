import type { Context } from '../../../link/context';
import {
	capitalArcmin,
	codeModuleMm,
	heightFor,
	pictureMm,
	readableFrom,
	type DrawnScreen
} from '../../../standards/legibility';
import { QUIET_MODULES } from './code';
import { GLYPH_WIDTHS } from './glyphTable';
import type { NoticesSettings, Zone } from '../settings';
import type { NoticeTheme } from '../../../standards/pageTheme';

/** The screen that pages are drawn for. */
export type NoticeScreen = DrawnScreen;

/** The screen of an endpoint; null: it shows no picture. Pictures of pages are shown within what the set shows: the player sees to that. */
export function noticeScreen(context: Context): NoticeScreen | null {
	const screen = context.facts.picture?.screen(context) ?? null;
	if (!screen || context.facts.pageBrowser) return screen;
	const { left, right, top, bottom } = screen.edges;
	return {
		...screen,
		// Edges as wide as the screen leave nothing; a picture has a size all the same.
		widthPx: Math.max(1, screen.widthPx - left - right),
		heightPx: Math.max(1, screen.heightPx - top - bottom),
		edges: { left: 0, right: 0, top: 0, bottom: 0 }
	};
}

/** A rectangle in pixels of the upright screen. */
export interface Box {
	readonly left: number;
	readonly top: number;
	readonly width: number;
	readonly height: number;
}

type Shape = Pick<NoticeScreen, 'widthPx' | 'heightPx' | 'edges'>;

/** What is left of the screen for zones: within what the set shows, and the theme's margin. */
export function pageBox({ widthPx, heightPx, edges }: Shape, { marginPercent }: NoticeTheme): Box {
	const margin = (Math.min(widthPx, heightPx) * marginPercent) / 100;
	return {
		left: edges.left + margin,
		top: edges.top + margin,
		width: Math.max(1, widthPx - edges.left - edges.right - 2 * margin),
		height: Math.max(1, heightPx - edges.top - edges.bottom - 2 * margin)
	};
}

/** Between zones, px. */
export const gapPx = ({ widthPx, heightPx }: Shape, { gapPercent }: NoticeTheme): number =>
	(Math.min(widthPx, heightPx) * gapPercent) / 100;

/** Where a zone stands. */
export function zoneBox(
	screen: Shape,
	theme: NoticeTheme,
	grid: NoticesSettings['grid'],
	zone: Pick<Zone, 'x' | 'y' | 'w' | 'h'>
): Box {
	const page = pageBox(screen, theme);
	const gap = gapPx(screen, theme);
	const cell = { width: (page.width + gap) / grid.columns, height: (page.height + gap) / grid.rows };
	return {
		left: page.left + zone.x * cell.width,
		top: page.top + zone.y * cell.height,
		width: Math.max(1, zone.w * cell.width - gap),
		height: Math.max(1, zone.h * cell.height - gap)
	};
}

/** Between a zone's edge and its text, px. */
export const paddingPx = (screen: Shape): number => Math.round(Math.min(screen.widthPx, screen.heightPx) * 0.014);

/** From how far text of that size can be read, m; null: nobody knows how large a pixel is. Source: `../picture/legibility.ts`. */
export const legibleToM = (screen: NoticeScreen, { font }: NoticeTheme, textPx: number): number | null =>
	screen.panel && readableFrom(screen.panel, screen.modeRows, textPx * capitalEm(font), capitalArcmin(screen.reader));

/** The smallest text that is read from where people stand, px. */
export const smallestTextPx = (
	{ panel, modeRows, distanceM, reader }: NoticeScreen,
	{ font }: NoticeTheme
): number | null =>
	panel && Math.ceil(heightFor(panel, modeRows, distanceM, capitalArcmin(reader)).heightPx / capitalEm(font));

/** Side that a code of so many modules needs, its quiet zone with it, to be scanned from where people stand, px. */
export const codePxFrom = ({ panel, modeRows, distanceM }: NoticeScreen, modules: number): number =>
	panel
		? Math.ceil(codeModuleMm(distanceM) * (modules + 2 * QUIET_MODULES) * (modeRows / pictureMm(panel).heightMm))
		: 0;

/** A capital letter against its font's size, as the typeface has it. */
const capitalEm = (font: NoticeTheme['font']): number => GLYPH_WIDTHS[font].capital / 1000;
