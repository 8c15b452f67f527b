import type { Mark, Said, Span, Track, TrackKind } from './timeline';

/** One end of the chain while the clock runs. */
export class LiveTrack implements Track {
	readonly spans: Span[] = [];
	readonly marks: Mark[] = [];
	#names = new Set<string>();
	#now: { sinceMs: number; state: string; why: Said };

	constructor(readonly kind: TrackKind) {
		this.#now = { sinceMs: 0, state: kind.off, why: { from: 'system', code: 'no-power', data: undefined } };
	}

	get state(): string {
		return this.#now.state;
	}

	/** From now on. The same state with another reason begins a new span only where the reason is worth knowing. */
	set(atMs: number, state: string, why: Said): void {
		const isGood = this.kind.states[state]?.tone === 'good';
		if (state === this.#now.state && (isGood || sameReason(why, this.#now.why))) return;
		this.close(atMs);
		this.#now = { sinceMs: atMs, state, why };
	}

	/** Each name once. */
	mark(atMs: number, name: string, data: unknown): void {
		if (this.#names.has(name)) return;
		this.#names.add(name);
		this.marks.push({ atMs, name, data });
	}

	close(atMs: number): void {
		const { sinceMs, state, why } = this.#now;
		if (atMs > sinceMs) this.spans.push({ fromMs: sinceMs, toMs: atMs, state, why });
	}
}

const sameReason = (a: Said, b: Said): boolean =>
	a.from === b.from && a.code === b.code && JSON.stringify(a.data) === JSON.stringify(b.data);

/** Joins stretches of what is wanted that only a gap divides which nobody notices, such as the one between two titles. */
export function joinGaps(spans: readonly Span[], { states, unnoticedMs = 0 }: TrackKind): Span[] {
	const isGood = (span: Span | undefined): boolean => span !== undefined && states[span.state]?.tone === 'good';
	const joined: Span[] = [];
	spans.forEach((span, n) => {
		const last = joined.at(-1);
		const isGap = !isGood(span) && span.toMs - span.fromMs < unnoticedMs && isGood(spans[n + 1]);
		if (last && isGood(last) && (isGap || span.state === last.state))
			joined[joined.length - 1] = { ...last, toMs: span.toMs };
		else joined.push(span);
	});
	return joined;
}
