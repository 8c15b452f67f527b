/** Where the endpoint reads what it fetches, from where, and by whose key. */
export const OWN_DIR = '/opt/yphos/delivery';
/** Fetches a set. */
export const RENEW_PATH = '/opt/yphos/bin/renew.sh';
/** Shows what was fetched, or what was shown before. */
export const SWITCH_PATH = '/opt/yphos/bin/switch-set.sh';
/** The service that fetches, and its timer. */
export const RENEW_UNIT = 'yphos-renew';
/** The service that looks before the player begins whether what is to be shown is whole. */
export const CONTENT_UNIT = 'yphos-content.service';
