import type { z } from 'zod';
import type { Changes } from '../changes';
import type { Claim } from '../claims';
import type { Bench, Fault, TrackKind } from '../engines/machine';
import type { Facts } from '../facts';
import type { Saved } from '../plan/saved';
import type { Asked, Secrets } from '../secrets';
import type { Context } from './context';
import type { Figure } from './figure';
import type { CardFile } from './file';
import type { Finding } from './finding';
import type { Place } from './place';
import type { Step } from './step';
import type { Named } from './wish';

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
