import type { z } from 'zod';
import type { Change, Changes } from './changes';
import type { Claim } from './claims';
import type { Bench, Fault, TrackKind } from './engines/machine';
import type { Facts } from './facts';
import type { Media } from './parts/media';
import type { Part, PartKind, PartOf } from './parts/schema';
import type { LinkId, Plan } from './plan/plan';
import type { Saved } from './plan/saved';
import type { Venue } from './plan/venue';
import type { ProbeFacts } from './parts/probeFacts';
import type { Asked, Secrets } from './secrets';

/** What an endpoint sees of another one: who it is on the network, and what it takes there. */
export type Neighbour = Pick<Facts, 'endpointName' | 'hostName' | 'address' | 'receiving'>;

/** The rest of the workshop, as far as a plan refers to it. */
export interface Surroundings {
	readonly venue: Venue;
	/** The part with this id, when it is in the drawer and of this kind; a board as far as it is probed, as it is. */
	part<K extends PartKind>(kind: K, id: string | null): PartOf<K> | null;
	/** Any part, own or shipped, by its id, as the drawer has it. */
	find(id: string): Part | null;
	/** Own parts, then the shipped ones. */
	readonly drawer: readonly Part[];
	media(location: string): Media | null;
	/** All that is known to lie in that folder and below. */
	mediaBelow(folder: string): readonly Media[];
	/** The app is to have the bytes of that file, and does not. */
	isAbsent(location: string): boolean;
	readonly probe: ProbeFacts | null;
	/** What the workshop's other endpoints publish. */
	readonly others: readonly Neighbour[];
}

/** All that a link sees besides its own settings: the workshop, what the other links publish, and what they let it change. */
export interface Context extends Surroundings {
	readonly facts: Facts;
	readonly change: Changes;
	/** The same after a change, to see what it would bring. */
	suppose(change: Change): Context;
}

type Key<S> = keyof S & string;
type Below<V> = V extends readonly (infer E)[]
	? `${number}` | (E extends object ? `${number}.${Key<E>}` : never)
	: V extends object
		? string extends keyof V
			? string
			: Key<V>
		: never;
type PathIn<S> = { [K in Key<S>]: K | `${K}.${Below<NonNullable<S[K]>>}` }[Key<S>];
/** A setting's place in the plan, such as "sound.cardId" or "programme.quiet.0"; only those that the schemas have. */
export type SettingPath = { [L in Key<Plan>]: L | `${L}.${PathIn<Plan[L]>}` }[Key<Plan>];

/** Something worked out. `text` is what a person reads, number and unit together. */
export interface Figure {
	readonly id: string;
	readonly label: string;
	readonly text: string;
	readonly value: number | null;
	readonly sure: 'exact' | 'measured' | 'typical' | 'assumed';
	/** How it came about, in words. */
	readonly from: string;
	/** Where it is changed: the setting that weighs most in it. */
	readonly setting: SettingPath;
	/** The one figure that stands for its link in the chain. */
	readonly telling?: boolean;
}

/** How grave a finding is: nothing works, something suffers, worth knowing. */
export type Level = 'stop' | 'caution' | 'note';

/** One press that ends a finding. */
export interface Fix {
	readonly label: string;
	/** At an instant, where it matters when it is pressed. */
	apply(plan: Plan, nowUtcMs?: number): Plan;
}

/** Something that is wrong or worth knowing. */
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
	/** What it is called on the endpoint, where it lies on the first partition under another name. */
	readonly target?: string;
	readonly mode: '0644' | '0755' | '0600';
	readonly why: string;
}
/** A file of the card set: lines that know their setting, or bytes. */
export type CardFile = CardFileBase &
	(
		| { readonly lines: readonly CardLine[] }
		| {
				readonly bytes: Uint8Array;
				readonly setting: SettingPath;
				/** When it is known already. */ readonly sha256?: string;
		  }
		| {
				/** So large that it is read only when it is written out. */
				readonly blob: Blob;
				readonly setting: SettingPath;
				readonly sha256: string;
		  }
	);

/** "first start" ends when the endpoint is found and logged in to; "set up" is what is done there. */
export const PHASES = ['gather', 'prepare', 'assemble', 'first start', 'set up', 'check', 'live'] as const;
/** When a step is done. */
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
	/** Comes after every step of the sheet that makes one of these. */
	readonly needs?: readonly Condition[];
	readonly makes?: readonly Condition[];
}

/** What steps bring about and others need; whoever brings it about names it in its `offers.ts`. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- joined from the owners' declarations
export interface Conditions {}
export type Condition = keyof Conditions;

/** What an endpoint is called and wanted for, before anything else of it is decided. */
export interface Named {
	readonly name: string;
	readonly hostName: string;
	readonly kind: Wish;
}

/** What people want of an endpoint. */
export const WISHES = ['music', 'film', 'photos', 'notices', 'recorder', 'second-screen'] as const;
/** One of the kinds of endpoint. */
export type Wish = (typeof WISHES)[number];
/** Those that play a list of their own. */
export const playsList = (wish: Wish): boolean => wish !== 'recorder';
/** Those that show something. */
export const showsPicture = (wish: Wish): boolean => wish !== 'music' && wish !== 'recorder';

/** Where a link stands in the drawing of the chain, and what runs from it to which other. */
export interface Place {
	/** The world outside, what is played, the board, and what leaves it. */
	readonly column: 'world' | 'content' | 'board' | 'out';
	/** Small is above. */
	readonly row: number;
	/** It shares its row with another. */
	readonly half?: 'left' | 'right';
	/** The board itself: everything meets there. */
	readonly centre?: true;
	/** From here to another link, or from another to here: whichever end is the newer one names both. */
	readonly wires: readonly ({ readonly carries: 'power' | 'data' | 'signal' | 'rule' } & (
		{ readonly to: LinkId } | { readonly from: LinkId }
	))[];
	/** What stands at the end of the signal, with the figure that says what arrives there. */
	readonly end?: {
		readonly sense: 'eye' | 'ear' | 'store';
		readonly figure: string;
		readonly words: string;
		/** Beside the end when there is no such figure. */
		readonly without: string;
	};
}

/**
 * One stage of the chain, whole: its settings with their history, its place, what it works out, writes, asks of a person, and
 * what can be broken. What is loaded later stands in files beside it: see `manifest.ts`. It is handed its own settings; of the others it knows what they publish.
 */
export interface Link<Id extends string = string, Settings = unknown> {
	readonly id: Id;
	readonly title: string;
	/** Its letter: g and this one open its worktop. */
	readonly key: string;
	readonly place: Place;

	readonly settings: z.ZodType<Settings>;
	/** Counts the shapes that its saved settings have had. */
	readonly version: number;
	/** Each brings saved settings from the version that it is keyed by to the next. */
	readonly migrations?: Readonly<Record<number, (saved: Saved) => Saved>>;
	/** To begin with: nothing chosen, and every default on the careful side. */
	empty(named: Named): Settings;
	/** A link that a plan may do without says whether it does, and changes that; the engines pass over what is not used. */
	readonly use?: { is(settings: Settings): boolean; set(settings: Settings, on: boolean): Settings };

	/** What the others may know of it. */
	publish?(settings: Settings): Partial<Facts>;
	/** What the others may change in it, from their fixes. */
	readonly changes?: Partial<Changes>;

	claims?(settings: Settings, context: Context): Claim[];
	figures?(settings: Settings, context: Context, claims: readonly Claim[]): Figure[];
	/** Its `findings.ts`; without it nothing is known yet. */
	assess?(settings: Settings, context: Context, claims: readonly Claim[]): Finding[];
	files?(settings: Settings, context: Context, claims: readonly Claim[], secrets: Secrets): CardFile[];
	/** What it must be handed to write its files: options of the command line, and what is asked for. Never kept in the plan. */
	readonly secrets?: {
		readonly options: readonly string[];
		of(settings: Settings, context: Context): readonly Asked[];
	};
	/** Files that list other files: made last, from all that the links put on the card. */
	seal?(files: readonly CardFile[], settings: Settings, claims: readonly Claim[]): CardFile[];
	steps?(settings: Settings, context: Context, claims: readonly Claim[]): Step[];

	/** What of the simulated surroundings this link knows: their shape, and the parts that it deals in, as they are. */
	readonly bench?: {
		readonly shape: z.ZodRawShape;
		of?(settings: Settings, context: Context, claims: readonly Claim[]): Partial<Bench>;
	};
	/** What can be broken while it is rehearsed, by name. */
	readonly faults?: Readonly<Record<string, Fault>>;
	/** The ends of the chain that it speaks for. */
	readonly tracks?: readonly TrackKind[];
}
