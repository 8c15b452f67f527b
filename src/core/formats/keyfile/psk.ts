import { pbkdf2 } from '@noble/hashes/pbkdf2.js';
import { sha1 } from '@noble/hashes/legacy.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { fault, ok, type Result } from '../../basics/result';

/** Source: IEEE 802.11-2020, annex J.4. */
export const LONGEST_PASSPHRASE = 63;

/**
 * The key of a Wi-Fi network from its name and pass phrase: PBKDF2-HMAC-SHA1, 4096 rounds, 32 bytes, as 64 hex digits.
 * Source: IEEE 802.11-2020, annex J.4 "Suggested pass-phrase-to-PSK mapping". Takes tenths of a second: call it when writing, not while typing.
 * Faults: `psk-length` (8 to 63 characters), `psk-characters` (printable ASCII), `ssid-length` (1 to 32 bytes).
 */
export function derivePsk(ssid: string, passphrase: string): Result<string> {
	const ssidBytes = new TextEncoder().encode(ssid);
	if (ssidBytes.length < 1 || ssidBytes.length > 32)
		return fault('ssid-length', `A network name has 1 to 32 bytes; this one has ${ssidBytes.length}.`);
	const length = new TextEncoder().encode(passphrase).length;
	if (length < 8 || length > LONGEST_PASSPHRASE)
		return fault('psk-length', `A Wi-Fi password has 8 to 63 characters; this one has ${length}.`);
	if (!/^[\x20-\x7e]*$/.test(passphrase))
		return fault(
			'psk-characters',
			'A Wi-Fi password has only plain letters, digits and signs of the English keyboard.'
		);
	return ok(bytesToHex(pbkdf2(sha1, passphrase, ssidBytes, { c: 4096, dkLen: 32 })));
}
