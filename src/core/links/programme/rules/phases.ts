import { dateOf, dayOf, dayFacts } from '../../../basics/calendar';
import { wallClockMs } from '../../../formats/systemd/zone';
import { isOfDay, spanOfDates, type Item } from '../../../onAir/item';
import { resolve, type Rulebook } from '../../../onAir/onAir';
import { startOfDayMs } from '../../../onAir/slices';
import type { ProgrammeList } from '../../../onAir/when';

/** A while in which the same entries of a playlist are on. */
export interface Phase {
	/** Its first day; "": from ever. */
	readonly from: string;
	readonly items: readonly string[];
}

/** The whiles that differ, in order, from before the first day of any entry to after the last; those without any entry are left out. */
export function phasesOf({ items, valid }: Pick<ProgrammeList, 'items' | 'valid'>): Phase[] {
	const asked = valid.filter(({ item }) => items.includes(item));
	const edges = new Set(
		asked.flatMap(({ from, until }) => [...(from ? [from] : []), ...(until ? [dateOf(dayOf(until) + 1)] : [])])
	);
	const spans = new Map(asked.map(({ item, from, until }) => [item, spanOfDates(from, until)]));
	const numberOf = (date: string): number => Number(date.replaceAll('-', ''));
	const out: Phase[] = [];
	for (const from of ['', ...[...edges].sort()]) {
		const on = items.filter((id) => isOfDay({ days: spans.get(id) ?? null }, numberOf(from)));
		if (on.length > 0 && on.join('\n') !== out.at(-1)?.items.join('\n')) out.push({ from, items: on });
	}
	return out;
}

/** A stretch of the programme in which the same entries of one list are on. */
export interface Piece {
	/** The list; with a dot, which no id has, and a number behind it where its entries change by the day. */
	readonly part: string;
	readonly show: string;
	readonly items: readonly Item[];
	readonly fromUtcMs: number;
}

/** What is on within that time, cut where other entries are of the day. */
export function piecesOf(
	book: Rulebook,
	items: (show: string) => readonly Item[],
	fromUtcMs: number,
	untilUtcMs: number
): Piece[] {
	const names = new Map<string, string[]>();
	const dayAt = (utcMs: number): number => Math.floor(wallClockMs(book.zone, utcMs) / DAY_MS);
	return resolve(book, fromUtcMs, untilUtcMs).flatMap((stretch): Piece[] => {
		const { show } = stretch;
		const all = items(show);
		if (!all.some(({ days }) => days)) return [{ part: show, show, items: all, fromUtcMs: stretch.fromUtcMs }];
		const known = names.get(show) ?? [];
		names.set(show, known);
		const out: Piece[] = [];
		const last = dayAt(stretch.untilUtcMs - 1);
		for (let day = dayAt(stretch.fromUtcMs); day <= last; day++) {
			const on = all.filter((item) => isOfDay(item, dayFacts(day).ymd));
			const key = on.map(({ id }) => id).join('\n');
			if (!known.includes(key)) known.push(key);
			const part = `${show}.${known.indexOf(key) + 1}`;
			if (out.at(-1)?.part !== part)
				out.push({ part, show, items: on, fromUtcMs: Math.max(stretch.fromUtcMs, startOfDayMs(book.zone, day)) });
		}
		return out;
	});
}
const DAY_MS = 86_400_000;
