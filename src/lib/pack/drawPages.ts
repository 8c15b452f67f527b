import { PLAYER_FONTS, PLAYER_STYLE } from 'virtual:player';
import type { Context } from '$core/link/context';
import { picturesOf } from '$core/links/notices/drawn/pictures';
import type { NoticesSettings } from '$core/links/notices/settings';
import { worldOf } from '$core/links/notices/pages/world';
import { noticeStage } from '$lib/media/noticeStage';
import { PageView } from '../../player/draw';

const XHTML = 'http://www.w3.org/1999/xhtml';

/** The page's own style sheet, with its typefaces in it: what is drawn may fetch nothing. */
const styleSheet = (): string =>
	PLAYER_FONTS.reduce(
		(css, { file, base64 }) => css.replaceAll(`url(fonts/${file})`, `url(data:font/woff2;base64,${base64})`),
		PLAYER_STYLE
	);

/**
 * Draws all pictures of an endpoint's pages, as PNG by their names; none where a browser shows the pages. Each page becomes a picture
 * the way browsers draw foreign markup within SVG. Throws what went wrong, and when it is given up. Source: SVG 2, foreignObject.
 */
export async function drawPages(
	settings: NoticesSettings,
	context: Context,
	mediaBytes: ReadonlyMap<string, Uint8Array>,
	onPart: (part: number) => void,
	signal: AbortSignal
): Promise<Map<string, Uint8Array>> {
	const drawn = new Map<string, Uint8Array>();
	const found = settings.used && settings.shownBy === 'pictures' ? picturesOf(settings, context) : null;
	if (!found) return drawn;
	const { show, drawings } = found;
	const { widthPx, heightPx } = show.screen;
	// What goes on the card has its photographs, however large.
	const stage = noticeStage(show, context.facts.entries ?? [], mediaBytes, Infinity);
	const style = document.createElementNS(XHTML, 'style');
	style.textContent = styleSheet();
	const head = new XMLSerializer().serializeToString(style);
	const canvas = new OffscreenCanvas(widthPx, heightPx);
	const pen = canvas.getContext('2d')!;
	const draw = async (root: Element): Promise<void> => {
		const page = new XMLSerializer().serializeToString(root);
		const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${heightPx}"><foreignObject width="100%" height="100%">${head}${page}</foreignObject></svg>`;
		const image = new Image();
		image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
		await image.decode();
		pen.drawImage(image, 0, 0);
	};
	let first = true;
	for (const { name, page, utcMs } of drawings) {
		signal.throwIfAborted();
		const view = new PageView();
		view.show(page, stage, worldOf(show, utcMs, new Map(), true));
		// Typefaces are there from the second time on.
		if (first) await draw(view.root);
		first = false;
		await draw(view.root);
		const png = await canvas.convertToBlob({ type: 'image/png' });
		drawn.set(name, new Uint8Array(await png.arrayBuffer()));
		onPart(drawn.size / drawings.length);
	}
	return drawn;
}
