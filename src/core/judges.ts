/** The chain with what judges each link, apart from it: the first view stands before this is loaded. */
import { chain } from './chain';
import type { Link } from './link';
import { byFolder, type Judge } from './manifest';

const found = byFolder(import.meta.glob<Judge<unknown>>('./links/*/findings.ts', { eager: true, import: 'default' }));

/** The links with what judges them, in the chain's order. */
export const judges: readonly Link[] = (chain as readonly Link[]).map((link) => ({
	...link,
	assess: found[link.id] ?? (() => [])
}));
