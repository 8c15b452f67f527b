/** The links in signal order, from what is wanted to what is heard. A new link: its folder, and its line here. */
import { brief } from './links/brief';
import { card } from './links/card';
import { delivery } from './links/delivery';
import { header } from './links/header';
import { heat } from './links/heat';
import { network } from './links/network';
import { notices } from './links/notices';
import { parts } from './links/parts';
import { picture } from './links/picture';
import { power } from './links/power';
import { programme } from './links/programme';
import { receiving } from './links/receiving';
import { sound } from './links/sound';
import { sources } from './links/sources';

/** Each link once; the plan, its schema and the drawing are made from this list. */
export const chain = [
	brief,
	parts,
	header,
	power,
	heat,
	card,
	network,
	sources,
	sound,
	picture,
	notices,
	programme,
	receiving,
	delivery
] as const;
