import { lines, rootPath, textFile } from '../../../files/cardFile';
import { escapeHtml } from '../../../files/html';
import { BY_HAND_PATH } from '../../../files/byHand';
import { scriptLines } from '../../../files/script';
import controlScript from './control.sh?raw';
import type { Facts } from '../../../facts';
import type { CardFile, CardLine } from '../../../link/file';
import { ACTIONS, CONTROL_WAYS, keysOf, type Control } from './controls';
import type { PictureSettings } from '../settings';
import { CONTROL_PATH, KEYS_UNIT } from '../places';
import { cecAdapterOf } from '../switching/switching';

const KEYS_PATH = '/opt/yphos/keys/yphos.conf';
const KEYMAP_PATH = '/etc/rc_keymaps/yphos.toml';

const ACTIONS_PATH = '/opt/yphos/keys/actions.txt';

/** What the player is told, by action. */
const actionsFile = (): CardFile =>
	textFile(
		rootPath(ACTIONS_PATH),
		'What the player is told when something is asked for.',
		lines(
			'picture.controls',
			...Object.entries(ACTIONS).flatMap(([id, { command }]) => (command === null ? [] : [`${id} ${command}`]))
		)
	);

/** There from the start, so that the page need not look in vain. Source: tmpfiles.d(5). */
const byHandFile = (): CardFile =>
	textFile(
		rootPath('/etc/tmpfiles.d/yphos-show.conf'),
		'Where a phone\u2019s wish is left for the page.',
		lines(
			'notices.showByPhone',
			`d ${BY_HAND_PATH.slice(0, BY_HAND_PATH.lastIndexOf('/'))} 0755 root root -`,
			`f ${BY_HAND_PATH} 0644 root root - none 0`
		)
	);

/** What keys and pages do, and a small card to lay beside the set. */
export function controlFiles(
	{ controls, connector }: Pick<PictureSettings, 'controls' | 'connector'>,
	{ endpointName, byPhone }: Facts
): CardFile[] {
	if (controls.length === 0 && !byPhone) return [];
	return [
		textFile(
			rootPath(CONTROL_PATH),
			'Does what is asked for by key or phone.',
			lines('picture.controls', ...scriptLines(controlScript)),
			'0755'
		),
		actionsFile(),
		...(byPhone ? [byHandFile()] : []),
		...(keysOf(controls).length > 0 ? keyFiles(controls, cecAdapterOf(connector)) : []),
		...(controls.length > 0 ? [controlCard(controls, endpointName)] : [])
	];
}

/** Keys, the remote's map, and who hears them. Source: thd(1), ir-keytable(1), rc_keymap(5). */
function keyFiles(controls: readonly Control[], adapter: number): CardFile[] {
	const numbered = controls.map((control, n) => ({ ...control, at: at(n) }));
	const coded = numbered.filter(({ by, scancode }) => by === 'remote' && scancode !== '');
	return [
		textFile(
			rootPath(KEYS_PATH),
			'Which key asks for what.',
			numbered.flatMap(({ by, key, action, at }) =>
				by === 'phone' ? [] : lines(at, `${key} 1 ${CONTROL_PATH} ${action}`)
			)
		),
		...(coded.length > 0
			? [
					textFile(rootPath(KEYMAP_PATH), 'Codes of the remote, and the keys that they stand for.', [
						...lines(
							'picture.controls',
							'[[protocols]]',
							'name = "yphos"',
							'protocol = "nec"',
							'[protocols.scancodes]'
						),
						...coded.flatMap(({ scancode, key, at }) => lines(at, `${scancode} = "${key}"`))
					])
				]
			: []),
		textFile(rootPath(`/etc/systemd/system/${KEYS_UNIT}`), 'Hears keys, remote and gamepad.', [
			...lines(
				'picture.controls',
				'[Unit]',
				'Description=Hears keys and remotes',
				'StartLimitIntervalSec=0',
				'',
				'[Service]'
			),
			...(coded.length > 0 ? lines('picture.controls', `ExecStartPre=-/usr/bin/ir-keytable -c -w ${KEYMAP_PATH}`) : []),
			...(controls.some(({ by }) => by === 'cec')
				? lines('picture.controls', `ExecStartPre=-/usr/bin/cec-ctl -d ${adapter} --playback`)
				: []),
			...lines(
				'picture.controls',
				`ExecStart=/usr/sbin/thd --triggers ${KEYS_PATH} --deviceglob "/dev/input/event*"`,
				'Restart=always',
				'RestartSec=5',
				'',
				'[Install]',
				'WantedBy=multi-user.target'
			)
		])
	];
}

const at = (n: number): CardLine['setting'] => `picture.controls.${n}`;

const controlCard = (controls: readonly Control[], endpointName: string): CardFile =>
	textFile('docs/controls.html', 'A small card to lay beside the set.', [
		...lines(
			'picture.controls',
			'<!doctype html>',
			'<html lang="en-GB">',
			'<meta charset="utf-8" />',
			`<title>${escapeHtml(endpointName)}</title>`,
			'<style>body{font:16px sans-serif;width:85mm;margin:8mm}td{padding:3px 10px 3px 0}</style>',
			`<h1>${escapeHtml(endpointName)}</h1>`,
			'<table>'
		),
		...controls.flatMap(({ action, by, key }, n) =>
			lines(
				at(n),
				`<tr><td><b>${ACTIONS[action].words}</b></td><td>${escapeHtml(key.replace(/^(?:KEY|BTN)_/, ''))}</td><td>${CONTROL_WAYS[by]}</td></tr>`
			)
		),
		...lines('picture.controls', '</table>', '</html>')
	]);
