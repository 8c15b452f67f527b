import { formatHz, formatSeconds } from '../format';
import type { Heard, Span } from './machine';
import { FAULTS } from './machine/machine';
import type { PlannedFault } from './rehearse';

/** One line that says what was heard first, or why nothing was; then what each fault did. */
export function describeRehearsal(
	run: {
		readonly spans: readonly Span[];
		readonly first: { readonly atMs: number; readonly heard: Heard } | null;
		readonly untilMs: number;
	},
	faults: readonly PlannedFault[]
): { verdict: string; words: string[] } {
	const last = run.spans.at(-1);
	const verdict = run.first
		? `Sound after ${formatSeconds(run.first.atMs)}: ${describeHeard(run.first.heard)}`
		: `Silence: ${last?.state === 'quiet' ? 'it is quiet hours' : (last?.why ?? 'nothing happened')}`;
	return { verdict, words: faults.map((fault) => describeFault(run.spans, fault, run.untilMs)) };
}

export const describeHeard = (heard: Heard): string =>
	`${formatHz(heard.sampleRateHz)}, ${heard.bitDepth} bit, ${heard.treatment}`;

function describeFault(spans: readonly Span[], fault: PlannedFault, untilMs: number): string {
	const label = FAULTS[fault.name].label;
	const lost = spans.find(
		(span) =>
			span.fromMs >= fault.atMs - 1 &&
			span.state !== 'sound' &&
			span.fromMs <= fault.atMs + (fault.lastsMs ?? FAULTS[fault.name].lastsMs)
	);
	const wasSounding = spans.some(
		(span) => span.state === 'sound' && span.fromMs < fault.atMs && span.toMs >= fault.atMs
	);
	if (!wasSounding)
		return `${label} at ${formatSeconds(fault.atMs)}: nothing was sounding yet; compare the first sound.`;
	if (!lost) return `${label} at ${formatSeconds(fault.atMs)}: nobody hears a difference.`;
	const back = spans.find((span) => span.state === 'sound' && span.fromMs >= lost.fromMs);
	return back
		? `${label} at ${formatSeconds(fault.atMs)}: nothing is heard for ${formatSeconds(back.fromMs - lost.fromMs)}; it comes back by itself.`
		: `${label} at ${formatSeconds(fault.atMs)}: sound does not come back within ${formatSeconds(untilMs - lost.fromMs)} (${lost.why}).`;
}
