import { scriptLines } from '../../../files/script';
import { endsWithin, NO_NETWORK, SANDBOX } from '../../../files/sandbox';
import { lines, rootPath, textFile } from '../../../files/cardFile';
import { unitText } from '../../../formats/systemd/unit';
import type { CardFile } from '../../../link/file';
import type { SettingPath } from '../../../link/setting';
import chooseScript from './choose.sh?raw';
import takeListsScript from './take-lists.sh?raw';
import { CHOOSE_UNIT, LISTS_DIR, type Rule } from './rules';
import type { SourcesSettings } from '../settings';
import { mountPoint, storeOf } from '../stores/stores';

const CHOOSE_PATH = '/opt/yphos/bin/choose.sh';
const TAKE_PATH = '/opt/yphos/bin/take-lists.sh';
const RULES_DIR = '/opt/yphos/rules';

/** Makes the lists; nobody's rights, so that a strange file can do no harm. Source: find(1), sort(1), ffprobe(1). */
export const CHOOSE = scriptLines(chooseScript);

/** Only when something is new: the player begins its list again. */
export const TAKE_LISTS = scriptLines(takeListsScript);

const ruleFile = (rule: Rule, n: number): CardFile => {
	const at: SettingPath = `sources.rules.${n}`;
	return textFile(
		rootPath(`${RULES_DIR}/${rule.id}.rule`),
		`The rule "${rule.title || rule.id}", for choose.sh.`,
		lines(
			at,
			...(rule.title ? [`title ${rule.title}`] : []),
			`order ${rule.order}`,
			...(rule.most === null ? [] : [`most ${rule.most}`]),
			...(rule.longestMin === null ? [] : [`longest ${rule.longestMin}`]),
			...rule.folders.map((folder) => `folder ${folder}`)
		)
	);
};

/** Rules, the scripts that follow them, and what starts those: at the board's start, and at the times of day. */
export function ruleFiles({ rules, chooseAt, stores }: SourcesSettings): CardFile[] {
	if (rules.length === 0) return [];
	const places = [
		...new Set(rules.flatMap(({ folders }) => folders.flatMap((folder) => storeOf(stores, `${folder}/`) ?? [])))
	];
	const of = (...texts: string[]) => lines('sources.rules', ...texts);
	return [
		...rules.map(ruleFile),
		textFile(rootPath(CHOOSE_PATH), 'Chooses what is played, by the rules.', of(...CHOOSE), '0755'),
		textFile(rootPath(TAKE_PATH), 'Lets the player take a list that has changed.', of(...TAKE_LISTS), '0755'),
		textFile(rootPath(`/etc/systemd/system/${CHOOSE_UNIT}.service`), 'Chooses what is played.', [
			...of('[Unit]', `Description=${unitText('Chooses what is played')}`),
			...of('After=network-online.target', 'Wants=network-online.target'),
			...of('StartLimitIntervalSec=0', '', '[Service]', 'Type=oneshot'),
			// Looking into it mounts it, and waits until it is there or given up on.
			...places.flatMap((store) => of(`ExecStartPre=-/usr/bin/ls ${mountPoint(store)}`)),
			...of(`ExecStart=${CHOOSE_PATH}`, `ExecStartPost=+${TAKE_PATH}`),
			...of('# A server that sleeps is asked again.', 'Restart=on-failure', 'RestartSec=120'),
			...of('User=daemon', `StateDirectory=${LISTS_DIR.slice('/var/lib/'.length)}`),
			...of(endsWithin(1800), ...SANDBOX, ...NO_NETWORK, 'Nice=10', 'IOSchedulingClass=idle'),
			...of('', '[Install]', 'WantedBy=multi-user.target')
		]),
		...(chooseAt.length
			? [
					textFile(rootPath(`/etc/systemd/system/${CHOOSE_UNIT}.timer`), 'Says when it is chosen anew.', [
						...of('[Unit]', 'Description=Chooses anew what is played', '', '[Timer]'),
						...lines('sources.chooseAt', ...chooseAt.map((time) => `OnCalendar=*-*-* ${time}:00`)),
						...of('', '[Install]', 'WantedBy=timers.target')
					])
				]
			: [])
	];
}
