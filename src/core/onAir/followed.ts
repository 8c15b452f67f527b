import { SCREEN_UNIT } from '../files/cardFile';
import type { Context } from '../link';
import type { PictureSettings } from '../links/picture/settings';
import type { ProgrammeSettings } from '../links/programme/settings';

/** The unit that is begun whenever something else is on, or nothing any more: it switches the screen; null: none is to be. */
export const followed = (
	{ rules, quiet }: Pick<ProgrammeSettings, 'rules' | 'quiet'>,
	{ facts }: Context
): string | null =>
	facts.picture?.darkWhileResting && rules.length + quiet.length > 0 ? `${SCREEN_UNIT}.service` : null;

/** The set is to be off at times. */
export const goesDark = ({ hours, darkWhileResting }: Pick<PictureSettings, 'hours' | 'darkWhileResting'>): boolean =>
	hours !== null || darkWhileResting;
