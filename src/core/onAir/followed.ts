import { SCREEN_UNIT } from '../files/cardFile';
import type { Context } from '../link/context';
import type { Timetable } from './when';

/** The unit that is begun whenever something else is on, or nothing any more: it switches the screen; null: none is to be. */
export const followed = ({ rules, quiet }: Pick<Timetable, 'rules' | 'quiet'>, { facts }: Context): string | null =>
	facts.picture?.darkWhileResting && rules.length + quiet.length > 0 ? `${SCREEN_UNIT}.service` : null;

/** The set is to be off at times. */
export const goesDark = ({
	hours,
	darkWhileResting
}: {
	readonly hours: object | null;
	readonly darkWhileResting: boolean;
}): boolean => hours !== null || darkWhileResting;
