import { cardSize, cardDigest } from '../../files/cardBytes';
import { lines, rootPath, textFile } from '../../files/cardFile';
import { claimsOn, type Claim } from '../../claims';
import { shellQuote, shellWord } from '../../formats/shell/quote';
import { addKernelArgs, addToExtlinux } from '../../formats/boot/kernelArgs';
import type { CardFile, CardLine, Context } from '../../link';
import probeScript from '../../probe/probe.sh?raw';
import { serviceFiles } from './services';
import { APPLY_BEGIN, APPLY_END, VERIFY_BEGIN, VERIFY_END } from './scripts';
import type { CardSettings } from './settings';

export const LOG_DROP_IN = '/etc/systemd/journald.conf.d/yphos.conf';
const ROOT = rootPath('/');

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
		textFile('boot/yphos/verify.sh', 'Says whether the endpoint is as planned; reads only.', verify, '0755'),
		textFile(
			'boot/yphos/probe.sh',
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
		...bootFile(settings, claims),
		...serviceFiles(claims)
	];
}

/** apply.sh and the manifest, which name every file of the set. */
export function sealCard(files: readonly CardFile[], settings: CardSettings, claims: readonly Claim[]): CardFile[] {
	const placed = files.filter((file) => file.path.startsWith(ROOT));
	const packages = unique(claimsOn(claims, 'package'), (claim) => claim.name);
	const apply = textFile(
		'boot/yphos/apply.sh',
		'Puts the card set in place; may be run again at any time.',
		[
			...lines('card', ...APPLY_BEGIN),
			...placed.map((file): CardLine => ({
				text: `place ${file.mode} root:root ${cardDigest(file)} ${shellWord(file.path.slice(ROOT.length))}`,
				...causeOf(file)
			})),
			...claimsOn(claims, 'folder').map((claim): CardLine => ({
				text: `folder ${shellWord(claim.owner)} ${shellWord(claim.path)}`,
				setting: claim.setting
			})),
			...claimsOn(claims, 'ramdisk').map((claim): CardLine => ({
				text: `ramdisk ${shellWord(claim.path)}`,
				setting: claim.setting
			})),
			...packages.map((claim): CardLine => ({ text: `package ${shellWord(claim.name)}`, setting: claim.setting })),
			...claimsOn(claims, 'unit').map((claim): CardLine => ({
				text: `enable ${shellWord(claim.name)}`,
				setting: claim.setting
			})),
			...(settings.bootStyle === 'cmdline'
				? unique(claimsOn(claims, 'overlay'), ({ name }) => name).map((claim): CardLine => ({
						text: `overlay ${shellWord(claim.name)}`,
						setting: claim.setting
					}))
				: []),
			...lines('card', ...APPLY_END)
		],
		'0755'
	);
	return [apply, manifest([...files, apply])];
}

/** Every file beside or below the manifest with digest, size, mode, owner and reason; one line each. */
function manifest(files: readonly CardFile[]): CardFile {
	const below = files.filter((file) => file.path.startsWith('boot/yphos/'));
	const entry = (file: CardFile, last: boolean): CardLine => ({
		text: `\t\t${JSON.stringify({ path: file.path.slice('boot/yphos/'.length), sha256: cardDigest(file), size: cardSize(file), mode: file.mode, owner: 'root:root', why: file.why })}${last ? '' : ','}`,
		...causeOf(file)
	});
	return textFile('boot/yphos/manifest.json', 'What belongs to the set, with digests.', [
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
