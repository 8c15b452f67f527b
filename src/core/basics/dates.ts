import { z } from 'zod';
import { daysInMonth } from './calendar';

/** A day that the calendar has, as ISO 8601 writes it. */
export const dateText = z
	.string()
	.regex(/^\d{4}-\d{2}-\d{2}$/, 'A date, such as 2027-04-01.')
	.refine((text) => {
		const [year, month, day] = text.split('-').map(Number) as [number, number, number];
		return year >= 1970 && month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(year, month);
	}, 'The calendar has no such day.');

/** A day of every year: month and day. */
const dayOfYear = z
	.string()
	.regex(/^\d{2}-\d{2}$/, 'Month and day, such as 04-01.')
	.refine((text) => {
		const [month, day] = text.split('-').map(Number) as [number, number];
		// A leap year has every day that any year has.
		return month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(2028, month);
	}, 'The calendar has no such day.');

/** A part of every year, first and last day within it; it may pass the turn of the year. */
export const seasonSchema = z.object({ from: dayOfYear, until: dayOfYear });
/** The same, as a type. */
export type Season = z.infer<typeof seasonSchema>;
