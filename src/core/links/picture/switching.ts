import { lines, rootPath, textFile } from '../../files/cardFile';
import type { CardFile, Context, SettingPath } from '../../link';
import { wiredPart } from '../../parts/chosen';
import { SCREEN_HOURS } from './scripts';
import type { PictureSettings } from './settings';

const SCREEN_PATH = '/opt/yphos/bin/screen.sh';
/** The timer and the service that switch the screen. */
export const SCREEN_UNIT = 'yphos-screen';
/** Holds the line of the switched socket while the set is to have mains. */
export const SOCKET_UNIT = 'yphos-socket.service';

/** The socket that the plan switches, and its GPIO line; null: there is none. */
export const socketOf = (context: Context): ReturnType<typeof wiredPart> => wiredPart(context, 'socket');

/** A set that stays off after a power cut is woken at each start, where it listens. */
export const wakesSet = ({ afterCut, offBy }: PictureSettings): boolean => afterCut === 'stays-off' && offBy === 'cec';

/** Something is switched: by the hour, or once at the start. */
export const switches = (settings: PictureSettings): boolean => settings.hours !== null || wakesSet(settings);

/** Units that start with the board. */
export const switchUnits = (settings: PictureSettings): { name: string; setting: SettingPath }[] => [
	...(settings.hours ? [{ name: `${SCREEN_UNIT}.timer`, setting: 'picture.hours' as const }] : []),
	...(switches(settings)
		? [
				{
					name: `${SCREEN_UNIT}.service`,
					setting: settings.hours ? ('picture.hours' as const) : ('picture.afterCut' as const)
				}
			]
		: [])
];

/** Programs that switch. Source: cec-ctl(1), gpioset(1). */
export const switchPackages = (settings: PictureSettings): string[] =>
	!switches(settings) || settings.offBy === 'signal' ? [] : [settings.offBy === 'cec' ? 'v4l-utils' : 'gpiod'];

const plain = (time: string): string => time.replace(':', '');
const ALWAYS = { from: '00:00', until: '24:00' };

/** What switches the screen, and when. */
export function switchFiles(settings: PictureSettings, context: Context): CardFile[] {
	if (!switches(settings)) return [];
	const { hours, offBy } = settings;
	const { from, until } = hours ?? ALWAYS;
	const why = hours ? 'picture.hours' : 'picture.afterCut';
	const socket = offBy === 'socket' ? socketOf(context) : null;
	const unit = (name: string): string => rootPath(`/etc/systemd/system/${name}`);
	return [
		textFile(rootPath(SCREEN_PATH), 'Switches the screen on or off, by the time.', lines(why, ...SCREEN_HOURS), '0755'),
		textFile(unit(`${SCREEN_UNIT}.service`), 'Switches the screen on or off, by the time.', [
			...lines(why, '[Unit]', 'Description=Switches the screen by the hour', 'After=yphos-player.service'),
			...lines(why, '', '[Service]', 'Type=oneshot'),
			...lines('picture.offBy', `ExecStart=${SCREEN_PATH} ${plain(from)} ${plain(until)} ${offBy}`),
			...lines(why, '', '[Install]', 'WantedBy=multi-user.target')
		]),
		...(hours
			? [
					textFile(unit(`${SCREEN_UNIT}.timer`), 'When the screen goes on and off.', [
						...lines('picture.hours', '[Unit]', 'Description=When the screen goes on and off', '', '[Timer]'),
						...lines('picture.hours.from', `OnCalendar=*-*-* ${from}:00`),
						...lines('picture.hours.until', `OnCalendar=*-*-* ${until}:00`),
						...lines('picture.hours', 'AccuracySec=1s', '', '[Install]', 'WantedBy=timers.target')
					])
				]
			: []),
		...(socket
			? [
					// The line is let go when the program ends, and the socket falls off. Source: gpioset(1), --mode=signal.
					textFile(unit(SOCKET_UNIT), 'Gives the set mains for as long as it runs.', [
						...lines('picture.offBy', '[Unit]', 'Description=Mains for the screen', '', '[Service]'),
						...lines('header.lines', `ExecStart=/usr/bin/gpioset --mode=signal gpiochip0 ${socket.line}=1`),
						...lines('picture.offBy', 'Restart=on-failure', 'RestartSec=5')
					])
				]
			: [])
	];
}
