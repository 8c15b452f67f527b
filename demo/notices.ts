import { newZone, type NoticesSettings } from '../src/core/links/notices/settings';
import { calendarFeed, ferryTable, newsFeed, tideTable } from './feeds';

const TIDES_FROM = Date.UTC(2026, 10, 20);

/** The ticket hatch: pages for who queues. The ferry's table is set too small to be read from the queue: that is its mistake. */
export const HATCH_NOTICES: NoticesSettings = {
	used: true,
	fadeMs: 0,
	shownBy: 'browser',
	fonts: [],
	picturesFrom: '',
	picturesDays: 60,
	grid: { columns: 12, rows: 20 },
	pages: [
		{
			id: 'page-tides',
			title: 'Tides and times',
			forSec: 20,
			zones: [
				newZone('clock', 'clock', { x: 0, y: 0, w: 6, h: 3 }, { textPx: 150 }),
				newZone('date', 'date', { x: 6, y: 0, w: 6, h: 3 }, { textPx: 66, align: 'centre' }),
				newZone(
					'tides',
					'curve',
					{ x: 0, y: 3, w: 12, h: 5 },
					{ title: 'Water at the quay', textPx: 66, feed: 'tides' }
				),
				newZone('hours', 'hours', { x: 0, y: 8, w: 12, h: 4 }, { title: 'Museum', textPx: 66, rows: 2 }),
				newZone(
					'ferry',
					'table',
					{ x: 0, y: 12, w: 12, h: 5 },
					{
						title: 'Ferry',
						textPx: 40,
						feed: 'ferry',
						columns: ['Leaves', 'For'],
						rows: 3,
						whenOld: 'words',
						words: 'Ferry: ask at the hatch.'
					}
				),
				newZone('news', 'news', { x: 0, y: 17, w: 12, h: 3 }, { textPx: 66, feed: 'news', rows: 3, whenOld: 'hide' })
			]
		},
		{
			id: 'page-tickets',
			title: 'Tickets',
			forSec: 15,
			zones: [
				newZone(
					'prices',
					'table',
					{ x: 0, y: 0, w: 12, h: 7 },
					{ title: 'Tickets', textPx: 72, feed: 'prices', rows: 5 }
				),
				newZone(
					'words',
					'text',
					{ x: 0, y: 7, w: 12, h: 6 },
					{ textPx: 68, text: '# Mind the steps\nThere are **144** to the lamp.\n- No lift\n- Hold the rail' }
				),
				newZone('code', 'code', { x: 2, y: 13, w: 8, h: 7 }, { code: 'https://skerrin.example/t' })
			]
		},
		{
			id: 'page-tour',
			title: 'Guided tour',
			forSec: 15,
			zones: [
				newZone('head', 'text', { x: 0, y: 0, w: 12, h: 4 }, { textPx: 76, align: 'centre', text: '# Guided tour' }),
				newZone('next', 'calendar', { x: 0, y: 4, w: 12, h: 9 }, { title: 'Next', textPx: 68, feed: 'tours', rows: 2 }),
				newZone('steps', 'picture', { x: 0, y: 13, w: 12, h: 7 }, { entries: ['s3'], fit: 'whole' })
			]
		}
	],
	feeds: [
		{ id: 'tides', kind: 'table', title: 'Tides', address: '', text: tideTable(TIDES_FROM, 21) },
		{
			id: 'ferry',
			kind: 'table',
			title: 'Ferry',
			address: 'http://harbour.example/feeds/ferry.csv',
			text: ferryTable()
		},
		{
			id: 'prices',
			kind: 'table',
			title: 'Prices',
			address: '',
			text: 'Ticket,Price\nGrown-ups,9.00\nUp to 16,4.50\nWith the lamp,12.00\n'
		},
		{
			id: 'news',
			kind: 'news',
			title: 'Harbour news',
			address: 'http://harbour.example/feeds/news.xml',
			text: newsFeed(TIDES_FROM)
		},
		{ id: 'tours', kind: 'calendar', title: 'Tours', address: '', text: calendarFeed() }
	],
	fetchEveryMin: 15,
	units: 'metric',
	showByPhone: true,
	language: 'en-GB'
};
