import { fault, ok, type Result } from '$core/basics/result';
import { openThrough, readShort } from './openThrough';

/** Kept as a square of so many pixels at most; what comes is no larger than this. */
const SIDE_PX = 64;
const MOST_BYTES = 1_000_000;
const MOST_MS = 10_000;

/** Fetches a station's logo and makes a small picture of it, as a data address. Faults: `logo`. */
export async function fetchLogo(url: string, allowed: string | null): Promise<Result<string>> {
	try {
		const { body } = await openThrough(url, allowed, AbortSignal.timeout(MOST_MS));
		const bytes = await readShort(body, MOST_BYTES, 'This is larger than any logo: 1\u2009MB at most.');
		// What draws itself by a script of its own is no picture here: only pixels are taken.
		const picture = await createImageBitmap(new Blob([bytes])).catch(() => null);
		if (!picture)
			return fault('logo', 'What is at that address is no picture that a browser shows: PNG, JPEG, WebP or GIF.');
		const scale = Math.min(1, SIDE_PX / Math.max(picture.width, picture.height));
		const canvas = document.createElement('canvas');
		canvas.width = Math.max(1, Math.round(picture.width * scale));
		canvas.height = Math.max(1, Math.round(picture.height * scale));
		canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
		picture.close();
		return ok(canvas.toDataURL('image/png'));
	} catch (error) {
		const { name, message } = error as Error;
		return fault('logo', name === 'TimeoutError' ? 'It did not come in ten seconds.' : message);
	}
}
