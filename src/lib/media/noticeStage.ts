import type { Show } from '$core/links/notices/pages/show';
import type { Stage } from '../../player/draw';
import { addressOf } from './address';

/** What pages are drawn with here: media by their bytes, as far as the app has them. */
export const noticeStage = (
	show: Show,
	items: readonly { readonly id: string; readonly location: string }[],
	bytes: ReadonlyMap<string, Uint8Array>,
	mostBytes?: number
): Stage => ({
	...show,
	mediaOf(id) {
		const entry = items.find((one) => one.id === id);
		return entry ? addressOf(bytes.get(entry.location), mostBytes) : null;
	}
});
