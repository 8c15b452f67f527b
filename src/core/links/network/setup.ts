import { lines, textFile } from '../../files/cardFile';
import { scriptLines } from '../../files/script';
import { shellQuote, shellWord } from '../../formats/shell/quote';
import type { CardFile, CardLine } from '../../link/file';
import type { Context } from '../../link/context';
import type { Secrets } from '../../secrets';
import { readPublicKey } from '../../formats/ssh/publicKey';
import setupScript from './setup.sh?raw';
import { loginSetting, needsPassword } from './login';
import type { NetworkSettings } from './settings';

/** apply.sh runs it, after the packages; it ends with 10 when something was not so yet. */
export const SETUP_PATH = 'boot/yphos/setup.sh';

/** Without it an image that reads no seed, or is set up at a screen, would have neither key nor name: nobody could log in. */
export function setupFile(network: NetworkSettings, context: Context, secrets: Secrets): CardFile {
	const { user, hostName, login } = network;
	const byKey = network.way !== 'none' && (login === 'key' || login === 'both');
	const keys =
		byKey && user
			? network.sshKeys.flatMap((line) => {
					const key = readPublicKey(line);
					return key.ok ? [key.value.text] : [];
				})
			: [];
	const crypt = needsPassword(network) ? secrets.userPasswordCrypt : undefined;
	const rule = `${user} ${needsPassword(network) ? 'ALL=(ALL) ALL' : 'ALL=(ALL) NOPASSWD:ALL'}`;
	const [first, ...body] = scriptLines(setupScript);
	const head: CardLine[] = [
		...lines('network.hostName', `name=${shellWord(hostName)}`),
		...lines('network', `zone=${shellWord(context.venue.timeZone)}`),
		...lines(user ? 'network.user' : loginSetting(network), `user=${shellWord(user)}`),
		crypt
			? { text: `crypt=${shellQuote(crypt)}`, setting: loginSetting(network), secret: true }
			: { text: "crypt=''", setting: loginSetting(network) },
		...lines(loginSetting(network), `rule=${shellQuote(rule)}`),
		...lines(loginSetting(network), 'keys=()'),
		...lines('network.sshKeys', ...keys.map((key) => `keys+=(${shellQuote(key)})`))
	];
	const content = [...lines('network', first!, body[0]!), ...head, ...lines('network', ...body.slice(1))];
	return textFile(SETUP_PATH, 'Sets what user-data asks for, where the image reads none.', content, '0755');
}
