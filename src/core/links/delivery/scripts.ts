import renew from './renew.sh?raw';
import switchSet from './switch-set.sh?raw';

/** Fetches a set of content, with no rights. Sources: curl(1), openssl-dgst(1), sha256sum(1). */
export const RENEW = renew.trimEnd().split('\n');

/**
 * Takes over what was fetched, as the administrator, and shows it by one link that changes at once. Sources: rename(2); ln(1), mv(1), -T;
 * dd(1), iflag=; systemctl(1), show.
 */
export const SWITCH_SET = switchSet.trimEnd().split('\n');
