/** Where the page and all that belongs to it lie on the endpoint. */
export const PAGE_DIR = '/opt/yphos/notices';
/** The page itself. */
export const PAGE_PATH = `${PAGE_DIR}/index.html`;
/** Where the endpoint keeps the feeds that it fetches. */
export const FEEDS_DIR = '/var/lib/yphos-feeds';
/** Asks the page to look for what has been fetched; opened without, as anybody may, it shows feeds as they were made. */
export const READS_FEEDS = '?feeds';
/** Pages as pictures: which of them each shows, from which second on. */
export const TURNS_PATH = `${PAGE_DIR}/pictures.txt`;
/** The pictures themselves. */
export const PICTURES_DIR = `${PAGE_DIR}/pictures`;
/** Under its id, what a page shows now: a link to one of the pictures. */
export const SHOWN_DIR = '/var/lib/yphos-pages';
/** Where the player finds the picture of a page. */
export const shownAt = (pageId: string): string => `${SHOWN_DIR}/${pageId}.png`;
/** Behind the # of its address, asks the page to stand still for being drawn: which page, when, and without which zones. */
export const DRAWS = { page: 'draw', utcMs: 'at', without: 'without' } as const;
