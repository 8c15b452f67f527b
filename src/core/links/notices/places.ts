/** Where the page and all that belongs to it lie on the endpoint. */
export const PAGE_DIR = '/opt/yphos/notices';
/** The page itself. */
export const PAGE_PATH = `${PAGE_DIR}/index.html`;
/** Where the endpoint keeps the feeds that it fetches. */
export const FEEDS_DIR = '/var/lib/yphos-feeds';
/** Asks the page to look for what has been fetched; opened without, as anybody may, it shows feeds as they were made. */
export const READS_FEEDS = '?feeds';
