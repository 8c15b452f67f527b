import { freeId } from '../../../basics/text';
import type { Feed } from '../feeds/schema';
import { newZone, type NoticesSettings, type Page, type Zone } from '../settings';

/** What a template adds: a page, and the feeds that it shows. */
interface Made {
	readonly title: string;
	readonly zones: readonly Zone[];
	readonly feeds: readonly Feed[];
}
/** A page to begin with. */
export interface Template {
	readonly id: string;
	readonly title: string;
	/** For what it is. */
	readonly for: string;
	/** `textPx`: text that is read from where people stand. */
	make(grid: NoticesSettings['grid'], textPx: number): Made;
}

type Share = readonly [x: number, y: number, w: number, h: number];
/** A place as twelfths of the page, across and down. */
const at = ({ columns, rows }: NoticesSettings['grid'], [x, y, w, h]: Share): Pick<Zone, 'x' | 'y' | 'w' | 'h'> => {
	const left = Math.round((x * columns) / 12);
	const top = Math.round((y * rows) / 12);
	return {
		x: left,
		y: top,
		w: Math.max(1, Math.round(((x + w) * columns) / 12) - left),
		h: Math.max(1, Math.round(((y + h) * rows) / 12) - top)
	};
};
const feed = (id: string, kind: Feed['kind'], title: string, text: string): Feed => ({
	id,
	kind,
	title,
	address: '',
	text
});

const TIDES = `Time,Height
2026-11-27 05:12,3.4 m
2026-11-27 11:20,0.9 m
2026-11-27 17:38,3.6 m
2026-11-27 23:49,0.7 m
`;
const DEPARTURES = `Time,To,From
08:10,Town,Quay 1
10:40,Island,Quay 2
13:20,Town,Quay 1
17:20,Island,Quay 2
`;
const MENU = `Dish,Price
Soup of the day,6.50
Bread and cheese,8.00
Coffee,3.00
Cake,4.00
`;
const ROOMS = `BEGIN:VCALENDAR
VERSION:2.0
PRODID:-//Yphos//Sample//EN
BEGIN:VEVENT
UID:one
DTSTART:20261201T090000
DTEND:20261201T103000
RRULE:FREQ=WEEKLY;BYDAY=TU,TH
SUMMARY:Committee
LOCATION:Upper room
END:VEVENT
BEGIN:VEVENT
UID:two
DTSTART:20261202T140000
DTEND:20261202T160000
RRULE:FREQ=WEEKLY;BYDAY=WE
SUMMARY:Choir practice
LOCATION:Hall
END:VEVENT
END:VCALENDAR
`;

/** Templates of our own for the usual wishes. */
export const TEMPLATES: readonly Template[] = [
	{
		id: 'welcome',
		title: 'Welcome board',
		for: 'A greeting, the hour, and what is on today.',
		make: (grid, textPx) => ({
			title: 'Welcome',
			zones: [
				newZone('clock', 'clock', at(grid, [0, 0, 5, 2]), { textPx: Math.round(textPx * 1.8) }),
				newZone('date', 'date', at(grid, [5, 0, 7, 2]), { textPx, align: 'centre' }),
				newZone('greeting', 'text', at(grid, [0, 2, 12, 6]), {
					textPx: Math.round(textPx * 1.3),
					align: 'centre',
					text: '# Welcome\nWe are glad that you are here.'
				}),
				newZone('hours', 'hours', at(grid, [0, 8, 12, 4]), { title: 'Open', textPx, rows: 2 })
			],
			feeds: []
		})
	},
	{
		id: 'tides',
		title: 'Opening hours and tides',
		for: 'The water as a curve, hours of the week beside it.',
		make: (grid, textPx) => ({
			title: 'Tides and times',
			zones: [
				newZone('clock', 'clock', at(grid, [0, 0, 6, 2]), { textPx: Math.round(textPx * 1.8) }),
				newZone('date', 'date', at(grid, [6, 0, 6, 2]), { textPx, align: 'centre' }),
				newZone('tides', 'curve', at(grid, [0, 2, 12, 5]), { title: 'Tides', textPx, feed: 'tides' }),
				newZone('hours', 'hours', at(grid, [0, 7, 12, 5]), { title: 'Open', textPx, rows: 4 })
			],
			feeds: [feed('tides', 'table', 'Tides', TIDES)]
		})
	},
	{
		id: 'menu',
		title: 'Menu',
		for: 'Dishes and prices from a table.',
		make: (grid, textPx) => ({
			title: 'Menu',
			zones: [
				newZone('head', 'text', at(grid, [0, 0, 12, 2]), {
					textPx: Math.round(textPx * 1.2),
					align: 'centre',
					text: '# Today'
				}),
				newZone('menu', 'table', at(grid, [0, 2, 12, 8]), { textPx, feed: 'menu', rows: 8 }),
				newZone('note', 'text', at(grid, [0, 10, 12, 2]), { textPx, text: 'Ask us about *allergens*.' })
			],
			feeds: [feed('menu', 'table', 'Menu', MENU)]
		})
	},
	{
		id: 'timetable',
		title: 'Timetable',
		for: 'What leaves next; what is over goes by itself.',
		make: (grid, textPx) => ({
			title: 'Departures',
			zones: [
				newZone('clock', 'clock', at(grid, [0, 0, 12, 2]), { textPx: Math.round(textPx * 1.8), align: 'centre' }),
				newZone('next', 'table', at(grid, [0, 2, 12, 8]), { title: 'Next', textPx, feed: 'departures', rows: 5 }),
				newZone('note', 'text', at(grid, [0, 10, 12, 2]), { textPx, text: 'Be there **ten minutes** before.' })
			],
			feeds: [feed('departures', 'table', 'Departures', DEPARTURES)]
		})
	},
	{
		id: 'photographs',
		title: 'Photographs with a clock',
		for: 'Pictures of the sources in turn, the hour below.',
		make: (grid, textPx) => ({
			title: 'Photographs',
			zones: [
				newZone('photographs', 'photographs', at(grid, [0, 0, 12, 10]), { fit: 'fill' }),
				newZone('clock', 'clock', at(grid, [0, 10, 6, 2]), { textPx: Math.round(textPx * 1.4) }),
				newZone('date', 'date', at(grid, [6, 10, 6, 2]), { textPx, align: 'centre' })
			],
			feeds: []
		})
	},
	{
		id: 'rooms',
		title: 'Rooms from a calendar',
		for: 'What happens where, from an iCalendar file or address.',
		make: (grid, textPx) => ({
			title: 'Rooms',
			zones: [
				newZone('date', 'date', at(grid, [0, 0, 12, 2]), { textPx: Math.round(textPx * 1.2), align: 'centre' }),
				newZone('rooms', 'calendar', at(grid, [0, 2, 12, 8]), {
					title: 'Today and next',
					textPx,
					feed: 'rooms',
					rows: 4
				}),
				newZone('note', 'text', at(grid, [0, 10, 12, 2]), { textPx, text: 'Rooms are booked at the desk.' })
			],
			feeds: [feed('rooms', 'calendar', 'Rooms', ROOMS)]
		})
	}
];

/** The settings with a template's page at the end; feeds of the same id and kind are taken as they are, others get a free id. */
export function withTemplate(
	settings: NoticesSettings,
	template: Template,
	textPx: number
): { settings: NoticesSettings; id: string } {
	const { title, zones, feeds } = template.make(settings.grid, textPx);
	const id = freeId(`page-${template.id}`, new Set(settings.pages.map((page) => page.id)));
	const taken = new Set(settings.feeds.map((one) => one.id));
	const renamed = new Map<string, string>();
	const added = feeds.flatMap((one) => {
		if (settings.feeds.some((known) => known.id === one.id && known.kind === one.kind)) return [];
		const free = freeId(one.id, taken);
		taken.add(free);
		renamed.set(one.id, free);
		return [{ ...one, id: free }];
	});
	const page: Page = {
		id,
		title,
		forSec: 15,
		zones: zones.map((zone) => ({ ...zone, feed: renamed.get(zone.feed) ?? zone.feed }))
	};
	return { settings: { ...settings, pages: [...settings.pages, page], feeds: [...settings.feeds, ...added] }, id };
}
