/** Brings photographs to a screen's own pixels, beside the page. */
import { expose } from 'comlink';
import { createSHA256 } from 'hash-wasm';
import { fitPhoto, type Fit, type Size } from '$core/links/sources/lists/photos';

/** A photograph as it goes on the card. */
export interface Fitted extends Size {
	readonly blob: Blob;
	readonly sha256: string;
}

const worker = {
	async fit(photo: Blob, screen: Size, fit: Fit, quality: number): Promise<Fitted> {
		// The browser turns it as its camera says, and brings its colours to those of screens.
		const bitmap = await createImageBitmap(photo, {
			colorSpaceConversion: 'default',
			imageOrientation: 'from-image'
		});
		const { from, to } = fitPhoto({ widthPx: bitmap.width, heightPx: bitmap.height }, screen, fit);
		const canvas = new OffscreenCanvas(to.widthPx, to.heightPx);
		const context = canvas.getContext('2d', { alpha: false })!;
		context.imageSmoothingQuality = 'high';
		context.drawImage(bitmap, from.x, from.y, from.widthPx, from.heightPx, 0, 0, to.widthPx, to.heightPx);
		bitmap.close();
		const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality });
		const hasher = await createSHA256();
		return { blob, sha256: hasher.update(new Uint8Array(await blob.arrayBuffer())).digest('hex'), ...to };
	}
};
export type FitWorker = typeof worker;
expose(worker);
