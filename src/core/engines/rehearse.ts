import type { Link } from '../link';
import {
	ARCHIVE_FAULTS,
	firstStart,
	joinGaps,
	Machine,
	timeZoneOf,
	type Bench,
	type CardTree,
	type Fault,
	type Mark,
	type Said,
	type Span,
	type TimelineEvent,
	type Track,
	type TrackKind,
	type Verdict,
	type Verified,
	verifyOn
} from './machine';
import { describeFault } from './rehearsalWords';
import { say, type Speaking } from './say';

/** Something to be broken, when and for how long, in ms since mains on. */
export interface PlannedFault {
	readonly name: string;
	readonly atMs: number;
	readonly lastsMs?: number;
}

/** One end of the chain over the whole rehearsal, and what is to be said of it. */
export interface RehearsedTrack extends Track {
	readonly id: string;
	readonly title: string;
	readonly spans: readonly Span[];
	readonly marks: readonly Mark[];
	readonly verdict: Verdict | null;
}

/** All that a rehearsal found out. */
export interface Rehearsal {
	readonly events: readonly TimelineEvent[];
	/** What a person asks for first comes first. */
	readonly tracks: readonly RehearsedTrack[];
	readonly untilMs: number;
	readonly startUtcMs: number;
	readonly timeZone: string;
	/** The first of the verdicts: "Sound after 14.2 s: 44.1 kHz, 16 bit, untouched", or why there is silence. */
	readonly verdict: string;
	readonly good: boolean;
	/** What the faults did, a sentence each; then what is taken for granted. */
	readonly words: readonly string[];
	/** What verify.sh says at the end, where that is asked for; null: not asked, or the card has none. */
	readonly verified: readonly Verified[] | null;
}

type Rehearsed = Pick<Link, 'id' | 'faults' | 'tracks'> & Speaking & { readonly rehearse?: (machine: Machine) => void };
/** What is rehearsed, on what, from when, for how long. */
export interface RehearseOptions {
	readonly links: readonly Rehearsed[];
	readonly card: CardTree;
	readonly bench: Bench;
	readonly startUtcMs: number;
	readonly forMs: number;
	readonly faults?: readonly PlannedFault[];
	/** At the end verify.sh is gone through. */
	readonly verifies?: boolean;
	/** Called now and then with how far it is, 0 to 1. */
	readonly onProgress?: (part: number) => void;
}

/** All that can be broken, by name, from the links that know how. */
export const faultsOf = (links: readonly Pick<Link, 'faults'>[]): Readonly<Record<string, Fault>> =>
	Object.assign({}, ARCHIVE_FAULTS, ...links.map((link) => link.faults ?? {}));

const PIECES = 50;

/** Runs a card set on a bench from mains on. Deterministic: the same files, bench and faults give the same timeline. */
export function rehearse(options: RehearseOptions): Rehearsal {
	const { links, card, bench, startUtcMs, forMs, faults = [], onProgress } = options;
	const known = faultsOf(links);
	const early = faults.flatMap(({ name, lastsMs }) =>
		known[name]?.fromStart ? [{ name, lastsMs: lastsMs ?? known[name].lastsMs }] : []
	);
	const installed = firstStart({ links, card, bench, startUtcMs, faults: early });
	const timeZone = timeZoneOf(installed.disk);
	const kinds = links.flatMap((link) => link.tracks ?? []);
	const machine = new Machine({ card, disk: installed.disk, bench, startUtcMs, timeZone, tracks: kinds });
	for (const link of links) link.rehearse?.(machine);
	machine.clockBehindMs = installed.clockBehindMs;
	for (const what of installed.assumed) machine.assumed.add(what);
	for (const fault of faults) if (!known[fault.name]?.fromStart) planFault(machine, fault, known);
	if (!card.has('boot/yphos/apply.sh')) machine.say('no-apply', 'bad');
	for (const problem of installed.problems) machine.say('first-start', 'bad', { problem });
	for (const what of installed.notRehearsed) machine.unknown(what);
	machine.clock.at(0, () => machine.mains(true));
	for (let piece = 1; piece <= PIECES; piece++) {
		if (!machine.clock.runUntil((forMs * piece) / PIECES)) {
			machine.unknown(`what comes after ${Math.round(machine.clock.nowMs / 3_600_000)} hours: too much happens`);
			break;
		}
		onProgress?.(piece / PIECES);
	}
	machine.finish();
	const found = describe(machine, kinds, options);
	// What is asked then is no part of what happened.
	return options.verifies ? { ...found, events: [...found.events], verified: verifyOn(machine) } : found;
}

function describe(machine: Machine, kinds: readonly TrackKind[], { links, faults = [] }: RehearseOptions): Rehearsal {
	const words = (said: Said): string => say(links, said)[0];
	const tracks = [...kinds]
		.sort((a, b) => a.rank - b.rank)
		.map((kind): RehearsedTrack => {
			const live = machine.tracks.get(kind.id)!;
			const track = { spans: joinGaps(live.spans, kind), marks: [...live.marks] };
			return { id: kind.id, title: kind.title, ...track, verdict: kind.verdict(track, words) };
		});
	const first = tracks.find(({ verdict }) => verdict !== null)?.verdict;
	const untilMs = machine.clock.nowMs;
	const known = faultsOf(links);
	const ends = tracks.map(({ id, spans }) => ({
		kind: kinds.find((kind) => kind.id === id)!,
		spans,
		untilMs,
		say: words
	}));
	return {
		events: machine.events,
		tracks,
		untilMs,
		startUtcMs: machine.startUtcMs,
		timeZone: machine.timeZone,
		verdict: first?.words ?? 'Nothing is expected of it',
		good: first?.good ?? true,
		verified: null,
		words: [
			...(ends.length > 0 ? faults.map((fault) => describeFault(ends, fault, known[fault.name])) : []),
			...[...machine.assumed].map((what) => `Assumed: ${what}.`)
		]
	};
}

function planFault(
	machine: Machine,
	{ name, atMs, lastsMs }: PlannedFault,
	known: Readonly<Record<string, Fault>>
): void {
	machine.clock.at(atMs, () => machine.fault(name, true));
	machine.clock.at(atMs + (lastsMs ?? known[name]?.lastsMs ?? 0), () => machine.fault(name, false));
}
