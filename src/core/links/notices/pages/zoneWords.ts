import type { Shows } from '../settings';

/** What a zone shows, in words. */
export const SHOWS_WORDS: Readonly<Record<Shows, string>> = {
	text: 'Text',
	clock: 'Clock',
	date: 'Date',
	hours: 'Opening hours',
	table: 'Table',
	curve: 'Curve of a table',
	calendar: 'Calendar',
	weather: 'Weather',
	news: 'News line',
	picture: 'Picture',
	photographs: 'Photographs in turn',
	film: 'Film',
	code: 'Code to scan'
};
