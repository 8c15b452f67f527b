import { formatSeconds } from '../basics/format';
import type { Fault, Said, Span, TrackKind } from './machine';
import type { PlannedFault } from './rehearse';

/** One end of the chain, as the rehearsal left it. */
interface Told {
	readonly kind: TrackKind;
	readonly spans: readonly Span[];
	readonly untilMs: number;
	say(said: Said): string;
}

/** What a fault did: to the end of the chain that the plan is for, and to every other one that felt it. */
export function describeFault(ends: readonly Told[], fault: PlannedFault, known: Fault | undefined): string {
	const endMs = fault.atMs + (fault.lastsMs ?? known?.lastsMs ?? 0);
	const [main, ...others] = ends.map((end) => effectOn(end, fault.atMs, endMs));
	const felt = others.flatMap((effect) => (effect.felt ? [effect.words] : []));
	const words = [...(main ? [main.words] : []), ...felt].join('; ');
	return `${known?.label ?? fault.name} at ${formatSeconds(fault.atMs)}: ${words}.`;
}

/** A gap of so long, or the end of it, is felt; what was not at work, or stayed so, is not. */
function effectOn(
	{ kind, spans, untilMs, say }: Told,
	atMs: number,
	endMs: number
): { readonly felt: boolean; readonly words: string } {
	const isGood = (span: Span): boolean => kind.states[span.state]?.tone === 'good';
	const lost = spans.find((span) => span.fromMs >= atMs - 1 && !isGood(span) && span.fromMs <= endMs);
	if (!spans.some((span) => isGood(span) && span.fromMs < atMs && span.toMs >= atMs)) {
		const first = spans.find(isGood);
		const words = first
			? `not yet at work then; it comes ${formatSeconds(first.fromMs)} after the power`
			: `${kind.missed} from the beginning to the end`;
		return { felt: false, words };
	}
	if (!lost) return { felt: false, words: 'nobody notices a difference' };
	const back = spans.find((span) => isGood(span) && span.fromMs >= lost.fromMs);
	const words = back
		? `${kind.missed} for ${formatSeconds(back.fromMs - lost.fromMs)}, then it comes back by itself`
		: `${kind.missed} for the remaining ${formatSeconds(untilMs - lost.fromMs)} (${say(lost.why)})`;
	return { felt: true, words };
}
