import { lines, rootPath, textFile } from '../../../files/cardFile';
import type { Claim } from '../../../claims';
import { shellWord } from '../../../formats/shell/quote';
import type { CardFile, CardLine } from '../../../link/file';
import type { SettingPath } from '../../../link/setting';
import type { Secrets } from '../../../secrets';
import {
	asksPassword,
	deviceOf,
	isShare,
	isWritable,
	mountPoint,
	storeOf,
	storeWords,
	tryUnitOf,
	unitOf,
	whatOf,
	type Store
} from './stores';
import type { SourcesSettings } from '../settings';

/** A server that does not answer is given up on after so long, s. */
export const GIVES_UP_SEC = 30;

/** Where the password of a share stands. */
const credentialsPath = ({ name }: Store): string => `/etc/yphos/${name}.credentials`;

/**
 * Readable by the player, which is nobody in particular; where the endpoint writes, its services are let in by the modes, which SMB
 * makes up on this side. Of NFS the modes are the server's own. Source: mount.cifs(8), nfs(5), mount(8).
 */
function optionsOf(store: Store): string[] {
	const access = isWritable(store) ? 'rw' : 'ro';
	switch (store.kind) {
		case 'smb':
			return [
				access,
				asksPassword(store) ? `credentials=${credentialsPath(store)}` : 'guest',
				...(isWritable(store) ? ['file_mode=0666', 'dir_mode=0777'] : ['file_mode=0644', 'dir_mode=0755']),
				...['iocharset=utf8', 'echo_interval=10', '_netdev'],
				...(store.version === 'auto' ? [] : [`vers=${store.version}`])
			];
		case 'nfs':
			// Else a player waits for ever for a server that is gone.
			return [
				access,
				...['soft', 'timeo=100', 'retrans=2', '_netdev'],
				...(store.version === 'auto' ? [] : [`nfsvers=${store.version}`])
			];
		case 'stick':
			return ['ro', ...(store.fileSystem === 'ext4' ? [] : ['umask=0022'])];
	}
}

/** Its kind as mount calls it. */
export const typeOf = (store: Store): string =>
	store.kind === 'smb' ? 'cifs' : store.kind === 'nfs' ? 'nfs' : store.fileSystem;

/** Units that mount, and the password of a share. A share is mounted when somebody looks into it; a stick when it is plugged in. */
export function storeFiles({ stores }: SourcesSettings, secrets: Secrets): CardFile[] {
	return stores.flatMap((store, n) => {
		const at: SettingPath = `sources.stores.${n}`;
		const of = (...texts: string[]): CardLine[] => lines(at, ...texts);
		const unit = (ending: string, why: string, content: CardLine[]): CardFile =>
			textFile(rootPath(`/etc/systemd/system/${unitOf(store)}.${ending}`), why, content);
		const mount = unit('mount', `Mounts ${storeWords(store)}.`, [
			...of('[Unit]', `Description=${storeWords(store)}`),
			// With the usual limit five vain attempts end an automount for good.
			...(isShare(store) ? of('StartLimitIntervalSec=0') : []),
			...of('', '[Mount]', `What=${whatOf(store)}`, `Where=${mountPoint(store)}`, `Type=${typeOf(store)}`),
			...of(`Options=${optionsOf(store).join(',')}`, `TimeoutSec=${GIVES_UP_SEC}`),
			...(store.kind === 'stick' ? of('', '[Install]', `WantedBy=${deviceOf(store.label)}`) : [])
		]);
		if (!isShare(store)) return [mount];
		return [
			mount,
			unit(
				'automount',
				`Mounts ${storeWords(store)} when something looks into it.`,
				of(
					...['[Unit]', `Description=Waits until something looks into ${mountPoint(store)}`, ''],
					...['[Automount]', `Where=${mountPoint(store)}`, '', '[Install]', 'WantedBy=multi-user.target']
				)
			),
			...(store.kind === 'smb' && asksPassword(store)
				? [
						textFile(
							rootPath(credentialsPath(store)),
							`User and password for ${storeWords(store)}; whoever has the card can read them.`,
							[
								...of(`username=${store.user}`),
								...(secrets.sharePasswords?.[store.name] === undefined
									? []
									: [{ text: `password=${secrets.sharePasswords[store.name]}`, setting: at, secret: true as const }])
							],
							'0600'
						)
					]
				: [])
		];
	});
}

/** What mounts that the kernel does not mount by itself. Source: mount(8), "External helpers". */
const PROGRAMS: Readonly<Record<string, string>> = { cifs: 'cifs-utils', nfs: 'nfs-common', 'ntfs-3g': 'ntfs-3g' };

/** Packages that mount, units that start, and what verify.sh looks for. */
export function storeClaims({ stores, items }: SourcesSettings): Claim[] {
	const packages = new Set(
		stores.flatMap((store) => [
			...(PROGRAMS[typeOf(store)] ? [PROGRAMS[typeOf(store)]!] : []),
			// Names that end so are asked for in the network itself, not of a name server. Source: RFC 6762.
			...(isShare(store) && store.server.endsWith('.local') ? ['libnss-mdns'] : [])
		])
	);
	const files = [...new Set(items.map(({ location }) => location))].filter((location) => storeOf(stores, location));
	return [
		...[...packages].map((name): Claim => ({
			on: 'package',
			from: 'sources',
			what: 'shares',
			name,
			setting: 'sources.stores'
		})),
		...stores.flatMap((store, n): Claim[] => [
			{
				on: 'unit',
				from: 'sources',
				what: storeWords(store),
				name: `${unitOf(store)}.${isShare(store) ? 'automount' : 'mount'}`,
				setting: `sources.stores.${n}`
			},
			...(isWritable(store)
				? [
						{
							on: 'unit',
							from: 'sources',
							what: storeWords(store),
							name: tryUnitOf(store),
							setting: `sources.stores.${n}`
						} as const
					]
				: []),
			{
				on: 'check',
				from: 'sources',
				what: storeWords(store),
				label: `${storeWords(store)} can be read`,
				command: `test -n "$(ls -A ${mountPoint(store)})"`,
				setting: `sources.stores.${n}`
			}
		]),
		...files.map((location): Claim => ({
			on: 'check',
			from: 'sources',
			what: location,
			label: `${location} is there`,
			command: `test -s ${shellWord(location)}`,
			setting: 'sources.items'
		}))
	];
}
