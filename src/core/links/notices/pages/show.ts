import { z } from 'zod';
import { MEDIA_DIR } from '../../../files/cardFile';
import { placesIn } from '../../../files/mediaPlace';
import type { Context } from '../../../link/context';
import { venueSchema } from '../../../plan/venue';
import { FEED_KINDS } from '../feeds/schema';
import { programmeBook } from '../../../onAir/book';
import { itemsOf } from '../../../onAir/items';
import { FEEDS_DIR } from '../places';
import { noticeScreen } from './screen';
import { noticesSettings, pageSchema, type NoticesSettings } from '../settings';
import { noticeTheme } from '../../../standards/pageTheme';

const lineMoment = z.object({ by: z.enum(['clock', 'rise', 'set']), min: z.number() });
const numbers = z.array(z.number());
/** Rules as `../programme/onAir.ts` follows them. */
const book = z.object({
	lines: z.array(
		z.object({
			rule: z.string(),
			title: z.string(),
			show: z.string(),
			days: numbers.nullable(),
			nth: z.number(),
			weekParity: z.union([z.literal(0), z.literal(1)]).nullable(),
			seasons: z.array(z.object({ from: z.number(), until: z.number() })),
			validFrom: z.number(),
			validUntil: z.number(),
			only: numbers.nullable(),
			never: numbers,
			from: lineMoment,
			until: lineMoment,
			everyMin: z.number(),
			forMin: z.number(),
			quieterDb: z.number()
		})
	),
	otherwise: z.string(),
	zone: z.string(),
	sun: z.array(z.object({ monthDay: z.number(), riseMin: z.number(), setMin: z.number() })),
	shuffled: z.boolean().optional()
});

/** All that the player page needs, in one piece: it stands in its index.html. */
export const showSchema = z.object({
	version: z.literal(1),
	title: z.string(),
	language: noticesSettings.shape.language,
	units: noticesSettings.shape.units,
	/** The upright screen, px. */
	screen: z.object({
		widthPx: z.number(),
		heightPx: z.number(),
		edges: z.object({ left: z.number(), right: z.number(), top: z.number(), bottom: z.number() })
	}),
	/** Somebody with a phone may show a page at once: it looks for such a wish. */
	byHand: z.boolean(),
	/** From one to the next it takes so long. */
	fadeMs: z.number(),
	/** What stands still is moved about a little, so that it does not wear into the panel. */
	shifts: z.boolean(),
	theme: noticeTheme,
	grid: noticesSettings.shape.grid,
	pages: z.array(pageSchema),
	/** `path`: where the endpoint keeps what it has fetched; "": the text goes along. */
	feeds: z.array(
		z.object({ id: z.string(), title: z.string(), kind: z.enum(FEED_KINDS), text: z.string(), path: z.string() })
	),
	venue: venueSchema.pick({ timeZone: true, opening: true, closedOnHolidays: true, holidays: true }),
	book,
	/** By list what it plays, in order. */
	lists: z.record(
		z.string(),
		z.array(
			z.object({
				id: z.string(),
				title: z.string(),
				kind: z.enum(['page', 'still', 'film', 'sound', 'stream']),
				lastsMs: z.number().nullable(),
				fromMs: z.number(),
				quieterDb: z.number(),
				days: z.object({ from: z.number(), until: z.number() }).nullable()
			})
		)
	),
	/** By entry where its file lies, from the page on. */
	media: z.record(z.string(), z.string())
});
/** The same, as a type. */
export type Show = z.infer<typeof showSchema>;

/** From the page to a file on the endpoint: beside it where the card set brings it, so that the folder works anywhere. */
function fromPage(path: string): string {
	const escaped = path.split('/').map(encodeURIComponent).join('/');
	return path.startsWith(`${MEDIA_DIR}/`) ? `..${escaped.slice('/opt/yphos'.length)}` : `file://${escaped}`;
}

/** The programme of an endpoint as its page follows it. */
export function showOf(settings: NoticesSettings, context: Context): Show {
	const { facts, venue } = context;
	const screen = noticeScreen(context);
	const entries = facts.entries ?? [];
	const placeOf = placesIn(entries);
	const shows = ['all', ...(facts.programme?.lists ?? []).map(({ id }) => id)];
	return {
		version: 1,
		title: facts.endpointName,
		language: settings.language,
		units: settings.units,
		screen: {
			widthPx: screen?.widthPx ?? 1920,
			heightPx: screen?.heightPx ?? 1080,
			edges: screen?.edges ?? { left: 0, right: 0, top: 0, bottom: 0 }
		},
		byHand: settings.showByPhone,
		fadeMs: settings.fadeMs,
		shifts: facts.picture?.shifts ?? false,
		theme: venue.noticeTheme,
		grid: settings.grid,
		pages: settings.pages,
		feeds: settings.feeds.map(({ id, title, kind, text, address }) => ({
			id,
			title,
			kind,
			text,
			path: address ? `${FEEDS_DIR}/${id}` : ''
		})),
		venue: {
			timeZone: venue.timeZone,
			opening: venue.opening,
			closedOnHolidays: venue.closedOnHolidays,
			holidays: venue.holidays
		},
		book: facts.programme
			? (programmeBook(facts.programme, venue) as Show['book'])
			: { lines: [], otherwise: 'off', zone: venue.timeZone, sun: [] },
		lists: Object.fromEntries(
			shows.map((show) => [
				show,
				facts.programme
					? itemsOf(show, facts.programme, context)
							.filter(({ kind }) => kind !== 'stream')
							.map(({ id, title, kind, lastsMs, days, part }) => ({
								id,
								title,
								kind,
								lastsMs,
								fromMs: 1000 * (part?.fromSec ?? 0),
								quieterDb: part?.quieterDb ?? 0,
								days: days ?? null
							}))
					: []
			])
		),
		media: Object.fromEntries(entries.map(({ id, location }) => [id, fromPage(placeOf(location).inPlaylist)]))
	};
}
