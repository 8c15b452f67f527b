import { fault, ok, type Result } from '../../basics/result';

/** Passwords that are tried first, and those that images bring. */
const TRIED_FIRST = new Set([
	...['password', 'passwort', 'passord', 'admin', 'administrator', 'root', 'toor', 'debian', 'linux', 'default'],
	...[
		'12345678',
		'123456789',
		'1234567890',
		'123456',
		'12345',
		'qwerty',
		'qwertz',
		'letmein',
		'welcome',
		'changeme',
		'secret'
	],
	...['guest', 'user', 'test', 'player', 'music', 'yphos']
]);
const LEAST_LENGTH = 10;
/** Longer ones are refused or cut by some programs on the way. Source: crypt(3), CRYPT_MAX_PASSPHRASE_SIZE 512, in bytes. */
export const LONGEST_PASSWORD = 127;

/**
 * Bits that a guesser must get right, at most: length by alphabet, repeats and runs not counted. A rough bound, and said as such.
 */
export function passwordBits(long: string): number {
	const password = long.slice(0, LONGEST_PASSWORD);
	const kinds = [/[a-z]/, /[A-Z]/, /\d/, /[^A-Za-z0-9]/];
	const sizes = [26, 26, 10, 33];
	const alphabet = kinds.reduce((sum, kind, n) => sum + (kind.test(password) ? sizes[n]! : 0), 0);
	const letters = [...password];
	const counted = letters.filter((letter, n) => {
		const before = letters[n - 1];
		return before === undefined || ![0, 1, -1].includes(letter.charCodeAt(0) - before.charCodeAt(0));
	}).length;
	return alphabet === 0 ? 0 : counted * Math.log2(alphabet);
}

/** A password's strength in words, from its bits. */
export const passwordWords = (bits: number): string =>
	bits < 35 ? 'weak' : bits < 50 ? 'fair' : bits < 70 ? 'good' : 'strong';

/**
 * A password that may guard an endpoint. The message never repeats it.
 * Faults: `password-long`, `password-empty`, `password-tried-first`, `password-name`, `password-short`.
 */
export function checkPassword(password: string, user: string): Result<{ bits: number }> {
	if (password.length > LONGEST_PASSWORD)
		return fault('password-long', `It has ${password.length} characters; at most ${LONGEST_PASSWORD} are taken.`);
	const plain = password.toLowerCase().replace(/[^a-z0-9]/g, '');
	if (password === '') return fault('password-empty', 'Without a password anybody gets in. Type one.');
	if (/[\u0000-\u001f\u007f]/.test(password))
		return fault(
			'password-control',
			'A character in it cannot be typed at a prompt. Use letters, digits, signs and spaces.'
		);
	if (TRIED_FIRST.has(plain) || TRIED_FIRST.has(plain.replace(/(?<!\d)\d+$/, '')))
		return fault('password-tried-first', 'This is one of the passwords that are tried first. Take another.');
	if (user !== '' && plain.includes(user.replace(/[^a-z0-9]/g, '')) && plain.length < user.length + 6)
		return fault('password-name', 'It is little more than the user\u2019s name. Take another.');
	if ([...password].length < LEAST_LENGTH)
		return fault(
			'password-short',
			`Fewer than ${LEAST_LENGTH} characters are guessed too soon. Three or four words in a row are easy to type.`
		);
	return ok({ bits: passwordBits(password) });
}
