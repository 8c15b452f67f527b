/** What each link's events are in words, apart from the chain: only who tells of a rehearsal needs them. */
import { byFolder, type Told } from './manifest';

const found = byFolder(import.meta.glob<Told>('./links/*/words.ts', { eager: true, import: 'default' }));

/** A link by its id, and the words for what it tells. */
export const speaking: readonly { readonly id: string; readonly words: Told }[] = Object.entries(found).map(
	([id, words]) => ({ id, words: words! })
);
