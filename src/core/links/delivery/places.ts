/** Where the endpoint reads what it fetches, from where, and by whose key. */
export const OWN_DIR = '/opt/yphos/delivery';
/** Fetches a set. */
export const RENEW_PATH = '/opt/yphos/bin/renew.sh';
/** Shows what was fetched, or what was shown before. */
export const SWITCH_PATH = '/opt/yphos/bin/switch-set.sh';
/** Where whoever fetches leaves it, with no rights to anything else: nothing in it is believed. */
export const FETCH_DIR = '/var/lib/yphos-fetch';
/** The service that fetches, and its timer. */
export const RENEW_UNIT = 'yphos-renew';
/** The service that looks before the player begins whether what is to be shown is whole. */
export const CONTENT_UNIT = 'yphos-content.service';
