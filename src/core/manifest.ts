/**
 * The manifest of a link is its folder: files of fixed names, each with what it brings as its default export. `index.ts` stands in the
 * chain and is there from the first view on; the others are gathered by their name, and loaded where they are needed:
 *
 * | file          | default export                                   | gathered in     | loaded by                         |
 * |---------------|--------------------------------------------------|-----------------|-----------------------------------|
 * | `fields.ts`   | its fields: label, words by which one looks      | `fields.ts`     | the endpoint's pages, the search  |
 * | `findings.ts` | what judges its settings                         | `judges.ts`     | all that shows a verdict          |
 * | `writes.ts`   | files, steps, secrets, its part of the bench     | `writers.ts`    | card set, run sheet, rehearsal    |
 * | `rehearse.ts` | what the simulated endpoint does with its files  | `rehearsals.ts` | the rehearsal's worker            |
 * | `words.ts`    | what its events are in words                     | `speaking.ts`   | whoever tells of a rehearsal      |
 *
 * A link without such a file has no such part.
 */
import type { Machine, Words } from './engines/machine';
import type { Link } from './link';

/** What judges a link's settings. */
export type Judge<Settings> = NonNullable<Link<string, Settings>['assess']>;
/** What a link writes, and asks of a person. */
export type Writes<Settings> = Pick<Link<string, Settings>, 'files' | 'steps' | 'seal' | 'bench' | 'secrets'>;
/** What it does while a rehearsal runs. */
export type Rehearse = (machine: Machine) => void;
/** What its events are in words. */
export type Told = Words;
/** What a field is called, and other words by which people look for it. */
export interface Field {
	readonly label: string;
	readonly words?: string;
}
/** The fields of a link, by key of its settings; whichever page shows one takes its label from here. */
export type Fields<Settings> = Partial<Readonly<Record<keyof Settings & string, Field>>>;

/** By the name of the link: the folder in which it was found. */
export const byFolder = <T>(found: Readonly<Record<string, T>>): Readonly<Partial<Record<string, T>>> =>
	Object.fromEntries(Object.entries(found).map(([path, part]) => [path.split('/').at(-2)!, part]));
