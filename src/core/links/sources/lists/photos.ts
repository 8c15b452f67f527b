import type { Context } from '../../../link/context';
import type { Media } from '../../../parts/media';

/** How a photograph is brought to the screen's shape: whole, with bars where its shape differs; or filling it, cut at its edges. */
export type Fit = 'whole' | 'fill';
/** Pixels. */
export interface Size {
	readonly widthPx: number;
	readonly heightPx: number;
}

/** Which part of a picture is taken, and how large it becomes; never larger than it is. All in whole pixels. */
export function fitPhoto(
	photo: Size,
	screen: Size,
	fit: Fit
): { readonly from: Size & { readonly x: number; readonly y: number }; readonly to: Size } {
	if (fit === 'whole') {
		const scale = Math.min(1, screen.widthPx / photo.widthPx, screen.heightPx / photo.heightPx);
		const px = (length: number): number => Math.max(1, Math.round(length * scale));
		return { from: { x: 0, y: 0, ...photo }, to: { widthPx: px(photo.widthPx), heightPx: px(photo.heightPx) } };
	}
	// The largest part of the screen's shape, from the middle.
	const part = Math.min(photo.widthPx / screen.widthPx, photo.heightPx / screen.heightPx);
	const widthPx = Math.max(1, Math.round(screen.widthPx * part));
	const heightPx = Math.max(1, Math.round(screen.heightPx * part));
	const scale = Math.min(1, 1 / part);
	return {
		from: {
			x: Math.floor((photo.widthPx - widthPx) / 2),
			y: Math.floor((photo.heightPx - heightPx) / 2),
			widthPx,
			heightPx
		},
		to: { widthPx: Math.max(1, Math.round(widthPx * scale)), heightPx: Math.max(1, Math.round(heightPx * scale)) }
	};
}

/** As it stands upright. */
export const upright = ({ picture, details }: Media): Size | null =>
	(picture &&
		(details?.turnedDeg === 90 || details?.turnedDeg === 270
			? { widthPx: picture.heightPx, heightPx: picture.widthPx }
			: { widthPx: picture.widthPx, heightPx: picture.heightPx })) ||
	null;

/** Photographs of the list whose bytes are here and that have more pixels than the screen, or stand turned. */
export function photosToFit(
	items: readonly { readonly location: string }[],
	screen: Size,
	{ media }: Pick<Context, 'media'>
): Media[] {
	return [...new Set(items.map(({ location }) => location))].flatMap((location) => {
		const found = media(location);
		const size = found && upright(found);
		if (!found || !size || found.picture?.framesPerSec !== null || found.kept !== 'browser') return [];
		const larger = size.widthPx > screen.widthPx || size.heightPx > screen.heightPx;
		return larger || found.details?.turnedDeg ? [found] : [];
	});
}

/** What a fitted photograph is called. */
export const fittedName = (location: string): string => `${location.replace(/\.[A-Za-z0-9]{1,5}$/, '')}.fitted.jpg`;
