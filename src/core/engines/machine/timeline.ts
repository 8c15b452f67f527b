/** What an event or a state is about, before it is words: who says it, its code, and its data. */
export interface Said {
	/** The link whose words it has; "system" for what the machine itself says. */
	readonly from: string;
	readonly code: string;
	readonly data: unknown;
}

/** How an event is to be taken. */
export type EventKind = 'info' | 'good' | 'bad' | 'fault';
/** Something that happened, at its moment in ms since mains on. */
export interface TimelineEvent extends Said {
	readonly atMs: number;
	readonly kind: EventKind;
}

/** A sentence, and what a meter would read beside it. */
export type Sentence = string | readonly [text: string, reading: string];
/** The words of a link, by code, made from the data that go with it. Only the edge calls them. */
export type Words = Readonly<Record<string, (data: never) => Sentence>>;

/** Whether a state is what is wanted, wrong, wanted to be so, or off altogether. */
export type Tone = 'good' | 'bad' | 'rest' | 'off';

/** What one end of the chain is from one moment to the next. */
export interface Span {
	readonly fromMs: number;
	readonly toMs: number;
	readonly state: string;
	readonly why: Said;
}
/** Something that arrived at an end, such as a title heard: kept once for each name. */
export interface Mark {
	readonly atMs: number;
	readonly name: string;
	readonly data: unknown;
}
/** One end over the whole run. */
export interface Track {
	readonly spans: readonly Span[];
	readonly marks: readonly Mark[];
}

/** What is to be said of an end, and whether it is as wanted. */
export interface Verdict {
	readonly good: boolean;
	readonly words: string;
}

/** One end of the chain, as the link that speaks for it describes it. */
export interface TrackKind {
	readonly id: string;
	readonly title: string;
	/** Those that a person asks for first come first. */
	readonly rank: number;
	/** What its states are called, and how they are. */
	readonly states: Readonly<Record<string, { readonly words: string; readonly tone: Tone }>>;
	/** Its state without power, and from the power on until something else is known. */
	readonly off: string;
	readonly wakes: string;
	/** What is missed while a fault lasts: "nothing is heard". */
	readonly missed: string;
	/** Below this, nobody speaks of a gap, ms. */
	readonly unnoticedMs?: number;
	/** What to say of the whole; null: nothing, where nothing is wanted of this end. `say` makes words of a reason. */
	verdict(track: Track, say: (said: Said) => string): Verdict | null;
}

/** Something that can be broken for a while. */
export interface Fault {
	readonly label: string;
	readonly lastsMs: number;
	/** It is there from the very start, unless another moment is chosen. */
	readonly fromStart?: true;
}
