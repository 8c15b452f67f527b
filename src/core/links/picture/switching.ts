import type { Context, SettingPath } from '../../link';
import { wiredPart } from '../../parts/chosen';
import type { PictureSettings } from './settings';

/** Switches the screen by its hours. */
export const SCREEN_PATH = '/opt/yphos/bin/screen.sh';
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
