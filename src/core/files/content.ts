import type { Facts } from '../facts';

/** Where scripts, lists, pages and media of a card set lie on the endpoint. */
const HOME = '/opt/yphos';
/** Where an endpoint that fetches its content keeps it. */
export const CONTENT_DIR = '/var/lib/yphos-content';
/** What is shown now: a link to the set that was fetched last, or to what the card brought. */
export const CONTENT_NOW = `${CONTENT_DIR}/now`;

/** There while a new set is on trial: the set before it. */
export const CONTENT_TRYING = `${CONTENT_DIR}/trying`;

/** What may be changed without the rest, by its path below the home: pages, media, lists, and the rules by which they are on. */
const CONTENT = /^(?:notices\/|media\/|programme\/|playlist\.m3u8$|list-[^/]*\.m3u8$)/;
/** Its path within a set of content; null: it is none. */
export function contentPath(onEndpoint: string): string | null {
	const below = onEndpoint.startsWith(`${HOME}/`) ? onEndpoint.slice(HOME.length + 1) : '';
	return CONTENT.test(below) ? below : null;
}

/** The folder from which an endpoint takes its content. */
export const contentHome = ({ fetchesContent }: Facts): string => (fetchesContent ? CONTENT_NOW : HOME);
/** A place of content below the home, as the endpoint's own programs are to name it. */
export const contentAt = (facts: Facts, path: string): string => contentHome(facts) + path.slice(HOME.length);
