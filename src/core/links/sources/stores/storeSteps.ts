import type { Context } from '../../../link/context';
import type { Step } from '../../../link/step';
import {
	asksPassword,
	isShare,
	isWritable,
	mountPoint,
	storeOf,
	storeWords,
	tryUnitOf,
	type Share,
	type Store
} from './stores';
import type { SourcesSettings } from '../settings';

/** A sheet of paper holds so many names. */
const NAMED = 12;

/** The command that lists what a server has, on the person's own computer. Source: smbclient(1), showmount(8). */
export const listCommand = (share: Share): string =>
	share.kind === 'nfs'
		? `showmount -e ${share.server}`
		: share.user === ''
			? `smbclient -N -L //${share.server}`
			: `smbclient -L //${share.server} -U "${share.user.replaceAll('"', '\\"')}"`;

/** Shares are tried from the person's own computer first, sticks get their name; both are looked into on the endpoint. */
export function storeSteps({ stores, items }: SourcesSettings, { facts }: Context): Step[] {
	if (facts.system !== 'plain') return [];
	const filesOn = (store: Store): string => {
		const paths = [...new Set(items.map(({ location }) => location))]
			.filter((location) => storeOf([store], location))
			.map((location) => location.slice(mountPoint(store).length + 1));
		return paths.length === 0
			? ''
			: ` There must be: ${paths.slice(0, NAMED).join(', ')}${paths.length > NAMED ? ` and ${paths.length - NAMED} more of the list` : ''}.`;
	};
	return stores.flatMap((store, n): Step[] => {
		// The first needs no name of its own, so that its ticks survive one more.
		const suffix = n === 0 ? '' : `-${store.name}`;
		return [
			isShare(store)
				? {
						id: `share-listed${suffix}`,
						phase: 'prepare',
						makes: ['stores ready'],
						do: `${asksPassword(store) ? `On the server, make the account ${store.kind === 'smb' ? store.user : ''} for this endpoint alone, that may ${isWritable(store) ? 'read and write there' : 'only read'}. ` : ''}From your own computer, list what ${store.server} has; on Windows, open \\\\${store.server} in its file manager instead.${filesOn(store)}`,
						command: listCommand(store),
						expect: `${store.share} is in the list. Paste the answer under Sources: it is read there.`
					}
				: {
						id: `stick-named${suffix}`,
						phase: 'prepare',
						makes: ['stores ready'],
						do: `Give the stick the name ${store.label}: in the file manager, by renaming it; nothing on it is lost by that. Then copy the files onto it.${filesOn(store)}`,
						expect: `The file manager shows it as ${store.label}.`,
						caution: 'Renaming keeps what is on it; formatting wipes it. Look twice which drive you have chosen.'
					},
			{
				id: `store-read${suffix}`,
				phase: 'check',
				needs: ['applied', 'stores ready'],
				do: `Look into ${storeWords(store)} from the endpoint.`,
				command: `ls ${mountPoint(store)}`,
				expect: isShare(store)
					? 'Your files. "No such device" after a while: it cannot be mounted, and "journalctl -b -g mount" says why. Error 13 is a wrong password, 2 a share that is not there, 101 and 113 a server that cannot be reached.'
					: 'Your files. Nothing: the stick has another name or another file system; "lsblk -f" shows both.'
			},
			...(isWritable(store)
				? [
						{
							id: `store-written${suffix}`,
							phase: 'check',
							needs: ['applied', 'stores ready'],
							do: `Try whether the endpoint may write to ${storeWords(store)}.`,
							command: `sudo systemctl restart ${tryUnitOf(store)}`,
							expect: `Nothing is printed. An error: "journalctl -u ${tryUnitOf(store)}" says why. "Permission denied": ${store.kind === 'nfs' ? 'the server must let the endpoint’s users write there (all_squash and anonuid, or the folder’s own mode)' : 'the account on the server may only read'}. "No space left on device": the share is full. "Read-only file system": the server hands it out read-only.`
						} satisfies Step
					]
				: [])
		];
	});
}
