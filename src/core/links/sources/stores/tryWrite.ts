import { scriptLines } from '../../../files/script';
import { endsWithin, NO_NETWORK, SANDBOX } from '../../../files/sandbox';
import { lines, rootPath, textFile } from '../../../files/cardFile';
import { unitText } from '../../../formats/systemd/unit';
import type { CardFile, CardLine } from '../../../link/file';
import type { SettingPath } from '../../../link/setting';
import tryWriteScript from './try-write.sh?raw';
import type { SourcesSettings } from '../settings';
import { isWritable, mountPoint, storeWords, tryUnitOf } from './stores';

const TRY_PATH = '/opt/yphos/bin/try-write.sh';

/** A share that may not be written, or is full, is noticed at the start and not by the first recording that is lost. */
export const TRY_WRITE = scriptLines(tryWriteScript);

/** The script that tries whether a share can be written, and a unit for each that is to be. */
export function tryFiles({ stores }: SourcesSettings): CardFile[] {
	const writable = stores.flatMap((store, n) => (isWritable(store) ? [{ store, n }] : []));
	if (writable.length === 0) return [];
	return [
		textFile(
			rootPath(TRY_PATH),
			'Tries whether a share can be written.',
			lines(`sources.stores.${writable[0]!.n}`, ...TRY_WRITE),
			'0755'
		),
		...writable.map(({ store, n }): CardFile => {
			const at: SettingPath = `sources.stores.${n}`;
			const of = (...texts: string[]): CardLine[] => lines(at, ...texts);
			const folder = mountPoint(store);
			return textFile(
				rootPath(`/etc/systemd/system/${tryUnitOf(store)}`),
				`Tries whether ${storeWords(store)} can be written.`,
				[
					...of('[Unit]', `Description=${unitText(`Tries to write to ${storeWords(store)}`)}`),
					...of('After=network-online.target', 'Wants=network-online.target', 'StartLimitIntervalSec=0'),
					...of('', '[Service]', 'Type=oneshot'),
					// Looking into it mounts it, and waits until it is there or given up on.
					...of(`ExecStartPre=-/usr/bin/ls ${folder}`, `ExecStart=${TRY_PATH} ${folder}`),
					...of('# A server that sleeps is asked again.', 'Restart=on-failure', 'RestartSec=60'),
					...of('User=daemon', endsWithin(180), ...SANDBOX, ...NO_NETWORK, `ReadWritePaths=-${folder}`),
					...of('', '[Install]', 'WantedBy=multi-user.target')
				]
			);
		})
	];
}
