import Papa from 'papaparse';
import { dayOf, dateOf } from '../../../basics/calendar';
import { fault, ok, type Result } from '../../../basics/result';
import { LONGEST_FEED } from './schema';

/** A table: the names of its columns, and its rows, as long as these. */
export interface Table {
	readonly columns: readonly string[];
	readonly rows: readonly (readonly string[])[];
}

const MOST_ROWS = 5000;
const MOST_COLUMNS = 30;

/**
 * A table from CSV: separated by comma, semicolon or tab, its first row names the columns. Faults: `table-long`, `table-quote` (with
 * its line), `table-empty`. Source: RFC 4180.
 */
export function readTable(text: string): Result<Table> {
	if (text.length > LONGEST_FEED)
		return fault('table-long', `The table has more than ${LONGEST_FEED / 1000}\u2009000 characters. Shorten it.`);
	const { data, errors } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), {
		delimitersToGuess: [',', ';', '\t'],
		skipEmptyLines: 'greedy',
		preview: MOST_ROWS + 1
	});
	const quote = errors.find(({ type }) => type === 'Quotes');
	if (quote)
		return fault(
			'table-quote',
			'A quotation mark is opened and not closed as CSV wants it. Close it, or double it within the text.',
			`row ${(quote.row ?? 0) + 1}`
		);
	const [head, ...rows] = data;
	if (!head || rows.length === 0)
		return fault('table-empty', 'The table needs a first row with the names of its columns, and a row below it.');
	const columns = head.slice(0, MOST_COLUMNS).map((name, n) => name.trim() || `Column ${n + 1}`);
	return ok({ columns, rows: rows.map((row) => columns.map((_, n) => (row[n] ?? '').trim())) });
}

/** When a cell is: a wall clock, ms as if it were UTC; `untilMs`: when it is over. */
export interface CellTime {
	readonly wallMs: number;
	readonly overMs: number;
}
const MINUTE_MS = 60_000;
const DAY_MS = 86_400_000;

/** The time that a cell names: "2026-11-27 14:05", "2026-11-27", or "14:05" of that day; null: none. Source: ISO 8601. */
export function timeOfCell(cell: string, today: number): CellTime | null {
	const m = /^(?:(\d{4}-\d{2}-\d{2})(?:[T ]+|$))?(?:([01]?\d|2[0-3])[:.]([0-5]\d)(?::\d\d)?)?$/.exec(cell);
	if (!m || cell === '') return null;
	const [, date, hour, minute] = m;
	const day = date === undefined ? today : dayOf(date);
	if (Number.isNaN(day) || (date !== undefined && dateOf(day) !== date)) return null;
	if (hour === undefined) return { wallMs: day * DAY_MS, overMs: (day + 1) * DAY_MS };
	const wallMs = day * DAY_MS + (Number(hour) * 60 + Number(minute)) * MINUTE_MS;
	return { wallMs, overMs: wallMs + MINUTE_MS };
}

/** A row's time: of its first cell, or of its first two where these are a day and a time. */
export function timeOfRow(row: readonly string[], today: number): CellTime | null {
	const [first = '', second = ''] = row;
	const both = /^\d{4}-\d{2}-\d{2}$/.test(first) ? timeOfCell(`${first} ${second}`, today) : null;
	return both ?? timeOfCell(first, today);
}

const times = new WeakMap<Table, { readonly today: number; readonly of: readonly (CellTime | null)[] }>();
/** The times of all rows, seen from a day; a page looks again and again within one. */
export function timesOf(table: Table, today: number): readonly (CellTime | null)[] {
	let known = times.get(table);
	if (known?.today !== today) times.set(table, (known = { today, of: table.rows.map((row) => timeOfRow(row, today)) }));
	return known.of;
}
