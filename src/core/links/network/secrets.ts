import { ok } from '../../basics/result';
import { checkPassword, LONGEST_PASSWORD, passwordBits, passwordWords } from '../../formats/crypt/password';
import { saltFrom, sha512crypt } from '../../formats/crypt/sha512crypt';
import { derivePsk, LONGEST_PASSPHRASE } from '../../formats/keyfile/psk';
import type { Writes } from '../../manifest';
import type { Asked } from '../../secrets';
import { needsPassword } from './login';
import type { NetworkSettings } from './settings';

const ofKeeper = ({ user }: NetworkSettings): Asked => ({
	id: 'password',
	label: `Password for ${user}, who looks after it`,
	hint(typed) {
		const bits = passwordBits(typed);
		return typed === ''
			? 'Three or four words in a row are easy to type. Yphos keeps it nowhere.'
			: `${passwordWords(bits)}: at most ${bits.toFixed(0)} bits for a guesser`;
	},
	longest: LONGEST_PASSWORD,
	isNew: true,
	option: 'password-file',
	why: `lets ${user} log in by password, and not by keys alone`,
	take(typed, random) {
		const good = checkPassword(typed, user);
		if (!good.ok) return good;
		const crypt = sha512crypt(typed, saltFrom(random));
		return crypt.ok ? ok({ userPasswordCrypt: crypt.value }) : crypt;
	}
});

const ofRadio = ({ ssid }: NetworkSettings): Asked => ({
	id: 'passphrase',
	label: `Wi-Fi password of "${ssid}"`,
	hint: () => 'Only the key made from it goes on the card. Yphos keeps neither.',
	longest: LONGEST_PASSPHRASE,
	option: 'passphrase-file',
	why: `joins "${ssid}" by Wi-Fi`,
	take(typed) {
		const key = derivePsk(ssid, typed);
		return key.ok ? ok({ radioPskHex: key.value }) : key;
	}
});

/** The keeper's password, and that of the Wi-Fi. */
export const networkSecrets: Writes<NetworkSettings>['secrets'] = {
	options: ['password-file', 'passphrase-file'],
	of: (network) => [
		...(needsPassword(network) ? [ofKeeper(network)] : []),
		...(network.way === 'radio' ? [ofRadio(network)] : [])
	]
};
