import type { Result } from './basics/result';

/**
 * What writers are handed and the plan never keeps, by name; the link that uses one names it in its `offers.ts` (`declare module`),
 * so that a new one costs no line here.
 */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- joined from the owners' declarations
export interface Secrets {}

/** Something that a person types when the card set is written. */
export interface Asked {
	/** By which the vault keeps it, unique within an endpoint: "password", "share.attic". */
	readonly id: string;
	readonly label: string;
	/** What becomes of it, or how good the one is that is being typed. */
	hint(typed: string): string;
	readonly longest: number;
	/** It is set here, and asked for twice: one slip of the finger would lock its keeper out. */
	readonly isNew?: true;
	/** Of the command line: the option that names the file in which it stands, alone or as a line NAME=SECRET. */
	readonly option: string;
	readonly line?: string;
	/** What the endpoint does that needs it, for one who has not given it: "joins "Skerrin" by Wi-Fi". */
	readonly why: string;
	/** What the writers take of it, or what is wrong with it; `random` are 16 bytes of chance. */
	take(typed: string, random: Uint8Array): Result<Secrets>;
}
