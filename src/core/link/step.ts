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
