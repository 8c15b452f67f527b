import { formatSeconds } from '../basics/format';
import type { Fault, Said, Span, TrackKind } from './machine';
import type { PlannedFault } from './rehearse';

interface Told {
	readonly kind: TrackKind;
	readonly spans: readonly Span[];
	readonly untilMs: number;
	say(said: Said): string;
}

/** What a fault did to one end of the chain: nothing, a gap of so long, or the end of it. */
export function describeFault(
	{ kind, spans, untilMs, say }: Told,
	fault: PlannedFault,
	known: Fault | undefined
): string {
	const at = `${known?.label ?? fault.name} at ${formatSeconds(fault.atMs)}`;
	const isGood = (span: Span): boolean => kind.states[span.state]?.tone === 'good';
	const endMs = fault.atMs + (fault.lastsMs ?? known?.lastsMs ?? 0);
	const lost = spans.find((span) => span.fromMs >= fault.atMs - 1 && !isGood(span) && span.fromMs <= endMs);
	const wasGood = spans.some((span) => isGood(span) && span.fromMs < fault.atMs && span.toMs >= fault.atMs);
	const first = spans.find(isGood);
	if (!wasGood)
		return first
			? `${at}: not yet at work then; it comes ${formatSeconds(first.fromMs)} after the power.`
			: `${at}: ${kind.missed} from the beginning to the end.`;
	if (!lost) return `${at}: nobody notices a difference.`;
	const back = spans.find((span) => isGood(span) && span.fromMs >= lost.fromMs);
	return back
		? `${at}: ${kind.missed} for ${formatSeconds(back.fromMs - lost.fromMs)}; it comes back by itself.`
		: `${at}: ${kind.missed} for the remaining ${formatSeconds(untilMs - lost.fromMs)} (${say(lost.why)}).`;
}
