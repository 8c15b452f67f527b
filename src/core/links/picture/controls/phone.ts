import { lines, PHONE_DIR, rootPath, textFile } from '../../../files/cardFile';
import { escapeHtml } from '../../../files/html';
import { BACK_WORD, BY_HAND_MIN, showWord } from '../../../files/byHand';
import type { Facts } from '../../../facts';
import type { CardFile, CardLine } from '../../../link/file';
import type { Secrets } from '../../../secrets';
import type { PictureSettings } from '../settings';
import { NO_NETWORK, SANDBOX } from '../../../files/sandbox';
import { scriptLines, withHead } from '../../../files/script';
import { PHONE_PASSWORD_PATH, phonePasswordHash } from '../../../files/phonePassword';
import { ACTIONS, type Action } from './controls';
import { PHONE_PORT } from '../places';
import askedScript from './asked.sh?raw';
import phoneScript from './phone.sh?raw';

/** Answers one request. */
export const PHONE_PATH = '/opt/yphos/bin/phone.sh';
const ASKED_PATH = '/opt/yphos/bin/asked.sh';
const PAGE_PATH = `${PHONE_DIR}/page.html`;
/** Words are left here by whoever answers, and taken up by root: the one that faces the network can do nothing else. */
const ASKED_DIR = '/run/yphos-asked';

/**
 * One request, one answer. Only a page that this endpoint itself gave may ask for something: a browser names where a form comes
 * from, and a foreign name for this address is refused too. Source: RFC 6454, 7; RFC 9110, 7.2; RFC 7617 (Basic): user and password with
 * a colon between, as base64.
 */
const answerScript = (words: readonly string[], asksPassword: boolean): string[] =>
	withHead(phoneScript, [
		`port=${PHONE_PORT}`,
		`words=' ${words.join(' ')} '`,
		`asks_password=${asksPassword ? 'yes' : ''}`
	]);

const of = (...texts: string[]): CardLine[] => lines('picture.controls', ...texts);

/** A page of large buttons for whoever stands by with a phone, and who answers it. Source: systemd.socket(5), systemd.path(5). */
export function phoneFiles(
	{ controls, phonePassword }: Pick<PictureSettings, 'controls' | 'phonePassword'>,
	{ endpointName, hostName, byPhone }: Facts,
	secrets: Secrets = {}
): CardFile[] {
	const buttons = controls.flatMap(({ action, by }, n) => (by === 'phone' ? [{ action, at: at(n) }] : []));
	if (buttons.length === 0 && !byPhone) return [];
	const script = (path: string, why: string, content: readonly string[]): CardFile =>
		textFile(rootPath(path), why, of(...content), '0755');
	return [
		script(
			PHONE_PATH,
			'Answers one request of a phone.',
			answerScript(
				[
					...new Set(buttons.map(({ action }) => action)),
					...(byPhone ? [...byPhone.map(({ id }) => showWord(id)), BACK_WORD] : [])
				],
				phonePassword
			)
		),
		...(phonePassword
			? [
					textFile(
						rootPath(PHONE_PASSWORD_PATH),
						'What the endpoint knows of the password of its page for a phone: a slow hash of it.',
						secrets.phonePassword === undefined
							? []
							: [
									{
										text: phonePasswordHash(hostName, secrets.phonePassword),
										setting: 'picture.phonePassword',
										secret: true as const
									}
								],
						'0600'
					)
				]
			: []),
		script(ASKED_PATH, 'Does what the phone asked for.', scriptLines(askedScript)),
		textFile(rootPath(PAGE_PATH), 'The page for a phone.', [
			...of(
				'<!doctype html>',
				'<html lang="en-GB">',
				'<meta charset="utf-8" />',
				'<meta name="viewport" content="width=device-width, initial-scale=1" />',
				`<title>${escapeHtml(endpointName)}</title>`,
				'<style>',
				'*{box-sizing:border-box}',
				'body{font:20px sans-serif;max-width:24em;margin:1em auto;padding:0 1em}',
				'h1{font-size:1.3em}',
				'button,summary{font:inherit;text-align:center;width:100%;padding:.8em;margin:.3em 0;border:1px solid;border-radius:.4em;background:none;color:inherit}',
				':root{color-scheme:light dark}',
				'</style>',
				`<h1>${escapeHtml(endpointName)}</h1>`
			),
			...buttons.flatMap(({ action, at }) => lines(at, buttonFor(action))),
			...(byPhone ? lines('notices.showByPhone', ...pageButtons(byPhone)) : []),
			...of('</html>')
		]),
		...phoneUnits(phonePassword)
	];
}

/** Who answers a phone, and who does what it asked for. */
function phoneUnits(phonePassword: boolean): CardFile[] {
	const unit = (name: string, why: string, content: CardLine[]): CardFile =>
		textFile(rootPath(`/etc/systemd/system/${name}`), why, content);
	return [
		unit('yphos-phone.socket', 'Waits for a phone, of this network alone.', [
			...of('[Unit]', 'Description=Waits for a phone', '', '[Socket]', `ListenStream=${PHONE_PORT}`, 'Accept=yes'),
			...of(
				// One source takes no more than a few of them, and no flood closes the socket for good. Source: systemd.socket(5).
				'MaxConnections=32',
				'MaxConnectionsPerSource=6',
				'TriggerLimitIntervalSec=0',
				'IPAddressDeny=any',
				`IPAddressAllow=${NEAR}`,
				'',
				'[Install]',
				'WantedBy=sockets.target'
			)
		]),
		unit('yphos-phone@.service', 'Answers a phone, and can do nothing else.', [
			...of('[Unit]', 'Description=Answers a phone', 'CollectMode=inactive-or-failed', '', '[Service]'),
			...of(`ExecStart=${PHONE_PATH}`, 'StandardInput=socket', 'StandardOutput=socket', 'StandardError=journal'),
			// One user for all of them, in a folder that nobody else may enter: what root does is asked for there.
			...of('DynamicUser=yes', 'User=yphos-phone', `RuntimeDirectory=${ASKED_DIR.slice('/run/'.length)}`),
			...of('RuntimeDirectoryMode=0700', 'RuntimeDirectoryPreserve=yes'),
			...(phonePassword ? lines('picture.phonePassword', `LoadCredential=phone-password:${PHONE_PASSWORD_PATH}`) : []),
			...of(...SANDBOX, ...NO_NETWORK, 'MemoryMax=32M', 'TasksMax=16', 'RuntimeMaxSec=8')
		]),
		unit('yphos-asked.path', 'Sees that something was asked for.', [
			...of('[Unit]', 'Description=Sees what a phone asks for', '', '[Path]', `DirectoryNotEmpty=${ASKED_DIR}`),
			...of('MakeDirectory=yes', 'DirectoryMode=0700', '', '[Install]', 'WantedBy=multi-user.target')
		]),
		unit('yphos-asked.service', 'Does what a phone asked for.', [
			...of('[Unit]', 'Description=Does what a phone asked for', 'StartLimitIntervalSec=0', '', '[Service]'),
			...of('Type=oneshot', `ExecStart=${ASKED_PATH}`, 'TimeoutStartSec=60')
		])
	];
}

/** Networks that are nobody's but the venue's. Source: RFC 1918, RFC 3927, RFC 4193, RFC 4291. */
const NEAR = '10.0.0.0/8 172.16.0.0/12 192.168.0.0/16 169.254.0.0/16 fc00::/7 fe80::/10 localhost';

const at = (n: number): CardLine['setting'] => `picture.controls.${n}`;

/** Each page at once, and the way back. */
const pageButtons = (pages: NonNullable<Facts['byPhone']>): string[] => [
	`<h2>Show now, for ${BY_HAND_MIN} minutes</h2>`,
	...pages.map(({ id, title }) => pressed(showWord(id), title || id)),
	'<h2>Then</h2>',
	pressed(BACK_WORD, 'What the hour asks for')
];
const pressed = (word: string, words: string): string =>
	`<form method="post" action="/${word}"><button>${escapeHtml(words)}</button></form>`;

/** What cannot be taken back is asked for twice. */
const buttonFor = (action: Action): string => {
	const button = (words: string): string => pressed(action, words);
	const { words: plain } = ACTIONS[action];
	const words = plain[0]!.toUpperCase() + plain.slice(1);
	return action === 'shut-down'
		? `<details><summary>${escapeHtml(words)} …</summary>${button('Yes, shut down')}</details>`
		: button(words);
};
