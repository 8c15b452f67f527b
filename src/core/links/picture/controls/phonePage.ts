import type { Facts } from '../../../facts';
import type { PictureSettings } from '../settings';

/** Somebody with a phone has something to press. */
export const hasPage = ({ controls }: Pick<PictureSettings, 'controls'>, { byPhone }: Facts): boolean =>
	byPhone !== undefined || controls.some(({ by }) => by === 'phone');

/** Its page asks for a password, which is given when the card set is written. */
export const asksPhonePassword = (settings: PictureSettings, facts: Facts): boolean =>
	settings.used && settings.phonePassword && hasPage(settings, facts);
