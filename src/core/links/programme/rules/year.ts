import { firstHold, onAirAt, resolve, type Rulebook } from '../../../onAir/onAir';
import type { ProgrammeSettings } from '../settings';

/** What a span of time comes to. */
export interface Airtime {
	/** How long each thing is on, ms, by what is shown; the longest first. */
	readonly byShow: readonly { readonly show: string; readonly ms: number }[];
	/** How long each rule decides, ms, by its id. */
	readonly byRule: ReadonlyMap<string, number>;
	/** Rules that never decide: whether their own conditions never hold, or which rule always goes before them. */
	readonly never: readonly { readonly rule: string; readonly behind: string | null }[];
	readonly changes: number;
}

/** Adds up what is on from one instant to another, and which rules never come to anything within it. */
export function airtime(
	book: Rulebook,
	rules: ProgrammeSettings['rules'],
	fromUtcMs: number,
	untilUtcMs: number
): Airtime {
	const stretches = resolve(book, fromUtcMs, untilUtcMs);
	const byShow = new Map<string, number>();
	const byRule = new Map<string, number>();
	for (const { show, line, fromUtcMs: from, untilUtcMs: until } of stretches) {
		byShow.set(show, (byShow.get(show) ?? 0) + until - from);
		if (line) byRule.set(line.rule, (byRule.get(line.rule) ?? 0) + until - from);
	}
	return {
		byShow: [...byShow].map(([show, ms]) => ({ show, ms })).sort((a, b) => b.ms - a.ms),
		byRule,
		never: rules
			.filter(({ id }) => !byRule.has(id))
			.map(({ id }) => ({ rule: id, behind: goesBefore(book, id, fromUtcMs, untilUtcMs) })),
		changes: stretches.length - 1
	};
}

/** The rule that decides where this one would: at the first moment at which it would hold if it stood alone. */
function goesBefore(book: Rulebook, rule: string, fromUtcMs: number, untilUtcMs: number): string | null {
	const at = firstHold({ ...book, lines: book.lines.filter((line) => line.rule === rule) }, fromUtcMs, untilUtcMs);
	return at === null ? null : (onAirAt(book, at).line?.rule ?? null);
}
