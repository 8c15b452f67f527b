import {
	firstStart,
	Machine,
	type Bench,
	type CardTree,
	type FaultName,
	type Heard,
	type Span,
	type TimelineEvent
} from './machine';
import { describeRehearsal } from './rehearsalWords';
import { joinSound } from './spans';
import { FAULTS } from './machine/machine';
import { readSeedTimeZone } from '../formats/seed/timeZone';

export interface PlannedFault {
	readonly name: FaultName;
	readonly atMs: number;
	readonly lastsMs?: number;
}

export interface Rehearsal {
	readonly events: readonly TimelineEvent[];
	readonly spans: readonly Span[];
	readonly first: { readonly atMs: number; readonly heard: Heard } | null;
	/** Every title that was heard, as it sounded first. */
	readonly titles: readonly Heard[];
	readonly untilMs: number;
	readonly startUtcMs: number;
	readonly timeZone: string;
	/** "Sound after 14.2 s: 44.1 kHz, 16 bit, untouched", or why there is silence. */
	readonly verdict: string;
	/** What the faults did, a sentence each. */
	readonly words: readonly string[];
}

export interface RehearseOptions {
	readonly links: readonly { rehearse(machine: Machine): void }[];
	readonly card: CardTree;
	readonly bench: Bench;
	readonly startUtcMs: number;
	readonly forMs: number;
	readonly faults?: readonly PlannedFault[];
}

/** Runs a card set on a bench from mains on. Deterministic: the same files, bench and faults give the same timeline. */
export function rehearse({ links, card, bench, startUtcMs, forMs, faults = [] }: RehearseOptions): Rehearsal {
	const installed = firstStart(card, bench, startUtcMs);
	const timeZone = readSeedTimeZone(card.get('boot/user-data')?.text ?? '') ?? 'UTC';
	const machine = new Machine(card, installed.disk, bench, startUtcMs, timeZone);
	for (const link of links) link.rehearse(machine);
	for (const fault of faults) planFault(machine, fault);
	if (!card.has('boot/yphos/apply.sh'))
		machine.log('card', 'There is no apply.sh on the card: nothing is set up', '', 'bad');
	for (const problem of installed.problems) machine.log('card', `First start: ${problem}`, '', 'bad');
	for (const what of installed.notRehearsed) machine.unknown(what);
	machine.clock.at(0, () => machine.mains(true));
	machine.clock.runUntil(forMs);
	machine.finish();
	const result = {
		events: machine.events,
		spans: joinSound(machine.spans),
		first: machine.firstHeard,
		titles: [...machine.titlesHeard.values()],
		untilMs: forMs,
		startUtcMs,
		timeZone
	};
	const described = describeRehearsal(result, faults);
	const assumed = [...machine.assumed].map((what) => `Assumed: ${what}.`);
	return { ...result, ...described, words: [...described.words, ...assumed] };
}

function planFault(machine: Machine, { name, atMs, lastsMs = FAULTS[name].lastsMs }: PlannedFault): void {
	const turn = (on: boolean): void => {
		if (on) machine.activeFaults.add(name);
		else machine.activeFaults.delete(name);
		machine.emit('fault', { name, on });
	};
	machine.clock.at(atMs, () => turn(true));
	machine.clock.at(atMs + lastsMs, () => turn(false));
}
