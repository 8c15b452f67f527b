import { describe, expect, it } from 'vitest';
import { demoMediaBytes } from '../../../demo/media';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { writers } from '../writers';
import { rehearsed } from '../rehearsals';
import { contextFor } from './context';
import { benchFor } from './benchFor';
import { cardTree, type CardTree } from './machine';
import { rehearse } from './rehearse';
import { write } from './write';
import { heardIn } from '../links/sound/track';
import { inWords } from './say';
import { speaking } from '../speaking';

/** An endpoint's card, its files as they are written, and the same with one damage. */
const endpoint = demoWorkshop.endpoints.find(({ id }) => id === 'bunkhouse-lounge')!;
const context = contextFor(chain, demoWorkshop, endpoint.id);
const mediaBytes = new Map(
	endpoint.plan.sources.items.flatMap(({ location }) => {
		const bytes = demoMediaBytes(location);
		return bytes ? [[location, bytes] as const] : [];
	})
);
const card = cardTree(write(writers, endpoint.plan, context, { mediaBytes }));
const bench = benchFor(writers, endpoint.plan, context);
const run = (tree: CardTree) =>
	rehearse({ links: rehearsed, card: tree, bench, startUtcMs: Date.parse('2026-11-24T18:40:00Z'), forMs: 120_000 });
const good = run(card);

type Edit = (text: string) => string | null;
function damaged(path: string, edit: Edit): CardTree {
	const tree = new Map(card);
	const file = tree.get(path);
	if (!file) throw new Error(`no ${path}`);
	const text = edit(file.text);
	if (text === file.text) throw new Error(`nothing was changed in ${path}`);
	if (text === null) tree.delete(path);
	else tree.set(path, { ...file, text });
	return tree;
}
const without =
	(pattern: RegExp): Edit =>
	(text) =>
		text
			.split('\n')
			.filter((line) => !pattern.test(line))
			.join('\n');
const instead =
	(from: string | RegExp, to: string): Edit =>
	(text) =>
		text.replace(from, to);
const gone: Edit = () => null;

const APPLY = 'boot/yphos/apply.sh';
const ROOT = 'boot/yphos/root';
const PLAYER = `${ROOT}/etc/systemd/system/yphos-player.service`;
const MPV = `${ROOT}/etc/mpv/mpv.conf`;
const WAIT = `${ROOT}/opt/yphos/bin/wait-for-sound.sh`;
const MAY = `${ROOT}/opt/yphos/bin/may-sound.sh`;
/** A script other than the one that its digest was taken of is refused by apply.sh: both are changed here, as a mistake of ours would. */
const both = (path: string, edit: Edit): CardTree => {
	const tree = new Map(damaged(path, edit));
	const target = path.slice(`${ROOT}/`.length);
	const apply = tree.get(APPLY)!;
	const checked = apply.text.replace('|| [[ $(sha256sum', '|| false && [[ $(sha256sum');
	if (checked === apply.text) throw new Error(`apply.sh does not check ${target}`);
	tree.set(APPLY, { ...apply, text: checked });
	return tree;
};

describe('a damage to one file of the card is noticed', () => {
	it('by an endpoint that sounds without it', () => expect(heardIn(good.tracks)[0] ?? null).not.toBeNull());
	it.each<[string, () => CardTree]>([
		['both scripts deleted', () => new Map([...card].filter(([path]) => ![WAIT, MAY].includes(path)))],
		['wait-for-sound.sh ends with 1', () => both(WAIT, () => '#!/bin/sh\nexit 1\n')],
		['may-sound.sh ends with 1', () => both(MAY, () => '#!/bin/sh\nexit 1\n')],
		['may-sound.sh asks for an interpreter that is not there', () => both(MAY, instead('#!/bin/sh', '#!/bin/zsh'))],
		['may-sound.sh is torn in its middle', () => both(MAY, (text) => text.slice(0, text.length / 2))],
		['wait-for-sound.sh is torn', () => both(WAIT, (text) => text.slice(0, text.length / 2))],
		['scripts placed as 0644', () => damaged(APPLY, instead(/place 0755/g, 'place 0644'))],
		['a wrong digest', () => damaged(APPLY, instead(/(place 0644 root:root )\w{8}/, '$100000000'))],
		['a file other than its digest', () => damaged(MPV, (text) => `${text}#\n`)],
		['apply.sh ends at once', () => damaged(APPLY, instead('set -euo pipefail', 'exit 0'))],
		['apply.sh is empty', () => damaged(APPLY, () => '')],
		['apply.sh is gone', () => damaged(APPLY, gone)],
		['apply.sh is torn', () => damaged(APPLY, (text) => text.slice(0, text.length * 0.7))],
		['no package is asked for', () => damaged(APPLY, without(/^package /))],
		['the player’s package is not asked for', () => damaged(APPLY, without(/^package mpv$/))],
		['the package of amixer is not asked for', () => damaged(APPLY, without(/^package alsa-utils$/))],
		['a package has another name', () => damaged(APPLY, instead('package mpv', 'package mvp'))],
		['the lists of the archive are not fetched', () => damaged(APPLY, instead('"${apt[@]}" update', ':'))],
		['apt-get is misspelt', () => damaged(APPLY, instead('apt=(apt-get', 'apt=(apt-gett'))],
		['install is misspelt', () => damaged(APPLY, instead('if ! install -D', 'if ! instal -D'))],
		['nothing is moved into its place', () => damaged(APPLY, without(/^\t\tmv -f/))],
		['the player is not enabled', () => damaged(APPLY, without(/^enable yphos-player/))],
		['another unit is enabled', () => damaged(APPLY, instead('enable yphos-player.service', 'enable player.service'))],
		['enable does nothing', () => damaged(APPLY, instead('units+=("$1")', ':'))],
		['place does nothing', () => damaged(APPLY, instead('files+=("$1" "$2" "$4" "$from")', ':'))],
		[
			'the loop over the files counts by two',
			() => damaged(APPLY, instead('i += 4)); do\n\tmode', 'i += 3)); do\n\tmode'))
		],
		['no runcmd in the seed', () => damaged('boot/user-data', without(/runcmd|apply\.sh/))],
		['the seed runs another path', () => damaged('boot/user-data', instead('/yphos/apply.sh', '/apply.sh'))],
		['user-data is empty', () => damaged('boot/user-data', () => '')],
		['no meta-data', () => damaged('boot/meta-data', gone)],
		['the player’s unit is gone', () => damaged(PLAYER, gone)],
		['its program is misspelt', () => both(PLAYER, instead('/usr/bin/mpv', '/usr/bin/mvp'))],
		['it has no [Install]', () => both(PLAYER, without(/WantedBy|\[Install\]/))],
		['it is not in the group of the sound hardware', () => both(PLAYER, without(/SupplementaryGroups/))],
		['the sound hardware is not allowed to it', () => both(PLAYER, without(/DeviceAllow/))],
		['its list stands elsewhere', () => both(PLAYER, instead('playlist.m3u8', 'playlist.m3u'))],
		['it has no ExecStart', () => both(PLAYER, without(/^ExecStart=/))],
		['its condition is inverted', () => both(PLAYER, instead(/ExecCondition=.*/, 'ExecCondition=/usr/bin/false'))],
		[
			'it waits for another card',
			() => both(PLAYER, instead('wait-for-sound.sh Field24', 'wait-for-sound.sh Field42'))
		],
		['another control', () => both(PLAYER, instead('sset Master', 'sset Mistress'))],
		['its command line does not end', () => both(PLAYER, instead('ExecStart=', 'ExecStart="'))],
		['a setting that is not known', () => both(PLAYER, instead('[Service]', '[Service]\nRootDirectory=/srv'))],
		['a section that is not known', () => both(PLAYER, (text) => `${text}[X]\nY=1\n`)],
		['ao=null', () => both(MPV, (text) => `${text}ao=null\n`)],
		['pause=yes', () => both(MPV, (text) => `${text}pause=yes\n`)],
		['mute=yes', () => both(MPV, (text) => `${text}mute=yes\n`)],
		['audio=no', () => both(MPV, (text) => `${text}audio=no\n`)],
		['an option that is not known', () => both(MPV, (text) => `${text}af=lavfi=[volume=0]\n`)],
		['another device', () => both(MPV, instead(/audio-device=.*/, 'audio-device=alsa/hw:CARD=Nobody,DEV=0'))],
		['no volume', () => both(MPV, instead(/volume=.*/, 'volume=0'))],
		['the player’s options are gone', () => damaged(MPV, gone)],
		['its options may be read by nobody', () => damaged(APPLY, instead(/0644( root:root \w+ etc\/mpv)/, '0600$1'))],
		[
			'its list may be read by nobody',
			() => damaged(APPLY, instead(/0644( root:root \w+ opt\/yphos\/playlist)/, '0600$1'))
		],
		['the list is empty', () => both(`${ROOT}/opt/yphos/playlist.m3u8`, () => '#EXTM3U\n')],
		['the list is gone', () => damaged(`${ROOT}/opt/yphos/playlist.m3u8`, gone)],
		['quiet hours begin now', () => both(`${ROOT}/opt/yphos/quiet-hours.txt`, instead(/\d{4} \d{4}/, '1500 0700'))],
		['quiet hours are no hours', () => both(`${ROOT}/opt/yphos/quiet-hours.txt`, instead(/\d{4} \d{4}/, 'ten seven'))],
		['the rules for who may reach it are gone', () => damaged(`${ROOT}/etc/nftables.conf`, gone)],
		['the firewall is not asked for', () => damaged(APPLY, without(/^package nftables$/))]
	])('%s', (_, damage) => {
		const done = run(damage());
		const told = (result: typeof good): string =>
			JSON.stringify([
				result.verdict,
				heardIn(result.tracks),
				inWords(speaking, result.events)
					.filter(({ kind, text }) => kind === 'bad' || text.startsWith('Not rehearsed'))
					.map(({ text }) => text)
			]);
		expect(told(done)).not.toBe(told(good));
	});

	/** What changes nothing that anybody could notice, and why. */
	it.each<[string, string, () => CardTree]>([
		[
			'no device for the player',
			'asound.conf makes the same converter the default',
			() => both(MPV, without(/audio-device/))
		],
		['a comment more', 'nobody reads comments', () => both(MPV, (text) => `# x\n${text}`)],
		[
			'the entries of the manifest',
			'people and sending read it, the endpoint does not',
			() => damaged('boot/yphos/manifest.json', gone)
		],
		[
			'the order of two files',
			'all are in place before anything begins',
			() =>
				damaged(APPLY, (text) => {
					const lines = text.split('\n');
					const first = lines.findIndex((line) => line.startsWith('place 0'));
					return lines
						.with(first, lines[first + 1]!)
						.with(first + 1, lines[first]!)
						.join('\n');
				})
		]
	])('%s cannot matter: %s', (_, __, damage) => expect(run(damage()).verdict).toBe(good.verdict));
});
