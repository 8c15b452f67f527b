import type { Media } from '$core/parts/media';
import { store } from '$lib/store/workshop.svelte';

/** "44.1/16", "48/aac": how samples are made; "": nobody has said, or there are none. */
export const madeWords = (media: Media | null): string =>
	media && !media.silent ? `${media.sampleRateHz / 1000}/${media.lossless ? media.bitDepth : media.codec}` : '';

/** Takes what a person says of a source that cannot be asked, as "44.1/16" or "48/aac"; anything else changes nothing. */
export function describeMade(location: string, text: string, known: Media | null): void {
	const m = /^\s*(\d+(?:[.,]\d+)?)\s*\/\s*(\d+|[a-z0-9]+)\s*$/i.exec(text);
	const khz = Number(m?.[1]?.replace(',', '.'));
	if (!m || khz < 4 || khz > 3000) return;
	const bits = Number(m[2]);
	const lossless = Number.isInteger(bits) && bits >= 8 && bits <= 64;
	const media: Media = {
		...(known?.picture ? { picture: known.picture } : {}),
		...(known?.details ? { details: known.details } : {}),
		location,
		codec: lossless ? 'pcm' : m[2]!.toLowerCase(),
		lossless,
		sampleRateHz: Math.round(khz * 1000),
		bitDepth: lossless ? bits : 24,
		channels: 2,
		bitRateBps: known?.bitRateBps ?? null,
		durationMs: known?.durationMs ?? null,
		sizeBytes: known?.sizeBytes ?? null,
		sha256: known?.sha256 ?? '',
		kept: known?.kept ?? 'person',
		from: 'typed'
	};
	store.change('say how a source is made', (workshop) => ({
		...workshop,
		media: [...workshop.media.filter((other) => other.location !== location), media]
	}));
}
