import type { z } from 'zod';
import type { Claim } from './claims';
import type { Bench, Machine } from './engines/machine';
import type { Media } from './parts/media';
import type { Part, PartKind, PartOf } from './parts/schema';
import type { LinkId, Plan } from './plan/plan';
import type { Venue } from './plan/venue';
import type { ProbeFacts } from './probe/facts';

/** The rest of the workshop, as far as a plan refers to it. */
export interface Context {
	readonly venue: Venue;
	/** The part with this id, when it is in the drawer and of this kind; a board as far as it is probed, as it is. */
	part<K extends PartKind>(kind: K, id: string | null): PartOf<K> | null;
	/** Any part, own or shipped, by its id, as the drawer has it. */
	find(id: string): Part | null;
	/** Own parts, then the shipped ones. */
	readonly drawer: readonly Part[];
	media(location: string): Media | null;
	readonly probe: ProbeFacts | null;
	/** Host names and addresses that the other endpoints have taken; no address: "". */
	readonly others: readonly { readonly name: string; readonly hostName: string; readonly address: string }[];
}

/** A setting's place in the plan, such as "sound.cardId". */
export type SettingPath = LinkId | `${LinkId}.${string}`;

/** Something worked out. `text` is what a person reads, number and unit together. */
export interface Figure {
	readonly id: string;
	readonly label: string;
	readonly text: string;
	readonly value: number | null;
	readonly sure: 'exact' | 'measured' | 'typical' | 'assumed';
	/** How it came about, in words. */
	readonly from: string;
	/** The one figure that stands for its link in the chain. */
	readonly telling?: boolean;
}

export type Level = 'stop' | 'caution' | 'note';

export interface Fix {
	readonly label: string;
	readonly apply: (plan: Plan) => Plan;
}

export interface Finding {
	readonly id: string;
	readonly level: Level;
	readonly title: string;
	/** Why it matters, measured against its limit, and what to do. */
	readonly why: string;
	readonly setting?: SettingPath;
	readonly fixes: readonly Fix[];
}

/** One line of a file and the setting that caused it. A secret line is never shown, stored or compared. */
export interface CardLine {
	readonly text: string;
	readonly setting: SettingPath;
	readonly secret?: true;
}

interface CardFileBase {
	/** Below the card's root: "boot/yphos/root/etc/asound.conf". */
	readonly path: string;
	readonly mode: '0644' | '0755' | '0600';
	readonly why: string;
}
export type CardFile = CardFileBase &
	({ readonly lines: readonly CardLine[] } | { readonly bytes: Uint8Array; readonly setting: SettingPath });

/** What is asked for when a card set is written and never kept. */
export interface Secrets {
	/** The keeper's password as it stands in /etc/shadow. */
	readonly userPasswordCrypt?: string;
	/** 64 hexadecimal digits, derived from the pass phrase. */
	readonly radioPskHex?: string;
	/** Bytes of media that go on the card, by location. */
	readonly mediaBytes?: ReadonlyMap<string, Uint8Array>;
}

/** "first start" ends when the endpoint is found and logged in to; "set up" is what is done there. */
export const PHASES = ['gather', 'prepare', 'assemble', 'first start', 'set up', 'check', 'live'] as const;
export type Phase = (typeof PHASES)[number];

/** One thing a person must do. */
export interface Step {
	readonly id: string;
	readonly phase: Phase;
	readonly do: string;
	readonly expect?: string;
	readonly command?: string;
	readonly caution?: string;
	/** What to read off and note, with its unit. */
	readonly reading?: string;
	/** It takes effect at the next restart; restarts are gathered into one. */
	readonly needsRestart?: true;
}

/** One stage of the chain. Links know the plan, the context and claims, and never each other. */
export interface Link<Settings = unknown> {
	readonly id: LinkId;
	readonly title: string;
	readonly settings: z.ZodType<Settings>;
	claims(plan: Plan, context: Context): Claim[];
	figures(plan: Plan, context: Context, claims: readonly Claim[]): Figure[];
	assess(plan: Plan, context: Context, claims: readonly Claim[]): Finding[];
	files(plan: Plan, context: Context, claims: readonly Claim[], secrets: Secrets): CardFile[];
	/** Files that list other files: made last, from all that the links put on the card. */
	seal?(files: readonly CardFile[], plan: Plan, claims: readonly Claim[]): CardFile[];
	steps(plan: Plan, context: Context, claims: readonly Claim[]): Step[];
	/** What of the simulated surroundings this link knows: the parts that it deals in, as they are. */
	bench?(plan: Plan, context: Context, claims: readonly Claim[]): Partial<Bench>;
	rehearse(machine: Machine): void;
}
