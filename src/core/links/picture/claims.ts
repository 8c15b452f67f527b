import { entryClaims } from '../../basics/entries';
import type { Claim } from '../../claims';
import { PLAYER_UNIT } from '../../files/cardFile';
import type { Context } from '../../link/context';
import type { SettingPath } from '../../link/setting';
import { wiredPart } from '../../parts/chosen';
import { decodes, needsCircuit } from '../../parts/playLoad';
import { modelineOf } from '../../standards/videoTiming';
import { controlPackages, keysOf } from './controls/controls';
import { KEYS_UNIT, PHONE_PORT, PHONE_UNITS, PLAYER_SOCKET, SHIFT_PATH, WAIT_PATH } from './places';
import { hasPage } from './controls/phonePage';
import { switchPackages, switchUnits } from './switching/switching';
import { SIDES } from './edges/overscan';
import type { PictureSettings } from './settings';
import { EDID_FILE, EDID_PATH, modeInWords, playerMargins, playerMode, videoArgument } from './modes/written';
import { pictureWay } from './way';

const FROM = { from: 'picture' } as const;

/** What the picture asks of the kernel, the player, its start, the card and the settings sheet. */
export function pictureClaims(settings: PictureSettings, context: Context): Claim[] {
	return [
		...kernelClaims(settings, context),
		...playerClaims(settings, context),
		...startClaims(settings),
		...packageClaims(settings),
		...unitClaims(settings, context),
		...pageClaims(settings, context),
		...eyeClaims(settings, context),
		...checkClaims(settings, context),
		...sheetClaims(settings, context)
	];
}

function kernelClaims(settings: PictureSettings, context: Context): Claim[] {
	const way = pictureWay(settings, context);
	const video = videoArgument(settings, way);
	const kernel = (argument: string, setting: SettingPath): Claim => ({
		...FROM,
		on: 'kernel',
		what: 'display',
		argument,
		setting
	});
	return [
		...(video ? [kernel(video, 'picture.mode')] : []),
		...(settings.writesEdid && way.chosen
			? [
					kernel(`drm.edid_firmware=${settings.connector}:${EDID_FILE}`, 'picture.writesEdid'),
					{ ...FROM, on: 'ramdisk' as const, what: 'EDID', path: EDID_PATH, setting: 'picture.writesEdid' as const }
				]
			: []),
		// Source: the kernel's fb/fbcon.rst, fbcon=rotate:<n>.
		...(settings.turn ? [kernel(`fbcon=rotate:${settings.turn / 90}`, 'picture.turn')] : []),
		...(settings.hidesBoot
			? ['quiet', 'loglevel=3', 'vt.global_cursor_default=0'].map((argument) => kernel(argument, 'picture.hidesBoot'))
			: []),
		...(settings.blankMin ? [kernel(`consoleblank=${settings.blankMin * 60}`, 'picture.blankMin')] : [])
	];
}

/** Source of every option: mpv(1). */
function playerClaims(settings: PictureSettings, context: Context): Claim[] {
	const way = pictureWay(settings, context);
	const option = (name: string, value: string, setting: SettingPath): Claim => ({
		...FROM,
		on: 'player',
		what: 'display',
		option: name,
		value,
		setting
	});
	const margins = playerMargins(settings, way);
	const mode = playerMode(settings, way);
	const { film } = context.facts;
	const byCircuit = film !== null && way.board?.decoders.some((decoder) => decodes(decoder, film));
	return [
		option('video', 'auto', 'picture'),
		option('vo', settings.draws === 'gpu' ? 'gpu' : 'drm', 'picture.draws'),
		...(settings.draws === 'gpu' ? [option('gpu-context', 'drm', 'picture.draws')] : []),
		option('drm-connector', settings.connector, 'picture.connector'),
		...(mode ? [option('drm-mode', mode, 'picture.mode')] : []),
		...(settings.turn ? [option('video-rotate', String(settings.turn), 'picture.turn')] : []),
		...(margins
			? SIDES.map((side) => option(`video-margin-ratio-${side}`, margins[side], `picture.edges.${side}`))
			: []),
		...(settings.levels === 'auto' ? [] : [option('video-output-levels', settings.levels, 'picture.levels')]),
		// Boards' circuits are in no list of safe ones; with copies, whatever the kernel offers is taken. Source: mpv 0.35.1, vd_lavc.c.
		...(byCircuit ? [option('hwdec', 'auto-copy', 'brief.video')] : []),
		option('image-display-duration', String(settings.stillSec), 'picture.stillSec'),
		// What is sent is shown as it comes. Source: mpv(1), low-latency profile.
		...(context.facts.receives
			? [option('profile', 'low-latency', 'sources.items'), option('cache', 'no', 'sources.items')]
			: []),
		...(settings.controls.length ? [option('input-ipc-server', PLAYER_SOCKET, 'picture.controls')] : []),
		...(settings.shifts ? [option('scripts', SHIFT_PATH, 'picture.shifts')] : []),
		option('prefetch-playlist', 'yes', 'picture'),
		option('osc', 'no', 'picture'),
		option('osd-level', '0', 'picture')
	];
}

function startClaims(settings: PictureSettings): Claim[] {
	const start = { ...FROM, on: 'start', of: PLAYER_UNIT } as const;
	return [
		{ ...start, what: 'display', group: 'video', device: 'char-drm', setting: 'picture' },
		...(settings.draws === 'gpu'
			? [{ ...start, what: 'graphics unit', group: 'render', device: 'char-drm', setting: 'picture.draws' } as const]
			: []),
		// Else the kernel may not know that kind of device yet when DeviceAllow= is looked up. Source: systemd.resource-control(5).
		{ ...start, what: 'display driver', after: 'modprobe@drm.service', wants: true, setting: 'picture' },
		{
			...start,
			what: 'screen',
			before: [WAIT_PATH, settings.connector, '20'],
			mayFail: true,
			setting: 'picture.connector'
		}
	];
}

const packageClaims = (settings: PictureSettings): Claim[] =>
	[
		...controlPackages(settings.controls),
		...(settings.draws === 'gpu' ? ['libegl-mesa0', 'libgl1-mesa-dri'] : []),
		...switchPackages(settings)
	].map((name): Claim => ({ ...FROM, on: 'package', what: 'picture', name, setting: 'picture' }));

const unitClaims = (settings: PictureSettings, { facts }: Context): Claim[] => {
	const unit = (name: string, setting: SettingPath): Claim => ({ ...FROM, on: 'unit', what: 'picture', name, setting });
	return [
		...(keysOf(settings.controls).length ? [unit(KEYS_UNIT, 'picture.controls')] : []),
		...(hasPage(settings, facts) ? PHONE_UNITS.map((name) => unit(name, 'picture.controls')) : []),
		...switchUnits(settings).map(({ name, setting }) => unit(name, setting))
	];
};

const pageClaims = (settings: PictureSettings, { facts }: Context): Claim[] =>
	hasPage(settings, facts)
		? [
				{
					...FROM,
					on: 'listen',
					what: 'page for a phone',
					port: PHONE_PORT,
					protocol: 'tcp',
					perMinute: 120,
					setting: 'picture.controls'
				},
				...(settings.phonePassword
					? [
							{
								...FROM,
								on: 'package',
								what: 'page for a phone',
								name: 'openssl',
								setting: 'picture.phonePassword'
							} as const
						]
					: []),
				{
					...FROM,
					on: 'check',
					what: 'page for a phone',
					// Without its password it lets nobody in.
					label: settings.phonePassword
						? 'the page for a phone answers, and asks for its password'
						: 'the page for a phone answers',
					command: `bash -c "exec 3<>/dev/tcp/127.0.0.1/${PHONE_PORT} && printf 'GET / HTTP/1.0\\r\\nHost: 127.0.0.1:${PHONE_PORT}\\r\\n\\r\\n' >&3 && head -n 1 <&3 | grep -q ' ${settings.phonePassword ? 401 : 200} '"`,
					setting: 'picture.controls'
				}
			]
		: [];

/** The eye of a remote, as the kernel hears of it. Source: the overlays' own README, gpio-ir; of boards that start by config.txt. */
const eyeClaims = (settings: PictureSettings, context: Context): Claim[] => {
	if (!settings.controls.some(({ by }) => by === 'remote')) return [];
	const eye = wiredPart(context, 'eye');
	return eye
		? [
				{
					...FROM,
					on: 'overlay',
					what: eye.part.name,
					name: `gpio-ir,gpio_pin=${eye.line}`,
					setting: 'picture.controls'
				}
			]
		: [];
};

/** Only by a circuit: what the player says when it takes one. Source: mpv 0.35.1, vd_lavc.c. */
const circuitCheck = (settings: PictureSettings, context: Context): Claim[] => {
	const { film, pageBrowser } = context.facts;
	const { board } = pictureWay(settings, context);
	if (!film || !board || pageBrowser || !needsCircuit(board, film)) return [];
	return [
		{
			...FROM,
			on: 'check',
			what: 'decoding',
			label: 'films are decoded by circuit',
			command: `journalctl --quiet --boot --unit ${PLAYER_UNIT} --output cat | grep -q "Using hardware decoding"`,
			setting: 'brief.video'
		}
	];
};

const checkClaims = (settings: PictureSettings, context: Context): Claim[] => [
	...circuitCheck(settings, context),
	{
		...FROM,
		on: 'check',
		what: 'screen',
		label: `a screen is on ${settings.connector}`,
		command: `grep -qx connected /sys/class/drm/card*-${settings.connector}/status`,
		setting: 'picture.connector'
	},
	...(settings.writesEdid
		? [
				{
					...FROM,
					on: 'check',
					what: 'EDID',
					label: 'the kernel uses the EDID of the card set',
					command: `cmp /sys/class/drm/card*-${settings.connector}/edid ${EDID_PATH}`,
					setting: 'picture.writesEdid'
				} as const
			]
		: [])
];

/** What to type where a ready-made image has pages of its own. */
function sheetClaims(settings: PictureSettings, context: Context): Claim[] {
	const { chosen } = pictureWay(settings, context);
	const { left, right, top, bottom } = settings.edges;
	return entryClaims('picture', 'picture', [
		['picture.connector', 'Display connector', settings.connector],
		['picture.mode', 'Resolution and refresh rate', chosen ? modeInWords(chosen.timing) : 'not chosen yet'],
		...(chosen ? ([['picture.mode', 'The same as a modeline', modelineOf('yphos', chosen.timing)]] as const) : []),
		['picture.turn', 'Rotation', settings.turn ? `${settings.turn}° clockwise` : 'none'],
		...(left + right + top + bottom > 0
			? ([
					['picture.edges', 'Overscan margins, pixels', `left ${left}, right ${right}, top ${top}, bottom ${bottom}`]
				] as const)
			: []),
		...(settings.hours
			? ([['picture.hours', 'The screen is on', `from ${settings.hours.from} to ${settings.hours.until}`]] as const)
			: []),
		...(settings.darkWhileResting
			? ([['picture.darkWhileResting', 'The screen is off', 'while nothing is on']] as const)
			: [])
	]);
}
