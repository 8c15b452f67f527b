import { sha256 } from '@noble/hashes/sha2.js';
import { utf8ToBytes } from '@noble/hashes/utils.js';
import { fault, ok, type Result } from '../basics/result';
import { saltFrom, sha512crypt } from '../formats/crypt/sha512crypt';

/** Where the endpoint keeps what it knows of the password of its page for a phone: the administrator's alone. */
export const PHONE_PASSWORD_PATH = '/opt/yphos/phone/password';
/** What a phone's keyboard is spared. */
export const LONGEST_PHONE_PASSWORD = 100;
const SHORTEST = 8;
/** What openssl reads of one. Source: openssl-passwd(1), seen to cut at 256. */
const MOST_BYTES = 250;
/** So many that one guess takes a small board a good part of a second. */
const ROUNDS = 50_000;

/**
 * What of a password goes on the card: a slow hash of it, with a salt from the endpoint's own name, so that two endpoints with the same
 * one differ, and the same set is written again alike. `phone.sh` has openssl make the same of what a browser sends.
 */
export function phonePasswordHash(hostName: string, password: string): string {
	const hash = sha512crypt(password, saltFrom(sha256(utf8ToBytes(`phone ${hostName}`))), ROUNDS);
	if (!hash.ok) throw new RangeError(hash.faults[0]!.message);
	return hash.value;
}

/** Whether people can type it into a browser's own question. Faults: `phone-password`. */
export function checkPhonePassword(password: string): Result<string> {
	const length = [...password].length;
	if (length < SHORTEST || length > LONGEST_PHONE_PASSWORD)
		return fault(
			'phone-password',
			`It has ${length} character${length === 1 ? '' : 's'}; the page for a phone takes ${SHORTEST} to ${LONGEST_PHONE_PASSWORD}.`
		);
	const bytes = utf8ToBytes(password).length;
	if (bytes > MOST_BYTES)
		return fault(
			'phone-password',
			`Its letters take ${bytes} bytes; the page for a phone takes ${MOST_BYTES}. Letters outside English take two to four each.`
		);
	if (/[\p{Cc}\p{Cs}]/u.test(password))
		return fault('phone-password', 'It holds a character that no keyboard has. Leave out line breaks and tabs.');
	return ok(password);
}
