/** The chain with what each link does while a rehearsal runs: a page that rehearses nothing loads nothing of it. */
import { chain } from './chain';
import type { Speaking } from './engines/say';
import type { Link } from './link';
import { byFolder, type Rehearse } from './manifest';
import { speaking } from './speaking';

const found = byFolder(import.meta.glob<Rehearse>('./links/*/rehearse.ts', { eager: true, import: 'default' }));

/** A link with its part in a rehearsal; one without has none. */
export type RehearsedLink = Link & Speaking & { readonly rehearse?: Rehearse };
/** The chain as the rehearsal's engine takes it. */
export const rehearsed: readonly RehearsedLink[] = (chain as readonly Link[]).map((link) => {
	const rehearse = found[link.id];
	const words = speaking.find(({ id }) => id === link.id)?.words;
	return { ...link, ...(rehearse ? { rehearse } : {}), ...(words ? { words } : {}) };
});
