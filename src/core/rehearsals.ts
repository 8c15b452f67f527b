/**
 * What each link does while a rehearsal runs, apart from the chain: a page that rehearses nothing loads nothing of it. A new link that
 * has a part in a rehearsal: its line here. The order is the chain's.
 */
import { chain } from './chain';
import type { Machine } from './engines/machine';
import type { Speaking } from './engines/say';
import type { Link } from './link';
import { rehearseCard } from './links/card/rehearse';
import { rehearseDelivery } from './links/delivery/rehearse';
import { rehearseHeader } from './links/header/rehearse';
import { rehearseHeat } from './links/heat/rehearse';
import { rehearseNetwork } from './links/network/rehearse';
import { rehearseUpdates } from './links/network/updates';
import { rehearseNotices } from './links/notices/rehearse';
import { rehearseParts } from './links/parts/rehearse';
import { rehearsePicture } from './links/picture/rehearse';
import { rehearsePower } from './links/power/rehearse';
import { rehearseProgramme } from './links/programme/rehearse';
import { rehearseReceiving } from './links/receiving/rehearse';
import { rehearseSound } from './links/sound/rehearse';
import { rehearseSources } from './links/sources/rehearse';
import type { LinkId } from './plan/plan';
import { speaking } from './speaking';

const REHEARSALS: Partial<Readonly<Record<LinkId, (machine: Machine) => void>>> = {
	parts: rehearseParts,
	header: rehearseHeader,
	power: rehearsePower,
	heat: rehearseHeat,
	card: rehearseCard,
	network(machine) {
		rehearseNetwork(machine);
		rehearseUpdates(machine);
	},
	sources: rehearseSources,
	sound: rehearseSound,
	picture: rehearsePicture,
	notices: rehearseNotices,
	programme: rehearseProgramme,
	receiving: rehearseReceiving,
	delivery: rehearseDelivery
};

/** A link with its part in a rehearsal; one without has none. */
export type RehearsedLink = Link & Speaking & { readonly rehearse?: (machine: Machine) => void };
/** The chain as the rehearsal's engine takes it. */
export const rehearsed: readonly RehearsedLink[] = (chain as readonly Link[]).map((link) => {
	const rehearse = REHEARSALS[link.id as LinkId];
	const words = speaking.find(({ id }) => id === link.id)?.words;
	return { ...link, ...(rehearse ? { rehearse } : {}), ...(words ? { words } : {}) };
});
