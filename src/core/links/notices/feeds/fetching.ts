import { scriptLines } from '../../../files/script';
import { lines, rootPath, textFile } from '../../../files/cardFile';
import { endsWithin, FETCHES, SANDBOX } from '../../../files/sandbox';
import { contentAt } from '../../../files/content';
import type { CardFile } from '../../../link/file';
import type { Context } from '../../../link/context';
import fetchFeedsScript from './fetch-feeds.sh?raw';
import type { Feed, FeedKind } from './schema';
import { readTable } from './table';
import type { NoticesSettings } from '../settings';
import { FEEDS_UNIT, fetchedFeeds } from './fetchClaims';
import { FEEDS_DIR } from '../places';

/** Which feeds there are, for the script. */
export const FEEDS_LIST = '/opt/yphos/notices/feeds.txt';
/** The script itself. */
export const FETCH_PATH = '/opt/yphos/bin/fetch-feeds.sh';

const SIGNS: Readonly<Record<Exclude<FeedKind, 'table'>, string>> = {
	calendar: 'BEGIN:VCALENDAR',
	news: '</title>',
	weather: '"now"'
};
/** What a feed holds at any rate, by which the script knows it: a page that says "sorry" is none. Of a table the name of its first column. */
export function signOf({ kind, text }: Feed): string {
	if (kind !== 'table') return SIGNS[kind];
	const table = readTable(text);
	return (table.ok && table.value.columns[0]) || ',';
}

/** Fetches each feed; what does not come, is too large, or is something else leaves the last good one in place. Source: curl(1). */
export const FETCH = scriptLines(fetchFeedsScript);

/** The list of feeds, the script that fetches them, and what starts it. */
export function fetchFiles(settings: NoticesSettings, { facts }: Context): CardFile[] {
	if (fetchedFeeds(settings).length === 0) return [];
	const of = (...texts: string[]) => lines('notices.feeds', ...texts);
	const every = (...texts: string[]) => lines('notices.fetchEveryMin', ...texts);
	return [
		textFile(
			rootPath(FEEDS_LIST),
			'Feeds that are fetched: name, address, and what each holds at any rate.',
			settings.feeds.flatMap((feed, n) =>
				feed.address ? lines(`notices.feeds.${n}`, `${feed.id} ${feed.address} ${signOf(feed)}`) : []
			)
		),
		textFile(rootPath(FETCH_PATH), 'Fetches the feeds.', of(...FETCH), '0755'),
		textFile(rootPath(`/etc/systemd/system/${FEEDS_UNIT}.service`), 'Fetches the feeds.', [
			...of('[Unit]', 'Description=Fetches the feeds', 'After=network-online.target', 'Wants=network-online.target'),
			...of('', '[Service]', 'Type=oneshot', `ExecStart=${FETCH_PATH}`, 'User=daemon'),
			...(facts.fetchesContent ? of(`Environment=YPHOS_LIST=${contentAt(facts, FEEDS_LIST)}`) : []),
			...of(`StateDirectory=${FEEDS_DIR.slice('/var/lib/'.length)}`),
			...of(endsWithin(1800), ...SANDBOX, ...FETCHES),
			...of('', '[Install]', 'WantedBy=multi-user.target')
		]),
		textFile(rootPath(`/etc/systemd/system/${FEEDS_UNIT}.timer`), 'Says when feeds are fetched anew.', [
			...of('[Unit]', 'Description=Fetches the feeds anew', '', '[Timer]'),
			...every(`OnBootSec=${settings.fetchEveryMin}min`, `OnUnitActiveSec=${settings.fetchEveryMin}min`),
			...of('', '[Install]', 'WantedBy=timers.target')
		])
	];
}
