import type { Context } from '../../../link/context';
import type { SettingPath } from '../../../link/setting';
import { wiredPart } from '../../../parts/chosen';
import { SCREEN_UNIT } from '../../../files/cardFile';
import { goesDark } from '../../../onAir/followed';
import type { PictureSettings } from '../settings';

/** Switches the screen by its hours. */
export const SCREEN_PATH = '/opt/yphos/bin/screen.sh';
/** Holds the line of the switched socket while the set is to have mains. */
export const SOCKET_UNIT = 'yphos-socket.service';

/** The socket that the plan switches, and its GPIO line; null: there is none. */
export const socketOf = (context: Context): ReturnType<typeof wiredPart> => wiredPart(context, 'socket');

/** A set that stays off after a power cut is woken at each start, where it listens. */
export const wakesSet = ({ afterCut, offBy }: PictureSettings): boolean => afterCut === 'stays-off' && offBy === 'cec';

/** Something is switched: by the hour, by the programme, or once at the start. */
export const switches = (settings: PictureSettings): boolean => goesDark(settings) || wakesSet(settings);

/** The program that says whether anything is on; null: always, as far as anybody has said. */
export const isOnBy = ({ facts: { programme, pageBrowser } }: Context): string | null =>
	!programme
		? null
		: programme.rules.length || (pageBrowser && programme.quiet.length)
			? programme.mayPlay
			: pageBrowser
				? null
				: programme.maySound;
/** What is switched, and by which setting. */
export const reason = (settings: PictureSettings): SettingPath =>
	settings.hours ? 'picture.hours' : settings.darkWhileResting ? 'picture.darkWhileResting' : 'picture.afterCut';

/** Units that start with the board. */
export const switchUnits = (settings: PictureSettings): { name: string; setting: SettingPath }[] => [
	...(settings.hours ? [{ name: `${SCREEN_UNIT}.timer`, setting: 'picture.hours' as const }] : []),
	...(switches(settings) ? [{ name: `${SCREEN_UNIT}.service`, setting: reason(settings) }] : [])
];

/** The CEC adapter of a connector: each output with one has its own, in the same order. Typical; on boards with one output there is but one. */
export const cecAdapterOf = (connector: string): number =>
	Math.max(0, Number(/\d{1,2}$/.exec(connector)?.[0] ?? 1) - 1);

/** Programs that switch. Source: cec-ctl(1), gpioset(1). */
export const switchPackages = (settings: PictureSettings): string[] =>
	!switches(settings) || settings.offBy === 'signal' ? [] : [settings.offBy === 'cec' ? 'v4l-utils' : 'gpiod'];
