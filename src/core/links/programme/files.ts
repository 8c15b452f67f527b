import { lines, PLAYER_UNIT, PLAYLIST_PATH, rootPath, textFile } from '../../cardFile';
import type { ClaimOn } from '../../claims';
import { mpvLine } from '../../formats/mpv/conf';
import { execLine, unitText } from '../../formats/systemd/unit';
import type { CardFile, CardLine, Context } from '../../link';
import { quietCalendars, quietLine } from './quiet';
import { MAY_SOUND } from './scripts';
import type { ProgrammeSettings } from './settings';

export const QUIET_BEGINS = 'yphos-quiet-begins';
export const QUIET_ENDS = 'yphos-quiet-ends';
export const MAY_SOUND_PATH = '/opt/yphos/bin/may-sound.sh';
export const QUIET_HOURS_PATH = '/opt/yphos/quiet-hours.txt';
const UNITS = '/etc/systemd/system/';

type PlayerClaim = ClaimOn<'player'>;
type StartClaim = ClaimOn<'start'>;

export function programmeFiles(
	settings: ProgrammeSettings,
	context: Context,
	options: readonly PlayerClaim[],
	conditions: readonly StartClaim[]
): CardFile[] {
	return [playerOptions(settings, options), playerService(settings, context, conditions), ...quietFiles(settings)];
}

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
		...lines('programme', '# Sound only, nothing but what is listed, and no other way in.'),
		option('video', 'no', 'programme'),
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

function playerService(programme: ProgrammeSettings, { facts }: Context, conditions: readonly StartClaim[]): CardFile {
	const afters = conditions.filter((claim) => claim.after);
	const groups = conditions.filter((claim) => claim.group);
	const content: CardLine[] = [
		...lines('programme', '[Unit]'),
		...lines('brief.name', `Description=Plays for ${unitText(facts.endpointName)}`),
		...afters.flatMap((claim) =>
			lines(claim.setting, `After=${claim.after!}`, ...(claim.wants ? [`Wants=${claim.after!}`] : []))
		),
		...lines('brief.comesBackAlone', 'StartLimitIntervalSec=0'),
		...lines('programme', '', '[Service]'),
		...(programme.quiet.length ? lines('programme.quiet', `ExecCondition=${MAY_SOUND_PATH}`) : []),
		...conditions
			.filter((claim) => claim.before)
			.flatMap((claim) => lines(claim.setting, `ExecStartPre=${execLine(claim.before!)}`)),
		...lines('sources', `ExecStart=${execLine(['/usr/bin/mpv', `--playlist=${PLAYLIST_PATH}`])}`),
		...lines('programme.loop', `Restart=${programme.loop === 'once' ? 'on-failure' : 'always'}`),
		...lines('brief.comesBackAlone', 'RestartSec=2'),
		...lines(
			'programme',
			'# The player may use the sound hardware and the network, and read; nothing else.',
			'DynamicUser=yes',
			'StateDirectory=yphos',
			'Environment=HOME=/var/lib/yphos'
		),
		...groups.flatMap((claim) =>
			lines(
				claim.setting,
				`SupplementaryGroups=${claim.group!}`,
				'DevicePolicy=closed',
				`DeviceAllow=${claim.device!} rw`
			)
		),
		...lines(
			'programme',
			'NoNewPrivileges=yes',
			'CapabilityBoundingSet=',
			'ProtectHome=yes',
			'ProtectKernelTunables=yes',
			'ProtectKernelModules=yes',
			'ProtectControlGroups=yes',
			'RestrictAddressFamilies=AF_UNIX AF_INET AF_INET6',
			'RestrictNamespaces=yes',
			'LockPersonality=yes',
			'SystemCallFilter=@system-service',
			'SystemCallErrorNumber=EPERM'
		),
		...(programme.startAtBoot ? lines('programme.startAtBoot', '', '[Install]', 'WantedBy=multi-user.target') : [])
	];
	return textFile(rootPath(UNITS + PLAYER_UNIT), 'Starts the player, and starts it again whenever it ends.', content);
}

function quietFiles(programme: ProgrammeSettings): CardFile[] {
	const { quiet } = programme;
	if (quiet.length === 0) return [];
	const timer = (name: string, what: string, which: 'begins' | 'ends'): CardFile =>
		textFile(rootPath(`${UNITS}${name}.timer`), what, [
			...lines('programme.quiet', '[Unit]', `Description=${what}`, '', '[Timer]'),
			...quiet.flatMap((hours, index) =>
				lines(`programme.quiet.${index}`, `OnCalendar=${quietCalendars(hours)[which]}`)
			),
			...lines('programme.quiet', 'AccuracySec=1s', '', '[Install]', 'WantedBy=timers.target')
		]);
	const action = (name: string, what: string, verb: 'stop' | 'start'): CardFile =>
		textFile(
			rootPath(`${UNITS}${name}.service`),
			what,
			lines(
				'programme.quiet',
				'[Unit]',
				`Description=${what}`,
				'',
				'[Service]',
				'Type=oneshot',
				`ExecStart=/usr/bin/systemctl --no-block ${verb} ${PLAYER_UNIT}`
			)
		);
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
		action(QUIET_BEGINS, 'Stops the player for quiet hours', 'stop'),
		...(programme.startAtBoot
			? [
					timer(QUIET_ENDS, 'Quiet hours end', 'ends'),
					action(QUIET_ENDS, 'Starts the player after quiet hours', 'start')
				]
			: [])
	];
}
