import { lines, ON_AIR_UNIT, PICTURES_UNIT, PLAYER_UNIT, rootPath, textFile } from '../../files/cardFile';
import { endsWithin, FETCHES, NO_NETWORK, SANDBOX } from '../../files/sandbox';
import type { CardFile, CardLine } from '../../link/file';
import type { Context } from '../../link/context';
import { followed } from '../../onAir/followed';
import { CONTENT_UNIT, FETCH_DIR, OWN_DIR, RENEW_PATH, RENEW_UNIT, SWITCH_PATH } from './places';
import { RENEW, SWITCH_SET } from './scripts';
import { fetchedFrom, isWeb, keyLines, type DeliverySettings } from './settings';

const UNITS = '/etc/systemd/system/';

/** What fetches a set of content and shows it, and when. */
export function deliveryFiles(settings: DeliverySettings, context: Context): CardFile[] {
	const { facts } = context;
	const of = (...texts: string[]): CardLine[] => lines('delivery', ...texts);
	const { pages, pageBrowser, programme } = facts;
	/** What must look at new content before the player does. */
	const before = [
		...(programme && (pageBrowser ? followed(programme, context) : programme.rules.length)
			? [`${ON_AIR_UNIT}.service`]
			: []),
		...(pages?.length && !pageBrowser ? [`${PICTURES_UNIT}.service`] : [])
	];
	return [
		textFile(rootPath(`${OWN_DIR}/from`), 'Where new content is fetched from.', [
			...lines('delivery.from', fetchedFrom(settings))
		]),
		textFile(rootPath(`${OWN_DIR}/for`), 'Whose content it takes.', lines('network.hostName', facts.hostName)),
		...(settings.publicKey
			? [
					textFile(
						rootPath(`${OWN_DIR}/key.pem`),
						'Whose signature it asks for.',
						lines('delivery.publicKey', ...keyLines(settings.publicKey))
					)
				]
			: []),
		...(pageBrowser
			? [textFile(rootPath(`${OWN_DIR}/shows-pages`), 'There where a page says of itself that it lives.', of('yes'))]
			: []),
		...(before.length
			? [textFile(rootPath(`${OWN_DIR}/before`), 'What looks at new content before the player does.', of(...before))]
			: []),
		textFile(rootPath(RENEW_PATH), 'Fetches new content.', of(...RENEW), '0755'),
		textFile(
			rootPath(SWITCH_PATH),
			'Shows new content, and takes back what does not come to life.',
			of(...SWITCH_SET),
			'0755'
		),
		textFile(rootPath(UNITS + CONTENT_UNIT), 'Looks whether what is to be shown is whole.', [
			...of('[Unit]', 'Description=Looks whether what is to be shown is whole'),
			...of(`Before=${[PLAYER_UNIT, ...before].join(' ')}`),
			...of('', '[Service]', 'Type=oneshot', 'RemainAfterExit=yes', `ExecStart=${SWITCH_PATH} check`),
			...of(endsWithin(300)),
			...of('', '[Install]', 'WantedBy=multi-user.target')
		]),
		textFile(rootPath(`${UNITS}${RENEW_UNIT}.service`), 'Fetches new content, and shows it.', [
			...of('[Unit]', 'Description=Fetches new content'),
			...of(...(isWeb(settings) ? ['After=network-online.target', 'Wants=network-online.target'] : [])),
			...of('', '[Service]', 'Type=oneshot'),
			...of('# What was on trial when the power went.', `ExecStartPre=-+${SWITCH_PATH}`),
			...of(`ExecStart=${RENEW_PATH}`, `ExecStartPost=+${SWITCH_PATH}`),
			...of('User=daemon', `StateDirectory=${FETCH_DIR.slice('/var/lib/'.length)}`, 'StateDirectoryMode=0700'),
			// Large films on a slow line; then the trial of the set.
			...of(endsWithin(8 * 3600), ...SANDBOX, ...(isWeb(settings) ? FETCHES : NO_NETWORK))
		]),
		textFile(rootPath(`${UNITS}${RENEW_UNIT}.timer`), 'Says when new content is looked for.', [
			...of('[Unit]', 'Description=Looks for new content', '', '[Timer]', 'OnBootSec=2min'),
			...settings.times.flatMap((time) => lines('delivery.times', `OnCalendar=*-*-* ${time}:00`)),
			...of('', '[Install]', 'WantedBy=timers.target')
		])
	];
}
