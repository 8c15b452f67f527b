import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { fault, ok, type Result } from '../basics/result';

/** Where the endpoint keeps what it knows of the password of its page for a phone. */
export const PHONE_PASSWORD_PATH = '/opt/yphos/phone/password';
/** What a phone's keyboard is spared. */
export const LONGEST_PHONE_PASSWORD = 100;
const SHORTEST = 4;

/**
 * What of a password goes on the card: a digest with the endpoint's own name, so that two endpoints with the same one differ, and
 * the same set is written again alike. `phone.sh` makes the same of what a browser sends.
 */
export const phonePasswordDigest = (hostName: string, password: string): string =>
	bytesToHex(sha256(utf8ToBytes(`${hostName} ${password}`)));

/** Whether people can type it into a browser's own question. Faults: `phone-password`. */
export function checkPhonePassword(password: string): Result<string> {
	const length = [...password].length;
	if (length < SHORTEST || length > LONGEST_PHONE_PASSWORD)
		return fault(
			'phone-password',
			`It has ${length} character${length === 1 ? '' : 's'}; the page for a phone takes ${SHORTEST} to ${LONGEST_PHONE_PASSWORD}.`
		);
	if (/[\p{Cc}\p{Cs}]/u.test(password))
		return fault('phone-password', 'It holds a character that no keyboard has. Leave out line breaks and tabs.');
	return ok(password);
}
