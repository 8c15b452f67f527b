import { cardSize, cardDigest } from '../../files/cardBytes';
import { lines, rootPath, textFile } from '../../files/cardFile';
import { targetOf } from '../../files/renamed';
import { claimsOn, type Claim } from '../../claims';
import { shellQuote, shellWord } from '../../formats/shell/quote';
import { escapeUnitPath } from '../../formats/systemd/escape';
import { addKernelArgs, addToExtlinux } from '../../formats/boot/kernelArgs';
import type { CardFile, CardLine } from '../../link/file';
import type { Context } from '../../link/context';
import probeScript from '../../probe/probe.sh?raw';
import { serviceFiles } from './services';
import { RELEASE } from './release';
import { APPLY_BEGIN, APPLY_END, VERIFY_BEGIN, VERIFY_END } from './scripts';
import type { CardSettings } from './settings';

export const LOG_DROP_IN = '/etc/systemd/journald.conf.d/yphos.conf';
const SET = 'boot/yphos/';
/** Digests of what is secret; FAT knows no owners, so they stand apart from what anybody may read. */
const SECRETS = `${SET}secrets.txt`;

/** Source: systemd-system.conf(5), RuntimeWatchdogSec=. */
export const WATCHDOG_DROP_IN = '/etc/systemd/system.conf.d/yphos-watchdog.conf';
/** Read at the start by the package of that name, so it counts from the restart after apply.sh. */
export const OVERLAY_CONF = '/etc/overlayroot.local.conf';

function bootFile(settings: CardSettings, claims: readonly Claim[]): CardFile[] {
	const { bootStyle, bootText } = settings;
	if (bootStyle === 'none' || bootText.trim() === '') return [];
	const args = claimsOn(claims, 'kernel').map(({ argument }) => argument);
	const overlays = unique(claimsOn(claims, 'overlay'), ({ name }) => name).map(({ name }) => name);
	return bootStyle === 'cmdline'
		? [
				textFile(
					'boot/cmdline.txt',
					'What the kernel is told: the image\u2019s own line, and what the plan adds.',
					lines('card.bootText', addKernelArgs(bootText.trim().split('\n')[0]!, args))
				)
			]
		: [
				textFile(
					'boot/extlinux/extlinux.conf',
					'What the kernel is told: the image\u2019s own text, and what the plan adds.',
					lines('card.bootText', ...addToExtlinux(bootText, args, overlays))
				)
			];
}

/** apply.sh, verify.sh and what keeps the card alive, from everybody's claims. */
export function cardFiles(settings: CardSettings, _context: Context, claims: readonly Claim[]): CardFile[] {
	const verify: CardLine[] = [
		...lines('card', ...VERIFY_BEGIN),
		...claimsOn(claims, 'check').map((claim): CardLine => ({
			text: `${claim.whilePlaying ? 'check_playing' : 'check'} ${shellQuote(claim.label)} ${claim.command}`,
			setting: claim.setting
		})),
		...lines('card', ...VERIFY_END)
	];
	const logs: CardLine[] = [
		...lines(
			'card.logsInMemory',
			'[Journal]',
			`Storage=${settings.logsInMemory ? 'volatile' : 'persistent'}`,
			settings.logsInMemory ? 'RuntimeMaxUse=32M' : 'SystemMaxUse=200M'
		)
	];
	return [
		textFile(`${SET}verify.sh`, 'Says whether the endpoint is as planned; reads only.', verify, '0755'),
		textFile(
			`${SET}probe.sh`,
			'Prints a probe report; verify.sh ends with it.',
			lines('card', ...probeScript.trimEnd().split('\n')),
			'0755'
		),
		textFile(rootPath(LOG_DROP_IN), 'Where the system keeps its log.', logs),
		...(settings.watchdog
			? [
					textFile(
						rootPath(WATCHDOG_DROP_IN),
						'Restarts the board by itself when the system hangs.',
						lines('card.watchdog', '[Manager]', 'RuntimeWatchdogSec=15s', 'RebootWatchdogSec=2min')
					)
				]
			: []),
		...(settings.root === 'overlay'
			? [
					textFile(
						rootPath(OVERLAY_CONF),
						'Keeps the root read-only below a layer in memory.',
						lines('card.root', 'overlayroot="tmpfs:recurse=0"')
					)
				]
			: []),
		firstPartitionFile(settings),
		...bootFile(settings, claims),
		...serviceFiles(claims)
	];
}

/**
 * FAT knows no owners: who may read what lies there is said when it is mounted. Passwords of the set lie there too, so root alone may.
 * It lies on the card under a plain name: whether it has a place, and which unit it belongs to, shows only on the machine.
 * Sources: mount(8), "Mount options for fat", umask; systemd.unit(5), drop-ins of units that were made from fstab.
 */
const FIRST_PARTITION_FILE = `${SET}first-partition.conf`;
function firstPartitionFile({ firstPartition }: CardSettings): CardFile {
	const unit = escapeUnitPath(firstPartition);
	if (!unit.ok) throw new RangeError(firstPartition);
	return {
		...textFile(
			FIRST_PARTITION_FILE,
			'Nobody but the administrator reads the first partition.',
			lines('card.firstPartition', '[Mount]', 'Options=umask=0077')
		),
		target: `/etc/systemd/system/${unit.value}.mount.d/yphos.conf`
	};
}
/** apply.sh and the manifest, which name every file of the set. */
export function sealCard(files: readonly CardFile[], settings: CardSettings, claims: readonly Claim[]): CardFile[] {
	const placed = files.flatMap((file) => {
		const target = targetOf(file);
		return target === null ? [] : [{ file, target: target.slice(1), name: file.path.slice(SET.length) }];
	});
	const packages = unique(claimsOn(claims, 'package'), (claim) => claim.name);
	const each = <C extends { readonly setting: CardLine['setting'] }>(all: readonly C[], text: (claim: C) => string) =>
		all.map((claim): CardLine => ({ text: text(claim), setting: claim.setting }));
	const overlays = unique(claimsOn(claims, 'overlay'), ({ name }) => name);
	const apply = textFile(
		`${SET}apply.sh`,
		'Puts the card set in place; may be run again at any time.',
		[
			...lines('card', ...APPLY_BEGIN),
			...lines('card.system', `release ${RELEASE.versionId} ${shellQuote(RELEASE.words)}`),
			...placed.map(({ file, target, name }): CardLine => ({
				text: [
					...(file.path === FIRST_PARTITION_FILE ? [`on_fat ${settings.firstPartition}`] : []),
					`place ${file.mode} root:root ${holdsKey(file) ? '-' : cardDigest(file)} ${shellWord(target)}`,
					...(file.target === undefined ? [] : [shellWord(name)])
				].join(' '),
				setting: causeOf(file).setting
			})),
			...each(claimsOn(claims, 'folder'), ({ owner, path }) => `folder ${shellWord(owner)} ${shellWord(path)}`),
			...each(claimsOn(claims, 'ramdisk'), ({ path }) => `ramdisk ${shellWord(path)}`),
			...each(packages, ({ name }) => `package ${shellWord(name)}`),
			...each(claimsOn(claims, 'unit'), ({ name }) => `enable ${shellWord(name)}`),
			...(settings.bootStyle === 'cmdline' ? each(overlays, ({ name }) => `overlay ${shellWord(name)}`) : []),
			...(settings.bootStyle === 'none'
				? []
				: each(claimsOn(claims, 'kernel'), ({ argument }) => `argument ${shellWord(argument)}`)),
			...files
				.filter((file) => holdsKey(file) && file.path.startsWith(SET))
				.map((file): CardLine => ({
					text: `secret ${shellWord(file.path.slice(SET.length))}`,
					setting: causeOf(file).setting
				})),
			...(settings.secretsLeave ? lines('card.secretsLeave', 'secrets_leave') : []),
			...lines('card', ...APPLY_END)
		],
		'0755'
	);
	const secrets = placed.filter(({ file }) => holdsKey(file));
	const digests = textFile(
		SECRETS,
		'Digests of files that hold a key or password, for apply.sh.',
		secrets.map(({ file, target }): CardLine => ({
			text: `${cardDigest(file)}  ${target}`,
			setting: causeOf(file).setting,
			secret: true
		})),
		'0600'
	);
	const sealed = [apply, ...(secrets.length ? [digests] : [])];
	return [...sealed, manifest([...files, ...sealed])];
}

/** Every file beside or below the manifest with digest, size, mode, owner and reason; one line each. */
function manifest(files: readonly CardFile[]): CardFile {
	const below = files.filter((file) => file.path.startsWith(SET));
	const entry = (file: CardFile, last: boolean): CardLine => ({
		text: `\t\t${JSON.stringify({ path: file.path.slice(SET.length), ...(file.target === undefined ? {} : { target: file.target }), sha256: cardDigest(file), size: cardSize(file), mode: file.mode, owner: 'root:root', why: file.why })}${last ? '' : ','}`,
		...causeOf(file)
	});
	return textFile(`${SET}manifest.json`, 'What belongs to the set, with digests.', [
		...lines('card', '{', '\t"yphos": "card set",', '\t"files": ['),
		...below.map((file, index) => entry(file, index === below.length - 1)),
		...lines('card', '\t]', '}')
	]);
}

/** For the administrator's eyes only, or with a line that is: the digest of a digest is one as well. */
const holdsKey = (file: CardFile): boolean =>
	file.mode === '0600' || ('lines' in file && file.lines.some(({ secret }) => secret));

/** What is for the administrator's eyes holds a key, and whoever has its digest can try keys against it: as secret as the file. */
const causeOf = (file: CardFile): Pick<CardLine, 'setting' | 'secret'> => ({
	setting: 'lines' in file ? (file.lines[0]?.setting ?? 'card') : file.setting,
	...(holdsKey(file) ? { secret: true } : {})
});
const unique = <T>(items: readonly T[], key: (item: T) => string): T[] => [
	...new Map(items.map((item) => [key(item), item])).values()
];
