import { NOT_THE_SET } from '../../files/sandbox';
import { lines, rootPath, textFile } from '../../files/cardFile';
import { execLine } from '../../formats/systemd/unit';
import type { CardFile } from '../../link/file';
import type { Context } from '../../link/context';
import { FAN_SCRIPT, FAN_UNIT, fanLine } from './fan';
import { FAN } from './scripts';
import type { HeatSettings } from './settings';

/** The unit and script of a fan that the header turns; none for a fan in the board's own socket. */
export function heatFiles(settings: HeatSettings, context: Context): CardFile[] {
	const line = fanLine(context);
	if (!line) return [];
	const { fanOnC, fanOffC } = settings;
	const args = [FAN_SCRIPT, line.way, String(line.gpio), String(Math.round(fanOnC)), String(Math.round(fanOffC))];
	const bank = line.way === 'pwm' ? '/sys/class/pwm/pwmchip0' : '/sys/class/gpio/gpiochip*';
	return [
		textFile(rootPath(FAN_SCRIPT), 'Turns the fan by the temperature.', lines('parts.also', ...FAN), '0755'),
		textFile(rootPath(`/etc/systemd/system/${FAN_UNIT}`), 'Keeps the fan under control from the start.', [
			...lines(
				'parts.also',
				'[Unit]',
				'Description=Turns the fan by the temperature',
				`${line.way === 'pwm' ? 'ConditionPathExists' : 'ConditionPathExistsGlob'}=${bank}`,
				'',
				'[Service]'
			),
			...lines('heat.fanOnC', `ExecStart=${execLine(args)}`),
			...lines(
				'parts.also',
				'Restart=always',
				'RestartSec=5',
				'ProtectHome=yes',
				'ProtectSystem=strict',
				'PrivateNetwork=yes',
				'NoNewPrivileges=yes',
				NOT_THE_SET,
				'',
				'[Install]',
				'WantedBy=multi-user.target'
			)
		])
	];
}
