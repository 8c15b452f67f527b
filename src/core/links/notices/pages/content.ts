import { minuteOfTime, dayFacts, dateOf } from '../../../basics/calendar';
import { WEEKDAYS } from '../../../basics/weekdays';
import { wallClockMs } from '../../../formats/systemd/zone';
import { isWithin, spanOf } from '../../../onAir/line';
import type { Venue } from '../../../plan/venue';
import { blocksOf, type Block } from './blocks';
import { comingUp } from '../feeds/agenda';
import { readFeed, type FeedValues } from '../feeds/feed';
import type { FeedKind } from '../feeds/schema';
import { timeOfCell, timesOf, type Table } from '../feeds/table';
import { SKY_WORDS, type Weather } from '../feeds/weather';
import type { NoticesSettings, Zone } from '../settings';

/** A feed as it is at hand. */
export interface FeedState {
	readonly kind: FeedKind;
	readonly title: string;
	readonly text: string;
	/** When it was fetched; null: it goes along and does not age. */
	readonly fetchedUtcMs: number | null;
}
/** All that a zone may look at. */
export interface NoticeWorld {
	readonly nowUtcMs: number;
	readonly venue: Pick<Venue, 'timeZone' | 'opening' | 'closedOnHolidays' | 'holidays'>;
	readonly units: NoticesSettings['units'];
	readonly language: string;
	/** Drawn once, to stand for hours: no clock, no film, nothing in turn, and a curve of the whole day. */
	readonly still?: boolean;
	feed(id: string): FeedState | null;
}

/** A point of a curve by the clock on the wall. */
export interface CurvePoint {
	readonly wallMs: number;
	readonly value: number;
	/** It stands in the table; the others lie between. */
	readonly named: boolean;
}
/** What stands in a zone at an instant. */
export type Content =
	| { readonly kind: 'blocks'; readonly blocks: readonly Block[] }
	/** One line as large as the zone says. */
	| { readonly kind: 'line'; readonly text: string }
	| { readonly kind: 'rows'; readonly heads: readonly string[]; readonly rows: readonly (readonly string[])[] }
	| {
			readonly kind: 'curve';
			readonly points: readonly CurvePoint[];
			/** null: it is drawn for the whole day. */
			readonly nowWallMs: number | null;
			readonly unit: string;
	  }
	| { readonly kind: 'media'; readonly shows: 'picture' | 'film'; readonly entry: string }
	| { readonly kind: 'code'; readonly text: string }
	| { readonly kind: 'nothing' };

/** What a zone shows, and what is to be said of it. */
export interface Shown {
	readonly content: Content;
	/** Below it, small: of an old feed when it was fetched. */
	readonly note: string;
	/** Why it shows less than it should: for whoever plans, never for the public. */
	readonly trouble: { readonly why: 'no-feed' | 'old' | 'empty' | 'wrong' | 'no-entry'; readonly said: string } | null;
}

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;
const MINUTE_MS = 60_000;

const formats = new Map<string, Intl.DateTimeFormat>();
/** A wall clock's reading in words. */
function inWords(language: string, wallMs: number, options: Intl.DateTimeFormatOptions): string {
	const key = `${language} ${JSON.stringify(options)}`;
	let format = formats.get(key);
	if (!format) formats.set(key, (format = new Intl.DateTimeFormat(language, { ...options, timeZone: 'UTC' })));
	return format.format(wallMs);
}
const two = (n: number): string => String(n).padStart(2, '0');
/** "14:05", or "2:05 pm". */
export function clockWords(wallMs: number, clock: Zone['clock'], withMark = true): string {
	const minutes = Math.floor((((wallMs % DAY_MS) + DAY_MS) % DAY_MS) / MINUTE_MS);
	const [hour, minute] = [Math.floor(minutes / 60), minutes % 60];
	if (clock === '24') return `${two(hour)}:${two(minute)}`;
	return `${hour % 12 || 12}:${two(minute)}${withMark ? (hour < 12 ? ' am' : ' pm') : ''}`;
}

const NOTHING: Content = { kind: 'nothing' };
const plain = (content: Content): Shown => ({ content, note: '', trouble: null });

/** What a zone shows at an instant. It never fails: what cannot be read is replaced as the zone says. */
export function shownIn(zone: Zone, world: NoticeWorld): Shown {
	const wallMs = wallClockMs(world.venue.timeZone, world.nowUtcMs);
	switch (zone.shows) {
		case 'text':
			return plain({ kind: 'blocks', blocks: blocksOf(zone.text) });
		case 'clock':
			return plain(world.still ? NOTHING : { kind: 'line', text: clockWords(wallMs, zone.clock) });
		case 'date':
			return plain({
				kind: 'line',
				text: inWords(world.language, wallMs, { weekday: 'long', day: 'numeric', month: 'long' })
			});
		case 'hours':
			return plain(openingRows(zone, world, wallMs));
		case 'code':
			return zone.code ? plain({ kind: 'code', text: zone.code }) : plain(NOTHING);
		case 'film':
			if (world.still) return plain(NOTHING);
			return entryShown(zone, zone.entries[0], 'film');
		case 'picture':
			return entryShown(zone, zone.entries[0], 'picture');
		case 'photographs':
			return entryShown(zone, inTurn(zone.entries, zone.changeSec, world), 'picture');
		case 'table':
			return fromFeed(zone, world, 'table', (table) => tableRows(zone, table, wallMs));
		case 'curve':
			return fromFeed(zone, world, 'table', (table) => curveOf(zone, table, wallMs, world.still ?? false));
		case 'calendar':
			return fromFeed(zone, world, 'calendar', (events) => {
				const coming = comingUp(events, world.nowUtcMs, AHEAD_DAYS, zone.rows);
				const { timeZone } = world.venue;
				const today = Math.floor(wallMs / DAY_MS);
				return coming.length === 0
					? NOTHING
					: {
							kind: 'rows',
							heads: [],
							rows: coming.map(({ title, place, wholeDay, fromUtcMs }) => {
								const from = wallClockMs(timeZone, fromUtcMs);
								const day =
									Math.floor(from / DAY_MS) === today
										? ''
										: inWords(world.language, from, { weekday: 'short', day: 'numeric', month: 'short' });
								const at = wholeDay ? '' : clockWords(from, zone.clock);
								return [[day, at].filter(Boolean).join(' ') || '\u2013', place ? `${title}, ${place}` : title];
							})
						};
			});
		case 'news':
			return fromFeed(zone, world, 'news', (headlines) => {
				const said = inTurn(headlines.slice(0, zone.rows), zone.changeSec, world);
				return said ? { kind: 'line', text: said.title } : NOTHING;
			});
		case 'weather':
			return fromFeed(zone, world, 'weather', (weather) => weatherRows(zone, world, weather, wallMs));
	}
}

/** Calendars are looked through so far ahead. */
const AHEAD_DAYS = 60;

/** By the clock, so that every screen shows the same. */
const inTurn = <T>(of: readonly T[], everySec: number, { still, nowUtcMs }: NoticeWorld): T | undefined =>
	of[still ? 0 : Math.floor(nowUtcMs / 1000 / everySec) % Math.max(1, of.length)];

function entryShown(zone: Zone, entry: string | undefined, shows: 'picture' | 'film'): Shown {
	return entry
		? plain({ kind: 'media', shows, entry })
		: {
				content: NOTHING,
				note: '',
				trouble: { why: 'no-entry', said: `${zone.title || 'The zone'} has nothing to show yet.` }
			};
}

function fromFeed<K extends FeedKind>(
	zone: Zone,
	world: NoticeWorld,
	kind: K,
	make: (value: FeedValues[K]) => Content
): Shown {
	const instead = (why: NonNullable<Shown['trouble']>['why'], said: string): Shown => ({
		content: zone.whenOld === 'words' && zone.words ? { kind: 'blocks', blocks: blocksOf(zone.words) } : NOTHING,
		note: '',
		trouble: { why, said }
	});
	const feed = world.feed(zone.feed);
	if (!feed || feed.kind !== kind) return instead('no-feed', 'It has no feed of its kind.');
	if (feed.text.trim() === '') return instead('empty', `${feed.title || 'The feed'} is empty.`);
	const read = readFeed(kind, feed.text, world.venue.timeZone);
	if ('wrong' in read) return instead('wrong', read.wrong);
	const content = make(read.value);
	if (content.kind === 'nothing') return instead('empty', `Nothing of ${feed.title || 'the feed'} is still to come.`);
	const ageMs = feed.fetchedUtcMs === null ? 0 : world.nowUtcMs - feed.fetchedUtcMs;
	if (ageMs <= zone.oldAfterH * HOUR_MS) return { content, note: '', trouble: null };
	const since = wallClockMs(world.venue.timeZone, feed.fetchedUtcMs!);
	const said = `It was fetched ${Math.floor(ageMs / HOUR_MS)}\u2009h ago.`;
	if (zone.whenOld !== 'beside') return instead('old', said);
	return {
		content,
		note: `as of ${inWords(world.language, since, { day: 'numeric', month: 'short' })}, ${clockWords(since, zone.clock)}`,
		trouble: { why: 'old', said }
	};
}

/** The columns that a zone names, or all; -1: the table has none of that name. */
const columnsOf = ({ columns }: Zone, table: Table): number[] =>
	columns.length ? columns.map((name) => table.columns.indexOf(name)) : table.columns.map((_, n) => n);

function tableRows(zone: Zone, table: Table, wallMs: number): Content {
	const today = Math.floor(wallMs / DAY_MS);
	const shown = columnsOf(zone, table);
	const rows = table.rows
		.filter((_, n) => {
			const time = zone.fromNow ? timesOf(table, today)[n] : null;
			return !time || time.overMs > wallMs;
		})
		.slice(0, zone.rows)
		.map((row) => shown.map((n) => cellWords(row[n] ?? '', today, zone.clock)));
	return rows.length ? { kind: 'rows', heads: shown.map((n) => table.columns[n] ?? ''), rows } : NOTHING;
}

/** A day that is today needs not be said, and a time is written as the zone writes times. */
function cellWords(cell: string, today: number, clock: Zone['clock']): string {
	const time = timeOfCell(cell, today);
	if (!time) return cell;
	const day = Math.floor(time.wallMs / DAY_MS);
	const hasTime = /[:.]\d\d/.test(cell);
	const date = day === today ? (hasTime ? '' : 'today') : dateOf(day).slice(5).split('-').reverse().join('.');
	return [date, hasTime ? clockWords(time.wallMs, clock) : ''].filter(Boolean).join(' ');
}

/** So far before and after now a curve goes. */
const CURVE_MS = { before: 6 * HOUR_MS, after: 18 * HOUR_MS };

/** The number that a cell begins with: "3.4 m" is 3.4. */
const numberOf = (cell: string): number => parseFloat(cell.replace(',', '.'));

const lastNamed = new WeakMap<Table, { heightAt: number; today: number; points: readonly CurvePoint[] }>();
/** The points that stand in the table, by time; the same for a whole day. */
function namedPoints(table: Table, heightAt: number, today: number): readonly CurvePoint[] {
	const known = lastNamed.get(table);
	if (known?.heightAt === heightAt && known.today === today) return known.points;
	const times = timesOf(table, today);
	const points = table.rows
		.flatMap((row, n) => {
			const time = times[n];
			const value = numberOf(row[heightAt] ?? '');
			return time && !Number.isNaN(value) ? [{ wallMs: time.wallMs, value, named: true }] : [];
		})
		.sort((a, b) => a.wallMs - b.wallMs);
	lastNamed.set(table, { heightAt, today, points });
	return points;
}

/** High and low water with half a cosine between: typical of open coasts; in shallow water and up rivers tides differ from it. */
function curveOf(zone: Zone, table: Table, nowMs: number, wholeDay: boolean): Content {
	const today = Math.floor(nowMs / DAY_MS);
	const wallMs = wholeDay ? today * DAY_MS + CURVE_MS.before : nowMs;
	const [, heightAt = -1] = columnsOf(zone, table).length >= 2 ? columnsOf(zone, table) : [0, 1];
	const named = namedPoints(table, heightAt, today);
	const from = wallMs - CURVE_MS.before;
	const until = wallMs + CURVE_MS.after;
	const points: CurvePoint[] = [];
	for (let n = 1; n < named.length; n++) {
		const [a, b] = [named[n - 1]!, named[n]!];
		if (b.wallMs <= from || a.wallMs >= until || b.wallMs === a.wallMs) continue;
		for (let step = 0; step < 24; step++) {
			const share = step / 24;
			const at = a.wallMs + (b.wallMs - a.wallMs) * share;
			if (at < from || at > until) continue;
			points.push({
				wallMs: at,
				value: (a.value + b.value) / 2 + ((a.value - b.value) / 2) * Math.cos(Math.PI * share),
				named: step === 0
			});
		}
		if (b.wallMs <= until && n === named.length - 1) points.push(b);
	}
	const after = points.some((point) => point.wallMs > wallMs);
	const unit = (table.rows[0]?.[heightAt] ?? '').split(' ')[1] ?? '';
	return after && points.length > 2 ? { kind: 'curve', points, nowWallMs: wholeDay ? null : nowMs, unit } : NOTHING;
}

/** Today's opening hours and the days after. */
function openingRows(zone: Zone, { venue, language }: NoticeWorld, wallMs: number): Content {
	if (venue.opening.length === 0) return NOTHING;
	const today = Math.floor(wallMs / DAY_MS);
	const rows = Array.from({ length: Math.min(zone.rows, 7) }, (_, n) => {
		const { day, weekday, monthDay } = dayFacts(today + n);
		const closed = venue.closedOnHolidays && venue.holidays.some(({ date }) => date === dateOf(day));
		const hours = closed
			? []
			: venue.opening.filter(
					({ weekdays, season }) =>
						(weekdays.length === 0 || weekdays.includes(WEEKDAYS[weekday - 1]!)) &&
						(season === null || isWithin(spanOf(season), monthDay))
				);
		const spans = hours
			.map(({ from, until }) => [minuteOfTime(from), minuteOfTime(until)] as const)
			.sort(([a], [b]) => a - b)
			.map((span) => span.map((min) => clockWords(min * MINUTE_MS, zone.clock)).join('\u2013'));
		return [n === 0 ? 'Today' : inWords(language, day * DAY_MS, { weekday: 'long' }), spans.join(', ') || 'closed'];
	});
	return { kind: 'rows', heads: [], rows };
}

const COMPASS = ['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW'] as const;
const degrees = (celsius: number, units: NoticesSettings['units']): string =>
	`${Math.round(units === 'metric' ? celsius : (celsius * 9) / 5 + 32)}\u2009°${units === 'metric' ? 'C' : 'F'}`.replace(
		'-',
		'\u2212'
	);
/** A mile an hour is 0.44704 m/s. Source: NIST SP 811, B.8. */
const wind = (ms: number, units: NoticesSettings['units']): string =>
	units === 'metric' ? `${Math.round(ms)}\u2009m/s` : `${Math.round(ms / 0.44704)}\u2009mph`;

function weatherRows(zone: Zone, { units, language }: NoticeWorld, { now, days }: Weather, wallMs: number): Content {
	const today = dateOf(Math.floor(wallMs / DAY_MS));
	const coming = days.filter(({ date }) => date >= today).slice(0, zone.rows - 1);
	if (days.length > 0 && coming.length === 0 && zone.rows > 1) return NOTHING;
	return {
		kind: 'rows',
		heads: [],
		rows: [
			[
				'Now',
				`${degrees(now.temperatureC, units)}, ${SKY_WORDS[now.sky]}`,
				`${wind(now.windMs, units)} ${COMPASS[Math.round(now.windFromDeg / 45) % 8]!}`
			],
			...coming.map(({ date, highC, lowC, sky, rainMm }) => [
				date === today ? 'Today' : inWords(language, Date.parse(`${date}T00:00:00Z`), { weekday: 'short' }),
				`${degrees(lowC, units)} to ${degrees(highC, units)}, ${SKY_WORDS[sky]}`,
				rainMm > 0
					? units === 'metric'
						? `${rainMm.toFixed(0)}\u2009mm`
						: `${(rainMm / 25.4).toFixed(1)}\u2009in`
					: ''
			])
		]
	};
}
