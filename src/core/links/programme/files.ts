import { endsWithin } from '../../files/sandbox';
import { lines, PLAYER_UNIT, rootPath, textFile } from '../../files/cardFile';
import { claimsOn, type Claim, type ClaimOn } from '../../claims';
import { mpvLine } from '../../formats/mpv/conf';
import type { CardFile, CardLine } from '../../link/file';
import type { Context } from '../../link/context';
import { followed } from '../../onAir/followed';
import { onAirFiles } from './rules/onAirFiles';
import { quietCalendars, quietLine } from './quiet';
import { MAY_SOUND } from './scripts';
import { MAY_SOUND_PATH, QUIET_BEGINS, QUIET_ENDS } from './service';
import type { ProgrammeSettings } from './settings';

const QUIET_HOURS_PATH = '/opt/yphos/quiet-hours.txt';
const UNITS = '/etc/systemd/system/';

type PlayerClaim = ClaimOn<'player'>;

/** The player's options that decide how the list runs, and what begins and ends quiet hours. */
export const programmeFiles = (settings: ProgrammeSettings, context: Context, claims: readonly Claim[]): CardFile[] => [
	playerOptions(settings, claimsOn(claims, 'player')),
	...quietFiles(settings, context, claimsOn(claims, 'hushed')),
	...onAirFiles(settings, context, volumeOf(claimsOn(claims, 'player')))
];

/** The player's volume as the sound link asks for it, percent. */
const volumeOf = (claimed: readonly PlayerClaim[]): number =>
	Number(claimed.findLast((claim) => claim.option === 'volume')?.value ?? 100);

function option(name: string, value: string, setting: CardLine['setting']): CardLine {
	const written = mpvLine(name, value);
	// Settings hold no line breaks, so a fault here is ours.
	if (!written.ok) throw new RangeError(`mpv.conf: ${name}`);
	return { text: written.value, setting };
}

function playerOptions(programme: ProgrammeSettings, claimed: readonly PlayerClaim[]): CardFile {
	const loops = {
		list: option('loop-playlist', 'inf', 'programme.loop'),
		one: option('loop-file', 'inf', 'programme.loop'),
		once: option('loop-playlist', 'no', 'programme.loop')
	};
	return textFile(rootPath('/etc/mpv/mpv.conf'), 'How the player plays.', [
		...lines('programme', '# Nothing but what is listed, and no other way in.'),
		// Where nothing shows a picture, none is worked out; no sound where nothing sounds.
		...(claimed.some((claim) => claim.option === 'video') ? [] : [option('video', 'no', 'programme')]),
		...(claimed.some((claim) => claim.option === 'ao') ? [] : [option('audio', 'no', 'programme')]),
		option('ytdl', 'no', 'programme'),
		option('load-scripts', 'no', 'programme'),
		option('input-default-bindings', 'no', 'programme'),
		option('input-terminal', 'no', 'programme'),
		option('msg-color', 'no', 'programme'),
		option('quiet', 'yes', 'programme'),
		option('network-timeout', '10', 'programme'),
		...claimed.map((claim) => option(claim.option, claim.value, claim.setting)),
		loops[programme.loop],
		option('shuffle', programme.shuffle ? 'yes' : 'no', 'programme.shuffle')
	]);
}

/** What is silenced at quiet hours, and the screen with it; a page follows the hours by itself. */
function quietFiles(programme: ProgrammeSettings, context: Context, hushed: readonly ClaimOn<'hushed'>[]): CardFile[] {
	const { quiet } = programme;
	const plays = !context.facts.pageBrowser;
	const follows = plays ? followed(programme, context) : null;
	if (quiet.length === 0 || (!plays && hushed.length === 0)) return [];
	const timer = (name: string, what: string, which: 'begins' | 'ends'): CardFile =>
		textFile(rootPath(`${UNITS}${name}.timer`), what, [
			...lines('programme.quiet', '[Unit]', `Description=${what}`, '', '[Timer]'),
			...quiet.flatMap((hours, index) =>
				lines(`programme.quiet.${index}`, `OnCalendar=${quietCalendars(hours)[which]}`)
			),
			...lines('programme.quiet', 'AccuracySec=1s', '', '[Install]', 'WantedBy=timers.target')
		]);
	const action = (name: string, what: string, verb: 'stop' | 'start', player: boolean): CardFile =>
		textFile(rootPath(`${UNITS}${name}.service`), what, [
			...lines(
				'programme.quiet',
				'[Unit]',
				`Description=${what}`,
				'',
				'[Service]',
				'Type=oneshot',
				endsWithin(60),
				...(player ? [`ExecStart=/usr/bin/systemctl --no-block ${verb} ${PLAYER_UNIT}`] : [])
			),
			...hushed.flatMap(({ unit, setting }) =>
				lines(setting, `ExecStart=/usr/bin/systemctl --no-block ${verb} ${unit}`)
			),
			...(follows ? lines('picture.darkWhileResting', `ExecStart=/usr/bin/systemctl --no-block start ${follows}`) : [])
		]);
	return [
		textFile(
			rootPath(MAY_SOUND_PATH),
			'Keeps the player silent when the board starts within quiet hours.',
			lines('programme.quiet', ...MAY_SOUND),
			'0755'
		),
		textFile(
			rootPath(QUIET_HOURS_PATH),
			'The quiet hours, for may-sound.sh.',
			quiet.flatMap((hours, index) => lines(`programme.quiet.${index}`, quietLine(hours)))
		),
		timer(QUIET_BEGINS, 'Quiet hours begin', 'begins'),
		action(QUIET_BEGINS, 'Silence for quiet hours', 'stop', plays),
		...(programme.startAtBoot || hushed.length || follows
			? [
					timer(QUIET_ENDS, 'Quiet hours end', 'ends'),
					action(QUIET_ENDS, 'Sound after quiet hours', 'start', plays && programme.startAtBoot)
				]
			: [])
	];
}
