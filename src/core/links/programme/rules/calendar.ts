import ICAL from 'ical.js';
import { resolve, type Rulebook } from '../../../onAir/onAir';
import { becauseWords, nothingPlays } from './whatsOn';

/** An endpoint's programme, and what it shows in words. */
export interface Shown {
	readonly id: string;
	readonly name: string;
	readonly book: Rulebook;
	words(show: string): string;
}

/**
 * What is on, as a calendar for people: an event for each stretch, in UTC, so that it needs no description of a time zone.
 * Source: RFC 5545, 3.6.1.
 */
export function calendarOf(shown: readonly Shown[], fromUtcMs: number, untilUtcMs: number, stampUtcMs: number): string {
	const calendar = new ICAL.Component(['vcalendar', [], []]);
	calendar.updatePropertyWithValue('version', '2.0');
	calendar.updatePropertyWithValue('prodid', '-//Yphos//Programme//EN');
	const time = (utcMs: number): ICAL.Time => ICAL.Time.fromJSDate(new Date(utcMs), true);
	for (const { id, name, book, words } of shown)
		for (const on of resolve(book, fromUtcMs, untilUtcMs)) {
			// Neither quiet nor nothing is an event for anybody.
			if (nothingPlays(on.show)) continue;
			const event = new ICAL.Component('vevent');
			// The same stretch of the same endpoint keeps its name, so that a calendar that is brought in again is not doubled.
			event.updatePropertyWithValue('uid', `${id}-${on.fromUtcMs}@yphos.invalid`);
			event.updatePropertyWithValue('dtstamp', time(stampUtcMs));
			event.updatePropertyWithValue('dtstart', time(on.fromUtcMs));
			event.updatePropertyWithValue('dtend', time(on.untilUtcMs));
			event.updatePropertyWithValue('summary', `${name}: ${words(on.show)}`);
			event.updatePropertyWithValue('description', becauseWords(on, book));
			calendar.addSubcomponent(event);
		}
	return `${calendar.toString()}\r\n`;
}
