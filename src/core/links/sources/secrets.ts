import { fault, ok } from '../../basics/result';
import type { Writes } from '../../manifest';
import type { Asked } from '../../secrets';
import type { SourcesSettings } from './settings';
import { asksPassword, storeWords, type Store } from './stores/stores';

/** As long as a line of a credentials file may be that mount.cifs reads. */
const LONGEST = 127;
const OPTION = 'share-passwords';

const ofShare = (store: Store): Asked => ({
	id: `share.${store.name}`,
	label: `Password of ${store.kind === 'smb' ? store.user : ''} for ${storeWords(store)}`,
	hint: () =>
		'It stands on the card as you type it, and whoever has the card can read it: use an account that may only read.',
	longest: LONGEST,
	option: OPTION,
	line: store.name,
	why: `reads ${storeWords(store)} by password`,
	take: (typed) =>
		typed === ''
			? fault('share-password', `The password for ${storeWords(store)} is missing. Type it.`)
			: ok({ sharePasswords: { [store.name]: typed } })
});

/** Passwords of shares. */
export const sourcesSecrets: Writes<SourcesSettings>['secrets'] = {
	options: [OPTION],
	of: ({ stores }) => stores.filter(asksPassword).map(ofShare)
};
