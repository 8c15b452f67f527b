import { scriptLines } from '../../../files/script';
import { endsWithin, NO_NETWORK, SANDBOX } from '../../../files/sandbox';
import { lines, PICTURES_UNIT, PLAYER_UNIT, rootPath, textFile } from '../../../files/cardFile';
import { contentAt } from '../../../files/content';
import { box, writePng } from '../../../formats/drawing';
import { wallClockMs } from '../../../formats/systemd/zone';
import type { CardFile, CardLine } from '../../../link/file';
import type { Context } from '../../../link/context';
import type { Secrets } from '../../../secrets';
import pagesNowScript from './pages-now.sh?raw';
import { picturesOf, type Pictures } from './pictures';
import { PAGE_DIR, PICTURES_DIR, SHOWN_DIR, TURNS_PATH } from '../places';
import { zoneBox } from '../pages/screen';
import type { NoticesSettings, Page } from '../settings';
import type { Show } from '../pages/show';

const SCRIPT_PATH = '/opt/yphos/bin/pages-now.sh';
const UNITS = '/etc/systemd/system/';

/** Puts under each page's id what is to be seen now. A link is changed at once, and the player takes it at the page's next turn. */
export const PAGES_NOW = scriptLines(pagesNowScript);

/** More times of a day than these, and each minute is looked at. */
const MOST_TIMES = 60;
const EACH_MINUTE = ['*-*-* *:*:00'];
const DAY_MS = 86_400_000;

/** Times of a day at which a page may change, as OnCalendar lines. */
function timesOf({ turns, show }: Pictures, isFetched: boolean): string[] {
	// What is fetched later has times of its own.
	if (isFetched) return EACH_MINUTE;
	const times = new Set(
		turns
			.filter(({ fromUtcSec }) => fromUtcSec > 0)
			.map(({ fromUtcSec }) => {
				const wallMs = wallClockMs(show.venue.timeZone, fromUtcSec * 1000) % DAY_MS;
				return new Date(wallMs).toISOString().slice(11, 16);
			})
	);
	return times.size > MOST_TIMES ? EACH_MINUTE : [...times].sort().map((time) => `*-*-* ${time}:00`);
}

const blanks = new Map<string, Uint8Array>();
/** The page's zones as empty boxes, as large as the page: it stands for a picture that is not drawn yet. */
function blank(page: Page, { screen, theme, grid }: Show): Uint8Array {
	const { widthPx, heightPx } = screen;
	const key = JSON.stringify([page.zones.map(({ x, y, w, h }) => [x, y, w, h]), screen, theme, grid]);
	let made = blanks.get(key);
	if (!made) {
		const boxes = page.zones.map((zone) => {
			const { left, top, width, height } = zoneBox(screen, theme, grid, zone);
			return box(Math.round(left), Math.round(top), Math.round(width), Math.round(height), theme.panel);
		});
		made = writePng({ widthPx, heightPx, ground: theme.ground, shapes: boxes });
		if (blanks.size >= MOST_BLANKS) blanks.clear();
		blanks.set(key, made);
	}
	return made;
}
const MOST_BLANKS = 100;

/** The pictures, when each is shown, and what sees to that. `drawn` has those that are drawn already, by name. */
export function pictureFiles(settings: NoticesSettings, context: Context, { pagePictures }: Secrets): CardFile[] {
	const found = picturesOf(settings, context);
	if (!found) return [];
	const { show, drawings, turns } = found;
	const of = (...texts: string[]): CardLine[] => lines('notices.shownBy', ...texts);
	const placeOf = new Map(settings.pages.map(({ id }, n) => [id, n]));
	return [
		textFile(
			rootPath(TURNS_PATH),
			'Which picture each page shows, from which second on, counted from 1970.',
			turns.flatMap(({ pageId, fromUtcSec, name }) =>
				lines(`notices.pages.${placeOf.get(pageId)!}`, `${pageId} ${fromUtcSec} ${name}`)
			)
		),
		...drawings.map(({ name, page }): CardFile => {
			const bytes = pagePictures?.get(name) ?? blank(page, show);
			return {
				path: rootPath(`${PICTURES_DIR}/${name}`),
				mode: '0644',
				why: pagePictures?.has(name)
					? `A picture of \u201c${page.title || page.id}\u201d.`
					: `A picture of \u201c${page.title || page.id}\u201d; it is drawn when the card set is written.`,
				setting: `notices.pages.${placeOf.get(page.id)!}`,
				bytes
			};
		}),
		textFile(rootPath(SCRIPT_PATH), 'Puts what is to be seen now in place.', of(...PAGES_NOW), '0755'),
		textFile(rootPath(`${UNITS}${PICTURES_UNIT}.service`), 'Puts what is to be seen now in place.', [
			...of('[Unit]', 'Description=Puts the pages of now in place', `Before=${PLAYER_UNIT}`),
			...of('', '[Service]', 'Type=oneshot', `ExecStart=${SCRIPT_PATH}`),
			...(context.facts.fetchesContent ? of(`Environment=YPHOS_PAGES=${contentAt(context.facts, PAGE_DIR)}`) : []),
			...of('User=daemon', `StateDirectory=${SHOWN_DIR.slice('/var/lib/'.length)}`),
			...of(endsWithin(120), ...SANDBOX, ...NO_NETWORK),
			...of('', '[Install]', 'WantedBy=multi-user.target')
		]),
		textFile(rootPath(`${UNITS}${PICTURES_UNIT}.timer`), 'Says when a page may change.', [
			...of('[Unit]', 'Description=Looks which pages are of now', '', '[Timer]'),
			...timesOf(found, context.facts.fetchesContent === true).flatMap((time) => of(`OnCalendar=${time}`)),
			...of('# A clock that was wrong at the start is put right later.', 'OnClockChange=yes', 'OnTimezoneChange=yes'),
			...of('AccuracySec=1s', '', '[Install]', 'WantedBy=timers.target')
		])
	];
}
