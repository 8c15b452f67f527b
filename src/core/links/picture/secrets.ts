import { ok } from '../../basics/result';
import { checkPhonePassword, LONGEST_PHONE_PASSWORD } from '../../files/phonePassword';
import type { Writes } from '../../manifest';
import { asksPhonePassword } from './controls/phonePage';
import type { PictureSettings } from './settings';

const OPTION = 'phone-password-file';

/** The password of the page for a phone. */
export const pictureSecrets: Writes<PictureSettings>['secrets'] = {
	options: [OPTION],
	of: (settings, { facts }) =>
		asksPhonePassword(settings, facts)
			? [
					{
						id: 'phone',
						label: 'Password of the page for a phone',
						hint: () =>
							'For those in charge on the spot. A digest of it goes on the card; it travels unencrypted, so take one that opens nothing else.',
						longest: LONGEST_PHONE_PASSWORD,
						option: OPTION,
						why: 'has a page for a phone that asks for a password',
						take(typed) {
							const good = checkPhonePassword(typed);
							return good.ok ? ok({ phonePassword: good.value }) : good;
						}
					}
				]
			: []
};
