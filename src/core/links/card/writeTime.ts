import type { Context } from '../../link/context';
import { formatBytes, formatSeconds, withUnit } from '../../basics/format';
import type { CardSettings } from './settings';
import { computeWriteMin } from './wear';

/** Minutes that writing takes, in words; null while the image or the card is not known. */
export function writeTime(settings: CardSettings, context: Context): string | null {
	const card = context.part('card', context.facts.parts.card);
	const bytes = settings.image?.rawBytes;
	return card && bytes
		? `${formatSeconds(computeWriteMin(bytes, card) * 60_000)} for ${formatBytes(bytes)} at ${withUnit(card.writeMBps, 0, 'MB/s')}`
		: null;
}
