import { endsWithin, NO_NETWORK, SANDBOX } from '../../files/sandbox';
import { lines, PLAYER_UNIT, rootPath, textFile } from '../../files/cardFile';
import { unitText } from '../../formats/systemd/unit';
import type { CardFile, SettingPath } from '../../link';
import { PLAYED_ENDINGS } from './played';
import { CHOOSE_UNIT, LISTS_DIR, type Rule } from './rules';
import type { SourcesSettings } from './settings';
import { mountPoint, storeOf } from './stores';

const CHOOSE_PATH = '/opt/yphos/bin/choose.sh';
const TAKE_PATH = '/opt/yphos/bin/take-lists.sh';
const RULES_DIR = '/opt/yphos/rules';

const anyCase = (ending: string): string =>
	`*.${[...ending].map((c) => (/[a-z]/.test(c) ? `[${c.toUpperCase()}${c}]` : c)).join('')}`;

/** Makes the lists; nobody's rights, so that a strange file can do no harm. Source: find(1), sort(1), ffprobe(1). */
export const CHOOSE = `#!/bin/sh
# choose.sh: makes the list of each rule anew. Where a folder cannot be read, or nothing is in it, the old list stays.
rules=\${YPHOS_RULES:-${RULES_DIR}}
lists=\${YPHOS_LISTS:-${LISTS_DIR}}
export LC_ALL=C
tab=$(printf '\\t')
failed=''
for rule in "$rules"/*.rule; do
	[ -f "$rule" ] || continue
	name=$(basename "$rule")
	name=\${name%.rule}
	title='' order=name most='' longest='' whole=yes
	: >"$lists/found"
	while IFS= read -r line; do
		value=\${line#* }
		case $line in
		'title '*) title=$value ;;
		'order '*) order=$value ;;
		'most '*) most=$value ;;
		'longest '*) longest=$value ;;
		'folder '*) find "$value" -type f -printf '%T@\\t%p\\n' >>"$lists/found" || whole='' ;;
		esac
	done <"$rule"
	if [ -z "$whole" ] || [ ! -s "$lists/found" ]; then
		echo "$name: nothing can be read in its folders; the list stays as it was" >&2
		failed=yes
		continue
	fi
	case $order in
	newest) sort -rn "$lists/found" | cut -f 2- >"$lists/sorted" ;;
	any) shuf "$lists/found" | cut -f 2- >"$lists/sorted" ;;
	*) cut -f 2- "$lists/found" | sort >"$lists/sorted" ;;
	esac
	taken=0
	{
		echo '#EXTM3U'
		[ -z "$title" ] || printf '#PLAYLIST:%s\\n' "$title"
		while IFS= read -r path; do
			case $path in
			${PLAYED_ENDINGS.map(anyCase).join(' | ')}) ;;
			*) continue ;;
			esac
			[ -z "$most" ] || [ "$taken" -lt "$most" ] || break
			if [ -n "$longest" ]; then
				seconds=$(ffprobe -v error -show_entries format=duration -of csv=p=0 "$path" </dev/null)
				seconds=\${seconds%%.*}
				[ "\${seconds:-0}" -le "$((longest * 60))" ] || continue
			fi
			printf '%s\\n' "$path"
			taken=$((taken + 1))
		done <"$lists/sorted"
	} >"$lists/$name.new"
	if cmp -s "$lists/$name.new" "$lists/$name.m3u8"; then
		rm "$lists/$name.new"
	else
		mv "$lists/$name.new" "$lists/$name.m3u8"
		: >"$lists/changed"
	fi
done
rm -f "$lists/found" "$lists/sorted"
[ -z "$failed" ]`.split('\n');

/** Only when something is new: the player begins its list again. */
export const TAKE_LISTS = `#!/bin/sh
# take-lists.sh: the player takes lists that have changed.
lists=\${YPHOS_LISTS:-${LISTS_DIR}}
[ -e "$lists/changed" ] || exit 0
rm "$lists/changed"
systemctl --no-block try-restart ${PLAYER_UNIT}`.split('\n');

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
