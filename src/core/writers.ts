/**
 * The chain with what each link writes as well: files of the card set, steps of the run sheet, and the surroundings that its part of a
 * rehearsal finds. A page that only judges loads nothing of it.
 */
import { judges } from './judges';
import type { Link } from './link';
import { byFolder, type Writes } from './manifest';

const found = byFolder(import.meta.glob<Writes<unknown>>('./links/*/writes.ts', { eager: true, import: 'default' }));

/** The links with what judges them and what they write, in the chain's order. */
export const writers: readonly Link[] = judges.map((link) => ({ ...link, ...found[link.id] }));
