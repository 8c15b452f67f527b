import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Media } from '../../../parts/media';
import { fitPhoto, fittedName, photosToFit, upright } from './photos';

const size = (widthPx: number, heightPx: number) => ({ widthPx, heightPx });
const HD = size(1920, 1080);

describe('a photograph is fitted', () => {
	it.each([
		[size(4000, 3000), 'whole', { x: 0, y: 0, ...size(4000, 3000) }, size(1440, 1080)],
		[size(4000, 3000), 'fill', { x: 0, y: 375, ...size(4000, 2250) }, HD],
		[size(3000, 4000), 'fill', { x: 0, y: 1156, ...size(3000, 1688) }, size(1920, 1080)],
		[size(800, 600), 'whole', { x: 0, y: 0, ...size(800, 600) }, size(800, 600)],
		[size(800, 600), 'fill', { x: 0, y: 75, ...size(800, 450) }, size(800, 450)]
	] as const)('%j, %s', (photo, fit, from, to) => expect(fitPhoto(photo, HD, fit)).toEqual({ from, to }));
	it('within the picture and the screen, in its shape, never larger', () =>
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 20_000 }),
				fc.integer({ min: 1, max: 20_000 }),
				fc.constantFrom('whole' as const, 'fill' as const),
				(w, h, fit) => {
					const { from, to } = fitPhoto(size(w, h), HD, fit);
					expect(from.x >= 0 && from.y >= 0 && from.x + from.widthPx <= w + 1 && from.y + from.heightPx <= h + 1).toBe(
						true
					);
					expect(to.widthPx <= 1920 && to.heightPx <= 1080 && to.widthPx >= 1 && to.heightPx >= 1).toBe(true);
					expect(to.widthPx <= from.widthPx + 1 && to.heightPx <= from.heightPx + 1).toBe(true);
				}
			)
		));
});

it('only what is larger than the screen, or turned, and here', () => {
	const photo = (change: Partial<Media>, w = 4000): Media =>
		({
			location: 'a',
			kept: 'browser',
			picture: { codec: 'mjpeg', ...size(w, 1000), framesPerSec: null, bitDepth: 8 },
			...change
		}) as Media;
	const fits = (media: Media): number => photosToFit([media, media], HD, { media: () => media }).length;
	expect(fits(photo({}))).toBe(1);
	expect(fits(photo({}, 1000))).toBe(0);
	expect(fits(photo({ details: { turnedDeg: 90 } } as never, 1000))).toBe(1);
	expect(fits(photo({ kept: 'person' }))).toBe(0);
	expect(fits(photo({ picture: { codec: 'h264', ...size(4000, 1000), framesPerSec: 25, bitDepth: 8 } }))).toBe(0);
	expect(upright(photo({ details: { turnedDeg: 270 } } as never))).toEqual(size(1000, 4000));
	expect(fittedName('Gull at sea.JPEG')).toBe('Gull at sea.fitted.jpg');
});
