import type { Context } from '../../../link/context';
import type { Finding } from '../../../link/finding';
import { turnsOf } from '../../../onAir/items';
import { change, changeZone, fromToday, withoutZone, withPage } from '../pages/edits';
import { fetchedFeeds } from '../feeds/fetchClaims';
import { endsOn, MOST_PICTURES, picturesOf } from './pictures';
import { LONGEST_SEC, type Page, type NoticesSettings, type Zone } from '../settings';

const quoted = (text: string): string => `\u201c${text}\u201d`;
/** A browser may show everything. */
const LIVE = { label: 'Show the pages by a browser', apply: change({ shownBy: 'browser' }) };

/** What pages as pictures cannot do, and until when they hold. */
export function assessPictures(settings: NoticesSettings, context: Context): Finding[] {
	const { pages, picturesFrom, picturesDays } = settings;
	if (picturesFrom === '')
		return [
			{
				id: 'notices.pictures-from',
				level: 'stop',
				title: 'From which day on are the pages to be drawn?',
				why: 'Pictures know no day: each is drawn for the days on which it is shown. Say the first of them.',
				setting: 'notices.picturesFrom',
				fixes: [{ label: 'From today on', apply: fromToday(context) }, LIVE]
			}
		];
	const out: Finding[] = [];
	const found = picturesOf(settings, context);
	if (found?.isCut) {
		const whole = new Date(found.endsUtcMs).toISOString().slice(0, 10);
		const days = Math.max(1, Math.floor((Date.parse(whole) - Date.parse(picturesFrom)) / 86_400_000));
		out.push({
			id: 'notices.pictures-many',
			level: 'stop',
			title: `More than ${MOST_PICTURES} pictures would have to be drawn`,
			why: `The pages change so often that ${picturesDays} days need more. They last until ${whole}.`,
			setting: 'notices.picturesDays',
			fixes:
				days < picturesDays
					? [{ label: `Draw ${days} day${days === 1 ? '' : 's'}`, apply: change({ picturesDays: days }) }, LIVE]
					: [LIVE]
		});
	}
	for (const page of pages) {
		for (const zone of page.zones) out.push(...assessZone(page, zone, pages.indexOf(page)));
		out.push(...assessPage(page, settings, context, found?.emptyAfter.includes(page.id) === true));
	}
	return [...out, ...assessPlayed(settings, context)];
}

/** What of a zone a picture cannot show. */
function assessZone(page: Page, zone: Zone, n: number): Finding[] {
	const out: Finding[] = [];
	const name = quoted(page.title || page.id);
	const of = { level: 'caution' as const, setting: `notices.pages.${n}` as const };
	const id = `${page.id}-${zone.id}`;
	const takeOut = {
		label: 'Take the zone out',
		apply: change((all) => ({ ...all, pages: withoutZone(all.pages, page.id, zone.id) }))
	};
	if (zone.shows === 'clock')
		out.push({
			...of,
			id: `notices.pictures-clock-${id}`,
			title: `A picture shows no clock: its zone on ${name} stays empty`,
			why: 'It would be wrong a minute later. The date is drawn anew for each day.',
			fixes: [
				{ label: 'Show the date in its place', apply: changeZone(page.id, zone.id, { shows: 'date' }) },
				takeOut,
				LIVE
			]
		});
	if (zone.shows === 'film')
		out.push({
			...of,
			id: `notices.pictures-film-${id}`,
			title: `A picture shows no film: its zone on ${name} stays empty`,
			why: 'A film of its own in the playlist fills the screen, and does play.',
			fixes: [takeOut, LIVE]
		});
	if ((zone.shows === 'photographs' && zone.entries.length > 1) || (zone.shows === 'news' && zone.rows > 1))
		out.push({
			...of,
			id: `notices.pictures-turns-${id}`,
			level: 'note',
			title: `Of ${zone.shows === 'news' ? 'the headlines' : 'the photographs'} on ${name} only the first is drawn`,
			why: 'What changes each few seconds would need a picture for each. Let a page of its own show each of them, or put photographs into the playlist.',
			fixes: [LIVE]
		});
	return out;
}

/** How long a picture of a page stands, and whether anything is left of it. */
function assessPage(page: Page, settings: NoticesSettings, context: Context, isEmptied: boolean): Finding[] {
	const out: Finding[] = [];
	const name = quoted(page.title || page.id);
	const setting = `notices.pages.${settings.pages.indexOf(page)}` as const;
	const stillSec = context.facts.picture?.stillSec;
	const stands = stillSec === undefined ? page.forSec : turnsOf(page.forSec, stillSec) * stillSec;
	if (stands !== page.forSec)
		out.push({
			id: `notices.pictures-time-${page.id}`,
			level: 'note',
			title: `${name} stands for ${stands}\u2009s, not ${page.forSec}`,
			why: `A still picture has ${stillSec}\u2009s on this endpoint, and a page as many turns of that as come nearest.`,
			setting,
			fixes:
				stands > LONGEST_SEC
					? []
					: [
							{
								label: `Let it stand for ${stands}\u2009s`,
								apply: change((all) => ({
									...all,
									pages: withPage(all.pages, page.id, (one) => ({ ...one, forSec: stands }))
								}))
							}
						]
		});
	if (isEmptied)
		out.push({
			id: `notices.pictures-empty-${page.id}`,
			level: 'caution',
			title: `Nothing of ${name} holds on any day`,
			why: `While the endpoint does not know the time, and from ${endsOn(settings)} on, it shows its ground and nothing else. A line of text, or a picture, would stand.`,
			setting,
			fixes: [LIVE]
		});
	return out;
}

/** What the plain player does with pictures. */
function assessPlayed(settings: NoticesSettings, context: Context): Finding[] {
	const out: Finding[] = [];
	const { fadeMs, showByPhone } = settings;
	const fetched = fetchedFeeds(settings);
	if (fetched.length)
		out.push({
			id: 'notices.pictures-feeds',
			level: 'caution',
			title: `${quoted(fetched[0]!.title || fetched[0]!.id)} is drawn as it is when the card set is written`,
			why: 'Pictures fetch nothing. For tables of months that is no loss; weather and news are stale by the evening.',
			setting: 'notices.feeds',
			fixes: [LIVE]
		});
	if (context.facts.programme?.loop === 'one')
		out.push({
			id: 'notices.pictures-one',
			level: 'caution',
			title: 'The first picture stands for ever, and is never changed',
			why: 'The first entry is played again and again, without being opened anew: tomorrow it says what is of today.',
			setting: 'programme.loop',
			fixes: [{ label: 'Play the whole list', apply: context.change.loop('list') }, LIVE]
		});
	if (fadeMs > 0)
		out.push({
			id: 'notices.pictures-fade',
			level: 'note',
			title: 'Pictures follow one another at once',
			why: 'The plain player fades nothing.',
			setting: 'notices.fadeMs',
			fixes: [{ label: 'Do without fading', apply: change({ fadeMs: 0 }) }, LIVE]
		});
	if (showByPhone)
		out.push({
			id: 'notices.pictures-phone',
			level: 'note',
			title: 'Pictures of pages cannot be called by phone',
			why: 'That is asked of a page that a browser shows. The buttons are left out.',
			setting: 'notices.showByPhone',
			fixes: [{ label: 'Do without the buttons', apply: change({ showByPhone: false }) }, LIVE]
		});
	return out;
}
