/**
 * What judges the settings of each link, apart from the chain: the first view stands before it is loaded. A new link: its line here.
 * The order is the chain's.
 */
import { chain } from './chain';
import type { Link } from './link';
import { assessBrief } from './links/brief/findings';
import { assessCard } from './links/card/findings';
import { assessDelivery } from './links/delivery/findings';
import { assessHeader } from './links/header/findings';
import { assessHeat } from './links/heat/findings';
import { assessNetwork } from './links/network/findings';
import { assessNotices } from './links/notices/findings';
import { assessParts } from './links/parts/findings';
import { assessPicture } from './links/picture/findings';
import { assessPower } from './links/power/findings';
import { assessProgramme } from './links/programme/findings';
import { assessReceiving } from './links/receiving/findings';
import { assessSound } from './links/sound/findings';
import { assessSources } from './links/sources/findings';
import type { LinkId, Plan } from './plan/plan';

type Judge<K extends LinkId> = NonNullable<Link<K, Plan[K]>['assess']>;
const JUDGES: { readonly [K in LinkId]: Judge<K> } = {
	brief: assessBrief,
	parts: assessParts,
	header: assessHeader,
	power: assessPower,
	heat: assessHeat,
	card: assessCard,
	network: assessNetwork,
	sources: assessSources,
	sound: assessSound,
	picture: assessPicture,
	notices: assessNotices,
	programme: assessProgramme,
	receiving: assessReceiving,
	delivery: assessDelivery
};

/** The links with what judges them. */
export const judges = chain.map((link) => ({ ...link, assess: JUDGES[link.id] })) as unknown as readonly Link[];
