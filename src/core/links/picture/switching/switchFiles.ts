import { endsWithin } from '../../../files/sandbox';
import { lines, ON_AIR_UNIT, rootPath, SCREEN_UNIT, textFile } from '../../../files/cardFile';
import type { CardFile } from '../../../link/file';
import type { Context } from '../../../link/context';
import { SCREEN_HOURS } from '../scripts';
import type { PictureSettings } from '../settings';
import { cecAdapterOf, isOnBy, reason, SCREEN_PATH, SOCKET_UNIT, socketOf, switches } from './switching';

const plain = (time: string): string => time.replace(':', '');
const ALWAYS = { from: '00:00', until: '24:00' };

/** What switches the screen, and when. */
export function switchFiles(settings: PictureSettings, context: Context): CardFile[] {
	if (!switches(settings)) return [];
	const { hours, offBy } = settings;
	const { from, until } = hours ?? ALWAYS;
	const why = reason(settings);
	const isOn = settings.darkWhileResting ? isOnBy(context) : null;
	const socket = offBy === 'socket' ? socketOf(context) : null;
	const how = offBy === 'cec' ? `cec${cecAdapterOf(settings.connector)}` : offBy;
	const unit = (name: string): string => rootPath(`/etc/systemd/system/${name}`);
	return [
		textFile(rootPath(SCREEN_PATH), 'Switches the screen on or off, by the time.', lines(why, ...SCREEN_HOURS), '0755'),
		textFile(unit(`${SCREEN_UNIT}.service`), 'Switches the screen on or off, by the time.', [
			...lines(
				why,
				'[Unit]',
				'Description=Switches the screen by the hour',
				`After=yphos-player.service${isOn ? ` ${ON_AIR_UNIT}.service` : ''}`
			),
			...lines(why, '', '[Service]', 'Type=oneshot', endsWithin(120)),
			...lines(
				'picture.offBy',
				`ExecStart=${[SCREEN_PATH, plain(from), plain(until), how, ...(isOn ? [isOn] : [])].join(' ')}`
			),
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
