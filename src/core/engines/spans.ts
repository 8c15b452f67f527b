import type { Span } from './machine';

/** Between two tracks a player is silent for some hundredths of a second; below this, nobody speaks of silence. */
const UNNOTICED_MS = 200;

/** Joins stretches of sound that only a change of track divides. */
export function joinSound(spans: readonly Span[]): Span[] {
	const joined: Span[] = [];
	spans.forEach((span, n) => {
		const last = joined.at(-1);
		const isGap =
			span.state === 'silence' &&
			span.toMs - span.fromMs < UNNOTICED_MS &&
			last?.state === 'sound' &&
			spans[n + 1]?.state === 'sound';
		if (last && last.state === 'sound' && (isGap || span.state === 'sound'))
			joined[joined.length - 1] = { ...last, toMs: span.toMs };
		else joined.push(span);
	});
	return joined;
}
