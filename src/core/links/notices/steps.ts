import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { PLAYER_UNIT } from '../../files/cardFile';
import { FEEDS_UNIT, fetchedFeeds } from './feeds/fetchClaims';
import { endsOn } from './drawn/pictures';
import { lastDayOf } from './pages/runsOut';
import { noticeScreen } from './pages/screen';
import type { NoticesSettings } from './settings';
import { dateOf } from '../../basics/calendar';

/** Somebody stands where people will stand, reads every page, and looks again after the power was cut. */
export function noticesSteps(settings: NoticesSettings, context: Context): Step[] {
	const screen = noticeScreen(context);
	const fetched = settings.shownBy === 'pictures' ? [] : fetchedFeeds(settings);
	const runOut = settings.feeds.flatMap((feed) => {
		const day = lastDayOf(feed, context.venue.timeZone);
		return day === null ? [] : [{ title: feed.title || feed.id, date: dateOf(day) }];
	});
	return [
		...(fetched.length
			? [
					{
						id: 'feeds-fetch',
						phase: 'set up' as const,
						needs: ['applied' as const, 'logged in' as const],
						do: 'Let the endpoint fetch its feeds now, and read what it says.',
						command: `sudo systemctl start ${FEEDS_UNIT}.service; journalctl -u ${FEEDS_UNIT} -n 5 -o cat`,
						expect:
							'No line says "not fetched". If one does, its address is wrong or kept from the endpoint: open it in a browser of the same network.'
					}
				]
			: []),
		{
			id: 'pages-read',
			phase: 'check',
			needs: ['seen'],
			do: `Stand where people will stand${screen ? `, ${screen.distanceM}\u2009m away` : ''}, and read every page to its end. Ask somebody with weaker eyes to do the same.`,
			expect:
				'All four corners of each page are there, nothing is cut off, and the smallest line is read without stepping nearer.',
			reading: 'the smallest line that is read'
		},
		{
			id: 'pages-cut',
			phase: 'live',
			needs: ['seen'],
			do: 'Take the power away while a page stands, wait ten seconds, and give it back. Look at a watch.',
			expect:
				'The page that the hour asks for is there again by itself, within two minutes. What a clock on the page shows may be wrong until the network has told the time.',
			reading: 'seconds until the page stands',
			caution: 'Pull the plug of the endpoint\u2019s own supply, never the mains lead of the set while it hangs.'
		},
		...(settings.shownBy === 'pictures' && settings.picturesFrom !== ''
			? [
					{
						id: 'pages-again',
						phase: 'live' as const,
						do: `The pictures of the pages are drawn until ${endsOn(settings)}. Set a day before that in your calendar: then let Yphos draw them from that day on, and bring the new set here.`,
						expect: 'Until then each page says what is of the day; after it only what holds on any day.',
						reading: 'day of the next drawing'
					}
				]
			: []),
		...(settings.shownBy === 'pictures'
			? []
			: [
					{
						id: 'pages-log',
						phase: 'live' as const,
						do: 'What was really shown, and when, the endpoint writes down. Keep it as a file, and let Yphos count it: yphos played FILE.',
						command: `journalctl -u ${PLAYER_UNIT} -o cat --grep yphos-page > played.txt`
					}
				]),
		...runOut.map(({ title, date }): Step => ({
			id: `pages-until-${title}`,
			phase: 'live',
			do: `\u201c${title}\u201d goes along and ends on ${date}. Put the next one in its place before, and write the card set anew.`,
			reading: 'date of the new one'
		})),
		{
			id: 'pages-public',
			phase: 'live',
			do: 'Before others see it: may you show it? Pictures, films and music need leave for showing in public, names and faces the consent of those whose they are.',
			expect:
				'You know from whom you have what is shown. The law of your country decides; its collecting societies and data protection office answer questions.'
		}
	];
}
