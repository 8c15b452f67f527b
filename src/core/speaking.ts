/**
 * What each link's events are in words, apart from the chain: only who tells of a rehearsal needs them. A new link that tells of
 * something: its line here.
 */
import type { Words } from './engines/machine';
import { CARD_WORDS } from './links/card/words';
import { DELIVERY_WORDS } from './links/delivery/words';
import { HEADER_WORDS } from './links/header/words';
import { HEAT_WORDS } from './links/heat/words';
import { NETWORK_WORDS } from './links/network/words';
import { NOTICES_WORDS } from './links/notices/words';
import { PICTURE_WORDS } from './links/picture/words';
import { POWER_WORDS } from './links/power/words';
import { PROGRAMME_WORDS } from './links/programme/words';
import { RECEIVING_WORDS } from './links/receiving/words';
import { SOUND_WORDS } from './links/sound/words';
import { SOURCES_WORDS } from './links/sources/words';
import type { LinkId } from './plan/plan';

const WORDS: Partial<Readonly<Record<LinkId, Words>>> = {
	power: POWER_WORDS,
	header: HEADER_WORDS,
	heat: HEAT_WORDS,
	card: CARD_WORDS,
	network: NETWORK_WORDS,
	sources: SOURCES_WORDS,
	sound: SOUND_WORDS,
	picture: PICTURE_WORDS,
	notices: NOTICES_WORDS,
	programme: PROGRAMME_WORDS,
	receiving: RECEIVING_WORDS,
	delivery: DELIVERY_WORDS
};

/** A link by its id, and the words for what it tells. */
export const speaking: readonly { readonly id: string; readonly words: Words }[] = Object.entries(WORDS).map(
	([id, words]) => ({ id, words })
);
