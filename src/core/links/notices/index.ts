/**
 * The notices: pages made of zones, shown by a browser under a compositor of its own, by the programme's rules. Start at `settings.ts`,
 * `content.ts` (what a zone shows at an instant) and `show.ts` (what goes on the card); the page itself is `src/player`.
 */
import { entryClaims } from '../../basics/entries';
import type { Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import type { Link } from '../../link';
import { aliveClaims } from './kiosk/aliveClaims';
import { NOTICES_FAULTS } from './faults';
import { fetchClaims, fetchedFeeds } from './feeds/fetchClaims';
import { kioskClaims } from './kiosk/kiosk';
import { pictureClaims } from './drawn/pictureClaims';
import { shownAt } from './places';
import { CALM_NOTICES, GRIDS, noticesSettings, type NoticesSettings } from './settings';
import './offers';

const claims = (settings: NoticesSettings, context: Context): Claim[] => [
	...(settings.shownBy === 'pictures'
		? pictureClaims(settings)
		: [...kioskClaims(settings, context), ...aliveClaims(), ...fetchClaims(settings)]),
	// How large it is, the picture link says itself; a still that is drawn takes nothing of a decoder.
	{
		on: 'picture',
		from: 'notices',
		what: 'pages',
		shape: { codec: 'page', ...NO_SIZE, framesPerSec: null, bitDepth: 8 }
	},
	...entryClaims(
		'notices',
		'notices',
		settings.pages.map(
			({ title, id, forSec }) => ['notices.pages', 'Page', `${title || id}, ${forSec}\u2009s`] as const
		)
	)
];
const NO_SIZE = { widthPx: 1, heightPx: 1 };

const many = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

function figures(settings: NoticesSettings): Figure[] {
	const { pages, feeds, shownBy } = settings;
	const fetched = shownBy === 'pictures' ? 0 : fetchedFeeds(settings).length;
	return [
		{
			id: 'pages',
			setting: 'notices.pages',
			label: 'Pages',
			text: `${pages.length ? many(pages.length, 'page') : 'no page yet'}${shownBy === 'pictures' ? ', drawn' : ''}`,
			value: pages.length,
			sure: 'exact',
			from: 'The pages as they stand.',
			telling: true
		},
		{
			id: 'round',
			setting: 'notices.pages',
			label: 'Once round',
			text: `${pages.reduce((sum, { forSec }) => sum + forSec, 0)}\u2009s`,
			value: pages.reduce((sum, { forSec }) => sum + forSec, 0),
			sure: 'exact',
			from: 'Each page for as long as it stands, one after another; playlists of the programme have lengths of their own.'
		},
		{
			id: 'feeds',
			setting: 'notices.feeds',
			label: 'Feeds',
			text: feeds.length ? `${feeds.length - fetched} along, ${fetched} fetched` : 'none',
			value: feeds.length,
			sure: 'exact',
			from: fetched
				? `Fetched every ${settings.fetchEveryMin}\u2009min; the last good one stays when that fails.`
				: 'What goes along stays as it is until the card set is written anew.'
		}
	];
}

/** The link by which pages are shown. */
export const notices: Link<'notices', NoticesSettings> = {
	id: 'notices',
	title: 'Notices',
	settings: noticesSettings,
	version: 4,
	migrations: {
		1: (saved) => ({ showByPhone: false, ...saved }),
		2: (saved) => ({ fadeMs: 0, shownBy: 'browser', picturesFrom: '', picturesDays: 60, ...saved }),
		3: (saved) => ({ fonts: [], ...saved })
	},
	empty: ({ kind }) => ({
		...CALM_NOTICES,
		used: kind === 'notices',
		grid: kind === 'notices' ? GRIDS.portrait : GRIDS.landscape
	}),
	use: { is: ({ used }) => used, set: (settings, used) => ({ ...settings, used }) },
	key: 'k',
	place: { column: 'content', row: 2, wires: [{ to: 'programme', carries: 'data' }] },
	publish: ({ pages, showByPhone, shownBy }) => ({
		pages: pages.map(({ id, title, forSec }) => ({
			id,
			title,
			forSec,
			picture: shownBy === 'pictures' ? shownAt(id) : null
		})),
		...(shownBy === 'browser' ? { pageBrowser: true as const } : {}),
		...(showByPhone && shownBy === 'browser' && pages.length
			? { byPhone: pages.map(({ id, title }) => ({ id, title })) }
			: {})
	}),
	faults: NOTICES_FAULTS,
	claims,
	figures
};
