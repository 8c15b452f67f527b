import type { Fields } from '../../manifest';
import type { NoticesSettings } from './settings';

export default {
	pages: { label: 'Pages', words: 'notices zones signage board tides menu timetable welcome' },
	feeds: { label: 'Feeds', words: 'csv ical rss atom json weather tides' },
	units: { label: 'Units of weather', words: 'celsius fahrenheit metric imperial' },
	language: { label: 'Language of days and months', words: 'locale' },
	fonts: { label: 'Typefaces for other scripts', words: 'fonts glyphs chinese japanese korean thai hindi emoji' },
	fadeMs: { label: 'From one to the next', words: 'fade transition crossfade dissolve' },
	shownBy: { label: 'Shown by', words: 'browser pictures png kiosk small board' },
	picturesFrom: { label: 'Drawn from', words: 'pictures date first day' },
	picturesDays: { label: 'Drawn for', words: 'pictures how long' },
	showByPhone: { label: 'Pages at once, by phone', words: 'override now remote' },
	fetchEveryMin: { label: 'Feeds are fetched every', words: 'refresh interval' }
} satisfies Fields<NoticesSettings>;
