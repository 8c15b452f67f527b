import type { Claim } from '../../../claims';
import type { Context } from '../../../link/context';
import type { ProgrammeSettings } from '../settings';

/** The script that lets what plays come to its end when something else is on by the rules. */
export const FINISH_PATH = '/opt/yphos/player/finish.lua';
/** How the player ends for what is on then; no failure, and it is begun again whatever the list does at its end. As in the script. */
export const LEAVES_WITH = 75;

/** What plays is played to its end; a page changes at once, for its zones have no end in common. */
export const finishes = ({ atChange, rules }: ProgrammeSettings, { facts }: Context): boolean =>
	atChange === 'finish' && rules.length > 0 && facts.pageBrowser !== true;

/** The player takes the script along. */
export const finishClaims = (settings: ProgrammeSettings, context: Context): Claim[] =>
	finishes(settings, context)
		? [
				{
					on: 'player',
					from: 'programme',
					what: 'the end of what plays',
					option: 'script',
					value: FINISH_PATH,
					setting: 'programme.atChange'
				}
			]
		: [];
