import { scriptLines } from '../../../files/script';
import { endsWithin, NOT_THE_SET } from '../../../files/sandbox';
import { lines, rootPath, textFile } from '../../../files/cardFile';
import type { CardFile, CardLine } from '../../../link/file';
import pageAliveScript from './page-alive.sh?raw';
import { ALIVE_UNIT } from './aliveClaims';

/** Looks whether the page still says that it is alive. */
export const ALIVE_PATH = '/opt/yphos/bin/page-alive.sh';
/** How often in a row it has been silent. */
export const MISSED_PATH = '/run/yphos-page-missed';
/** A page says each minute that it is alive; it is looked for so often, and begun anew at the third silence. */
const LOOKS_MIN = 2;
export const MOST_MISSED = 3;

/**
 * A browser whose page has crashed goes on running, and shows a message of its own to the public: no restart of the service helps.
 * A slow board may take minutes to begin, so that one silence is none. Source: journalctl(1).
 */
export const ALIVE = scriptLines(pageAliveScript);

/** The script, and what starts it. */
export function aliveFiles(): CardFile[] {
	const of = (...texts: string[]): CardLine[] => lines('notices', ...texts);
	return [
		textFile(rootPath(ALIVE_PATH), 'Begins a page anew that has crashed.', of(...ALIVE), '0755'),
		textFile(rootPath(`/etc/systemd/system/${ALIVE_UNIT}.service`), 'Looks whether the page is alive.', [
			...of('[Unit]', 'Description=Looks whether the page is alive', '', '[Service]', 'Type=oneshot'),
			...of(`ExecStart=${ALIVE_PATH}`, endsWithin(60), NOT_THE_SET)
		]),
		textFile(rootPath(`/etc/systemd/system/${ALIVE_UNIT}.timer`), 'Says when it is looked for.', [
			...of('[Unit]', 'Description=Looks whether the page is alive', '', '[Timer]', 'OnBootSec=4min'),
			...of(`OnUnitActiveSec=${LOOKS_MIN}min`, '', '[Install]', 'WantedBy=timers.target')
		])
	];
}
