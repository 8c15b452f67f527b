import { expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { contextFor } from '../engines/context';
import { write } from '../engines/write';
import { writers } from '../writers';
import { cardText } from './cardBytes';

const ROOT = 'boot/yphos/root/';

it.each(demoWorkshop.endpoints.map(({ id, plan }) => [id, plan] as const))(
	'every file of %s has the mode that its readers need: scripts run, secrets and network profiles are for root alone, the rest is for all',
	(id, plan) => {
		const radio = { ...plan, network: { ...plan.network, way: 'radio', ssid: 'Skerrin', countryCode: 'FO' } as const };
		for (const one of [plan, radio]) {
			const files = write(writers, one, contextFor(chain, demoWorkshop, id), { radioPskHex: 'a'.repeat(64) });
			const apply = files.find(({ path }) => path.endsWith('/apply.sh'))!;
			const places = 'lines' in apply ? cardText(apply) : '';
			for (const file of files) {
				if (!file.path.startsWith(ROOT)) continue;
				const text = 'lines' in file ? cardText(file) : '';
				// NetworkManager takes no profile that others may read: nm-settings-keyfile(5).
				const isHidden =
					'lines' in file && (file.lines.some(({ secret }) => secret) || /\.nmconnection$/.test(file.path));
				const mode = isHidden ? '0600' : text.startsWith('#!') ? '0755' : '0644';
				expect([file.path, file.mode]).toEqual([file.path, mode]);
				// Media have names of their own, in quotes where a shell needs them.
				const place = places.split('\n').find((line) => line.endsWith(` ${file.path.slice(ROOT.length)}`));
				if (place) expect(place).toContain(`place ${mode} root:`);
			}
		}
	}
);
