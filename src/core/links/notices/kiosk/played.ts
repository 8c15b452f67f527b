import { csvCell } from '../../../basics/csv';
import { fault, ok, type Result } from '../../../basics/result';
import { linesOf } from '../../../formats/lines';

/** One thing that a page has shown, and for how long; null: the log ends with it. */
export interface Played {
	readonly at: string;
	readonly id: string;
	readonly title: string;
	readonly rule: string;
	readonly forMs: number | null;
}

/** A year of pages that change every ten seconds. */
const MOST_LINES = 4_000_000;
/** It says at least each minute that it is alive: after a longer silence it was not. */
const SILENT_MS = 90_000;
const SHOWS = /yphos-page shows (\d{4}-\d{2}-\d{2}T[\d:.]+Z) (\[[^\n]{2,2000}\])/;
/** What it was to show and could not open. */
const LACKS = /yphos-page lacks \d/;
const ALIVE = /yphos-page alive (\d{4}-\d{2}-\d{2}T[\d:.]+Z)/;

/**
 * What the player page wrote down, from the service's log as journalctl gives it; lines of others are passed over. Faults: `played-long`,
 * `played-none`.
 */
export function readPlayed(text: string): Result<Played[]> {
	const lines = linesOf(text);
	if (lines.length > MOST_LINES)
		return fault('played-long', 'The log has too many lines. Ask for a shorter span: --since.');
	const out: {
		at: string;
		id: string;
		title: string;
		rule: string;
		ms: number;
		lastMs: number;
		forMs: number | null;
	}[] = [];
	for (const line of lines) {
		const alive = ALIVE.exec(line)?.[1];
		if (alive !== undefined) {
			const last = out.at(-1);
			const ms = Date.parse(alive);
			if (last && ms >= last.lastMs && ms - last.lastMs < SILENT_MS) last.lastMs = ms;
			continue;
		}
		if (LACKS.test(line)) {
			out.pop();
			continue;
		}
		const [, at = '', said = ''] = SHOWS.exec(line) ?? [];
		const ms = Date.parse(at);
		const values = wordsOf(said);
		if (!values || Number.isNaN(ms)) continue;
		const last = out.at(-1);
		// Where it was silent for long, it was shown no longer than it said.
		if (last) last.forMs = Math.max(0, ms - last.lastMs < SILENT_MS ? ms - last.ms : last.lastMs - last.ms);
		out.push({ at, id: values[0], title: values[1], rule: values[2], ms, lastMs: ms, forMs: null });
	}
	return out.length
		? ok(out.map(({ at, id, title, rule, forMs }) => ({ at, id, title, rule, forMs })))
		: fault('played-none', 'No line of a page is in it. Make it with journalctl as the run sheet says.');
}

function wordsOf(json: string): [string, string, string] | null {
	try {
		const value: unknown = JSON.parse(json);
		return Array.isArray(value) && value.length === 3 && value.every((word) => typeof word === 'string')
			? (value as [string, string, string])
			: null;
	} catch {
		return null;
	}
}

const csv = (rows: readonly (readonly string[])[]): string =>
	rows.map((row) => `${row.map(csvCell).join(',')}\n`).join('');

/** Each showing, one a row. */
export const playedCsv = (played: readonly Played[]): string =>
	csv([
		['at', 'item', 'title', 'rule', 'seconds'],
		...played.map(({ at, id, title, rule, forMs }) => [
			at,
			id,
			title,
			rule,
			forMs === null ? '' : (forMs / 1000).toFixed(1)
		])
	]);

/** By item how often and how long it was shown, the longest first. */
export function countPlayed(played: readonly Played[]): string {
	const sums = new Map<string, { title: string; times: number; ms: number }>();
	for (const { id, title, forMs } of played) {
		const known = sums.get(id) ?? { title, times: 0, ms: 0 };
		sums.set(id, { title, times: known.times + 1, ms: known.ms + (forMs ?? 0) });
	}
	return csv([
		['item', 'title', 'times', 'seconds'],
		...[...sums]
			.sort(([, a], [, b]) => b.ms - a.ms)
			.map(([id, { title, times, ms }]) => [id, title || 'nothing', String(times), (ms / 1000).toFixed(1)])
	]);
}
