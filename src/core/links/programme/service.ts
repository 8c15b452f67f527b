import type { Claim } from '../../claims';
import { PLAYER_UNIT, PLAYLIST_PATH } from '../../files/cardFile';
import { contentAt } from '../../files/content';
import type { Context } from '../../link/context';
import { finishes, LEAVES_WITH } from './lists/finish';
import type { ProgrammeSettings } from './settings';

/** The name of the timer and service that silence the player. */
export const QUIET_BEGINS = 'yphos-quiet-begins';
/** The name of the timer and service that let it play again. */
export const QUIET_ENDS = 'yphos-quiet-ends';
/** Where scripts of the card set lie. */
export const BIN = '/opt/yphos/bin/';
/** The script that says whether now is outside quiet hours. */
export const MAY_SOUND_PATH = `${BIN}may-sound.sh`;
/** The script that says whether something is on, and no quiet hours are. */
export const MAY_PLAY_PATH = `${BIN}may-play.sh`;
/** Where the endpoint keeps what is on now. */
export const STATE_DIR = '/var/lib/yphos-on-air';
/** The list that is on, by its path; an empty line while nothing is. */
export const NOW_PATH = `${STATE_DIR}/now.m3u8`;
/** Of a list with entries that are on for some days only, those of today. */
export const DAYS_PATH = `${STATE_DIR}/days.m3u8`;
/** How loud it is to be by the rules, as the player's own option. */
export const LOUD_PATH = `${STATE_DIR}/volume.conf`;
/** The rule by which it is on, in words. */
export const WHY_PATH = `${STATE_DIR}/why`;

/** How the player ends where some entries could be played, and some could not: the list has been played. Source: mpv(1), EXIT CODES. */
const SOME_PLAYED = 3;

/** The player as a service: it plays the list, keeps quiet hours, and is started again when it ends. */
export const playerService = (programme: ProgrammeSettings, context: Context): Claim => ({
	on: 'service',
	from: 'programme',
	what: 'player',
	setting: 'programme',
	unit: PLAYER_UNIT,
	why: 'Starts the player, and starts it again whenever it ends.',
	described: { text: `Plays for ${context.facts.endpointName}`, setting: 'brief.name' },
	exec: programme.rules.length
		? {
				words: [
					'/usr/bin/mpv',
					...(programme.rules.some(({ quieterDb }) => quieterDb > 0) ? [`--include=${LOUD_PATH}`] : []),
					`--playlist=${NOW_PATH}`
				],
				setting: 'programme.rules'
			}
		: { words: ['/usr/bin/mpv', `--playlist=${contentAt(context.facts, PLAYLIST_PATH)}`], setting: 'sources' },
	home: 'yphos',
	restart: {
		...(programme.loop === 'once'
			? { when: 'on-failure', endsWell: SOME_PLAYED, setting: 'programme.loop' }
			: { when: 'always', setting: 'programme.loop' }),
		...(finishes(programme, context) ? { beginsAgainAfter: LEAVES_WITH } : {})
	},
	...(programme.rules.length
		? { condition: { path: MAY_PLAY_PATH, setting: 'programme.rules' } }
		: programme.quiet.length
			? { condition: { path: MAY_SOUND_PATH, setting: 'programme.quiet' } }
			: {}),
	...(programme.startAtBoot ? { boots: 'programme.startAtBoot' } : {})
});
