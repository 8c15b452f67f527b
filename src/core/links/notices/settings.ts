import { z } from 'zod';
import { dateText } from '../../basics/dates';
import { idText, lineText, uniqueList } from '../../basics/text';
import { TYPEFACE_PACKAGES } from '../../standards/typefaces';
import { feedSchema, type FeedKind } from './feeds/schema';

/** What a zone can show. */
export const SHOWS = [
	'text',
	'clock',
	'date',
	'hours',
	'table',
	'curve',
	'calendar',
	'weather',
	'news',
	'picture',
	'photographs',
	'film',
	'code'
] as const;
/** One of them. */
export type Shows = (typeof SHOWS)[number];

/** Text of several lines, without other control characters. */
const linesText = (most: number) =>
	z
		.string()
		.max(most, `At most ${most} characters.`)
		.regex(
			/^[^\u0000-\u0009\u000b-\u001f\u007f\u0085\u2028\u2029\ufffe\uffff]*$/u,
			'Control characters are not possible here.'
		)
		.refine(
			(text) => !/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/.test(text),
			'Half of a character is in it. Type it again.'
		);

const cell = z.number().int().min(0).max(47);
const span = z.number().int().min(1).max(48);

/** Letters of a zone are at most so large, px. */
export const MOST_TEXT_PX = 1000;

/** The schema of a zone: a rectangle of the page's grid, and what stands in it. */
export const zoneSchema = z.object({
	id: idText,
	x: cell,
	y: cell,
	w: span,
	h: span,
	shows: z.enum(SHOWS),
	/** Above it, in the accent colour; "": none. */
	title: lineText(80),
	/** Size of its text in pixels of the screen's mode. */
	textPx: z.number().int().min(8).max(MOST_TEXT_PX),
	align: z.enum(['start', 'centre']),
	/** Of what is typed: # heading, - item, **bold**, *italic*. */
	text: linesText(2000),
	/** From which feed; "": none. */
	feed: z.union([z.literal(''), idText]),
	/** Ids of the sources' entries: a picture, a film, photographs in turn. */
	entries: z.array(idText).max(200),
	/** fill: cut to fill the zone; whole: all of it is seen. */
	fit: z.enum(['fill', 'whole']),
	clock: z.enum(['24', '12']),
	/** At most so many rows, events, days or headlines. */
	rows: z.number().int().min(1).max(40),
	/** Names of columns, in order; none: all. Of a curve: when, and how high. */
	columns: z.array(lineText(80)).max(8),
	/** Rows whose time is over are left out. */
	fromNow: z.boolean(),
	/** Photographs and headlines change so often, s. */
	changeSec: z.number().int().min(2).max(3600),
	/** The code to scan says this. */
	code: lineText(300),
	/** A feed that was fetched longer ago than this is old, h. */
	oldAfterH: z.number().min(0.1).max(8760),
	/** What is shown then, and where the feed is empty or cannot be read. */
	whenOld: z.enum(['beside', 'hide', 'words']),
	words: lineText(200)
});
/** A zone of a page. */
export type Zone = z.infer<typeof zoneSchema>;

/** A page stands for a day at most. */
export const LONGEST_SEC = 86_400;

/** The schema of a page. Its id begins with "page-", so that none is taken for an entry of the sources. */
export const pageSchema = z.object({
	id: z.string().regex(/^page-[A-Za-z0-9_-]{1,74}$/, 'A page\u2019s id begins with page-.'),
	title: lineText(80),
	/** How long it stands before the next entry of its playlist, s. */
	forSec: z.number().int().min(2).max(LONGEST_SEC),
	zones: uniqueList(zoneSchema, 24, ({ id }) => id, 'Another zone has the same id.')
});
/** A page. */
export type Page = z.infer<typeof pageSchema>;

/** The schema of the notices' slice of a plan. */
export const noticesSettings = z.object({
	/** Off: no pages are shown. */
	used: z.boolean(),
	/** Columns and rows of every page. */
	grid: z.object({ columns: z.number().int().min(4).max(48), rows: z.number().int().min(4).max(48) }),
	pages: uniqueList(pageSchema, 40, ({ id }) => id, 'Another page has the same id.'),
	feeds: uniqueList(feedSchema, 20, ({ id }) => id, 'Another feed has the same id.'),
	/** Feeds with an address are fetched so often, min. */
	fetchEveryMin: z.number().int().min(1).max(1440),
	units: z.enum(['metric', 'imperial']),
	/** Weekdays and months are named in it. Source: BCP 47. */
	language: z.string().max(35).refine(isLanguage, 'A language is written as en-GB or nb-NO.'),
	/** Typefaces for scripts that the system as it comes cannot draw. */
	fonts: uniqueList(z.enum(TYPEFACE_PACKAGES), 3, (name) => name, 'It is there twice.'),
	/** Somebody with a phone may show a page at once. */
	showByPhone: z.boolean(),
	/** From one to the next it takes so long, ms; 0: at once. */
	fadeMs: z.number().int().min(0).max(3000),
	/** browser: the pages themselves, live. pictures: drawn when the card set is written, and shown by the player; for small boards. */
	shownBy: z.enum(['browser', 'pictures']),
	/** Pictures are drawn from this day on; "": not said yet. */
	picturesFrom: z.union([z.literal(''), dateText]),
	/** For so many days. */
	picturesDays: z.number().int().min(1).max(366)
});
/** The notices' slice of a plan. */
export type NoticesSettings = z.infer<typeof noticesSettings>;

function isLanguage(text: string): boolean {
	try {
		return Intl.getCanonicalLocales(text)[0] === text;
	} catch {
		return false;
	}
}

/** Pictures and films without a title reach to the zone's edge. */
export const isBare = ({ shows, title }: Pick<Zone, 'shows' | 'title'>): boolean =>
	title === '' && (shows === 'picture' || shows === 'film' || shows === 'photographs');

/** The kind of feed that a zone needs; absent: none. */
export const FEED_OF: Partial<Readonly<Record<Shows, FeedKind>>> = {
	table: 'table',
	curve: 'table',
	calendar: 'calendar',
	news: 'news',
	weather: 'weather'
};

/** Grids to begin with, by the screen's shape: cells that are nearly square. */
export const GRIDS = { portrait: { columns: 12, rows: 20 }, landscape: { columns: 20, rows: 12 } } as const;

/** What a new zone begins with. */
export const newZone = (
	id: string,
	shows: Shows,
	place: Pick<Zone, 'x' | 'y' | 'w' | 'h'>,
	more: Partial<Zone> = {}
): Zone => ({
	id,
	...place,
	shows,
	title: '',
	textPx: 48,
	align: 'start',
	text: '',
	feed: '',
	entries: [],
	fit: 'fill',
	clock: '24',
	rows: 6,
	columns: [],
	fromNow: true,
	changeSec: 10,
	code: '',
	oldAfterH: 24,
	whenOld: 'beside',
	words: '',
	...more
});

/** What a new plan begins with. */
export const CALM_NOTICES: NoticesSettings = {
	used: false,
	grid: GRIDS.landscape,
	pages: [],
	feeds: [],
	fetchEveryMin: 15,
	units: 'metric',
	language: 'en-GB',
	fonts: [],
	showByPhone: false,
	fadeMs: 0,
	shownBy: 'browser',
	picturesFrom: '',
	picturesDays: 60
};
