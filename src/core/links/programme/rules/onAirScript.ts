import { scriptLines, withHead } from '../../../files/script';
import mayPlayScript from './may-play.sh?raw';
import onAirScript from './on-air.sh?raw';
import takeOnAirScript from './take-on-air.sh?raw';

export const RULES_PATH = '/opt/yphos/programme/rules.txt';
export const SUN_PATH = '/opt/yphos/programme/sun.txt';
/**
 * The rules once more, for the endpoint: reckoned there from the clock on the wall alone, so that they hold in any year. A test holds
 * it against `onAir.ts`. Source of the date from a number of days: the calendar's own cycle of 146097 days.
 */
export const ON_AIR = scriptLines(onAirScript);

/**
 * Only when something else is on than before: what plays is begun anew, or stopped, or comes to its end first. `player` null: a page, which
 * follows by itself.
 */
export const takeOnAir = (
	player: string | null,
	startsByItself: boolean,
	follows: string | null,
	finishes: boolean
): string[] =>
	withHead(takeOnAirScript, [
		`player=${finishes && !startsByItself ? '' : (player ?? '')}`,
		`begins=${startsByItself ? 'restart' : 'try-restart'}`,
		`finishes=${finishes ? 'yes' : ''}`,
		`follows=${follows ?? ''}`
	]);

/** The player may begin while something is on, and no quiet hours are. */
export const mayPlay = (maySound: string | null): string[] => withHead(mayPlayScript, [`sounds=${maySound ?? ''}`]);
