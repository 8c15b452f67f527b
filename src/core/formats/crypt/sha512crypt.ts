import { sha512 } from '@noble/hashes/sha2.js';
import { fault, ok, type Result } from '../../basics/result';

/** Digits of crypt's own base 64. Source: crypt(5), "./0-9A-Za-z". */
const DIGITS = './0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';
const DEFAULT_ROUNDS = 5000;
const LEAST_ROUNDS = 1000;
const MOST_ROUNDS = 999_999_999;
const LONGEST_SALT = 16;
/** Source: crypt(3), CRYPT_MAX_PASSPHRASE_SIZE, less its end. */
const LONGEST_KEY_BYTES = 511;

/** Order in which the 64 bytes of the last digest are written, three at a time. Source: SHA-crypt 0.6, step 22. */
const ORDER: readonly (readonly [number, number, number])[] = Array.from({ length: 21 }, (_, n) => {
	const triple = [n, n + 21, n + 42] as const;
	const turn = n % 3;
	return [triple[turn % 3]!, triple[(turn + 1) % 3]!, triple[(turn + 2) % 3]!];
});

/**
 * The string that stands in /etc/shadow for a password. Source: "Unix crypt using SHA-256 and SHA-512", 0.6 (2016).
 * @param rounds null: the default of 5000, which is left out of the string; others are brought between 1000 and 999 999 999
 * Faults: `salt-bad`, `password-long`.
 */
export function sha512crypt(password: string, salt: string, rounds: number | null = null): Result<string> {
	if (!/^[./0-9A-Za-z]*$/.test(salt.slice(0, LONGEST_SALT)))
		return fault('salt-bad', 'A salt holds letters, digits, full stops and slashes only.');
	const key = new TextEncoder().encode(password);
	if (key.length > LONGEST_KEY_BYTES)
		return fault('password-long', `It has ${key.length} bytes; at most ${LONGEST_KEY_BYTES} are taken.`);
	const seed = new TextEncoder().encode(salt.slice(0, LONGEST_SALT));
	const times = rounds === null ? DEFAULT_ROUNDS : Math.max(LEAST_ROUNDS, Math.min(MOST_ROUNDS, rounds));
	const first = startDigest(key, seed);
	const digest = stretch(first, key, seed, times);
	const text = ORDER.map(([a, b, c]) => digits((digest[a]! << 16) | (digest[b]! << 8) | digest[c]!, 4)).join('');
	const head = rounds === null ? '$6$' : `$6$rounds=${times}$`;
	return ok(`${head}${salt.slice(0, LONGEST_SALT)}$${text}${digits(digest[63]!, 2)}`);
}

function digits(value: number, count: number): string {
	return Array.from({ length: count }, (_, n) => DIGITS[(value >> (6 * n)) & 63]).join('');
}

/** Steps 1 to 12. */
function startDigest(key: Uint8Array, seed: Uint8Array): Uint8Array {
	const alternate = sha512(concat(key, seed, key));
	const hash = sha512.create().update(key).update(seed).update(repeat(alternate, key.length));
	for (let bits = key.length; bits > 0; bits >>= 1) hash.update(bits & 1 ? alternate : key);
	return hash.digest();
}

/** Steps 13 to 21. */
function stretch(first: Uint8Array, key: Uint8Array, seed: Uint8Array, rounds: number): Uint8Array {
	const p = repeat(digestOfTimes(key, key.length), key.length);
	const s = repeat(digestOfTimes(seed, 16 + first[0]!), seed.length);
	let digest = first;
	for (let n = 0; n < rounds; n++) {
		const hash = sha512.create().update(n & 1 ? p : digest);
		if (n % 3) hash.update(s);
		if (n % 7) hash.update(p);
		digest = hash.update(n & 1 ? digest : p).digest();
	}
	return digest;
}

function digestOfTimes(bytes: Uint8Array, times: number): Uint8Array {
	const hash = sha512.create();
	for (let n = 0; n < times; n++) hash.update(bytes);
	return hash.digest();
}

const repeat = (bytes: Uint8Array, length: number): Uint8Array =>
	Uint8Array.from({ length }, (_, n) => bytes[n % bytes.length]!);

function concat(...parts: readonly Uint8Array[]): Uint8Array {
	const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
	let at = 0;
	for (const part of parts) {
		whole.set(part, at);
		at += part.length;
	}
	return whole;
}

/** A salt out of random bytes, 16 of them. */
export const saltFrom = (random: Uint8Array): string =>
	Array.from(random.slice(0, LONGEST_SALT), (byte) => DIGITS[byte & 63]).join('');
