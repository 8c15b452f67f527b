import type { Context } from '../../../link/context';
import type { Finding, Fix } from '../../../link/finding';
import type { SettingPath } from '../../../link/setting';
import { startOfDayMs } from '../../../onAir/slices';
import { codeModulesOf } from './code';
import { shownIn } from './content';
import { stretched } from './edits';
import { readFeed } from '../feeds/feed';
import { timeOfRow } from '../feeds/table';
import { fitOf, fits } from './fit';
import { codePxFrom, legibleToM, paddingPx, smallestTextPx, zoneBox, type NoticeScreen } from './screen';
import { isBare, MOST_TEXT_PX, type NoticesSettings, type Page, type Zone } from '../settings';
import { worldOf, type Fetched } from './world';

const DAY_MS = 86_400_000;
/** Feeds as they were last seen here. */
const AS_SEEN: ReadonlyMap<string, Fetched> = new Map();

/** So many instants of a feed are looked at, spread over it. */
const MOST_INSTANTS = 24;
/** 23 September 2026, a Wednesday: the longest names of a day and a month. */
const ANY_DAY = 20_719;
const EVENING_MS = 20 * 3_600_000;

/** Instants at which a zone is looked at: throughout its feed. What the clock says now is not asked, so that a plan is always judged alike. */
function instantsOf(settings: NoticesSettings, { venue: { timeZone } }: Context, zone: Zone): number[] {
	const feed = settings.feeds.find(({ id }) => id === zone.feed);
	const read = feed?.kind === 'table' || feed?.kind === 'calendar' ? readFeed(feed.kind, feed.text, timeZone) : null;
	const walls =
		!read || 'wrong' in read
			? []
			: 'rows' in read.value
				? read.value.rows.map((row) => timeOfRow(row, ANY_DAY)?.wallMs ?? 0)
				: read.value.map(({ wallMs }) => wallMs);
	const days = [...new Set(walls.filter((ms) => ms > 0).map((ms) => Math.floor(ms / DAY_MS)))].sort((a, b) => a - b);
	const step = Math.max(1, Math.ceil(days.length / MOST_INSTANTS));
	const chosen = days.filter((_, n) => n % step === 0);
	return (chosen.length ? chosen : [ANY_DAY]).flatMap((day) => {
		const midnight = startOfDayMs(timeZone, day);
		return [midnight, midnight + EVENING_MS];
	});
}

/** The zone that is judged, and how it is changed. */
interface Judged {
	readonly name: string;
	readonly id: string;
	readonly setting: SettingPath;
	to(label: string, more: Partial<Zone>): Fix;
}

/** Whether it can be read from where people stand, and whether all of it has room, at hours at which it says the most. */
export function assessSight(
	settings: NoticesSettings,
	context: Context,
	page: Page,
	zone: Zone,
	screen: NoticeScreen,
	{ name, id, setting, to }: Judged
): Finding[] {
	if (isBare(zone)) return [];
	const { noticeTheme: theme } = context.venue;
	const room = roomOf(settings, theme, screen, zone);
	if (zone.shows === 'code') return codeSize(zone, screen, room, { name, id, setting, to });
	const shown = everyWord(settings, context, zone);
	const fitAt = (more: Partial<Zone>) => {
		const next = { ...zone, ...more };
		return (more.rows === undefined ? shown : everyWord(settings, context, next)).map((one) =>
			fitOf(next, one, roomOf(settings, theme, screen, next), theme.font)
		);
	};
	const out: Finding[] = [];
	const least = smallestTextPx(screen, theme);
	const fromM = legibleToM(screen, theme, zone.textPx);
	const all = fitAt({});
	const isTooMuch = all.some((fit) => !fits(fit));
	if (least !== null && fromM !== null && zone.textPx < least) {
		// A small screen far away: no letters are large enough.
		const larger = least <= MOST_TEXT_PX ? roomFor(fitAt, zone, least) : null;
		out.push({
			id: `notices.small-${id}`,
			level: 'caution',
			title: `${name} cannot be read from ${screen.distanceM}\u2009m`,
			why: `${zone.textPx}\u2009px can be read from ${fromM.toFixed(1)}\u2009m on this screen; from ${screen.distanceM}\u2009m text needs ${least}\u2009px.`,
			setting,
			fixes: larger ? [to(larger.label, larger.more)] : []
		});
	}
	if (isTooMuch) {
		const worst = all.reduce((a, b) => (b.heightPx - b.roomPx > a.heightPx - a.roomPx ? b : a));
		const smallest = Math.max(least ?? 0, 8);
		const smaller = sizes(zone.textPx, smallest).find((textPx) => fitAt({ textPx }).every(fits));
		const taller = stretched(
			zone,
			page.zones.filter((other) => other.id !== zone.id),
			settings.grid
		);
		const rows = rowsOf(all) ?? 0;
		const fewer = rows >= 1 && rows < zone.rows && fitAt({ rows }).every(fits);
		const grows = taller.h > zone.h && fitAt({ y: taller.y, h: taller.h }).every(fits);
		out.push({
			id: `notices.too-much-${id}`,
			level: 'caution',
			title: `${name} has more text than room`,
			why:
				worst.widthPx > worst.roomWidthPx + 0.5
					? `Its rows need ${Math.ceil(worst.widthPx)}\u2009px across and have ${Math.floor(room.width)}.`
					: `At its longest it needs ${Math.ceil(worst.heightPx)}\u2009px of height and has ${Math.floor(worst.roomPx)}: the end would be cut off.`,
			setting,
			fixes: [
				...(fewer ? [to(rows === 1 ? 'Show one row' : `Show ${rows} rows`, { rows })] : []),
				...(smaller !== undefined ? [to(`Set it to ${smaller}\u2009px`, { textPx: smaller })] : []),
				...(grows ? [to('Make it taller', { y: taller.y, h: taller.h })] : [])
			]
		});
	}
	return out;
}

const roomOf = (
	settings: NoticesSettings,
	theme: Context['venue']['noticeTheme'],
	screen: NoticeScreen,
	zone: Zone
) => {
	const box = zoneBox(screen, theme, settings.grid, zone);
	const pad = 2 * paddingPx(screen);
	return { width: Math.max(1, box.width - pad), height: Math.max(1, box.height - pad) };
};

/** Sizes below one, in steps that are seen, down to the smallest. */
const sizes = (from: number, smallest: number): number[] => {
	const out: number[] = [];
	for (let px = Math.floor(from * 0.94); px >= smallest && out.length < 60; px = Math.floor(px * 0.94)) out.push(px);
	if (smallest < from && out.at(-1) !== smallest) out.push(smallest);
	return out;
};

/** How many rows have room at each hour; null: something that is no table has none. */
function rowsOf(all: readonly ReturnType<typeof fitOf>[]): number | null {
	const tables = all.filter(({ rowsFit }) => rowsFit !== null);
	const others = all.filter(({ rowsFit }) => rowsFit === null);
	return tables.length > 0 && others.every(fits) ? Math.min(...tables.map(({ rowsFit }) => rowsFit!)) : null;
}

/** The larger text with as many rows as then have room. */
function roomFor(
	fitAt: (more: Partial<Zone>) => ReturnType<typeof fitOf>[],
	zone: Zone,
	textPx: number
): { label: string; more: Partial<Zone> } | null {
	const all = fitAt({ textPx });
	if (all.every(fits)) return { label: `Set it to ${textPx}\u2009px`, more: { textPx } };
	const many = rowsOf(all);
	if (many === null) return null;
	for (let rows = Math.min(zone.rows, many); rows >= 1; rows--)
		if (fitAt({ textPx, rows }).every(fits))
			return { label: `Set it to ${textPx}\u2009px, ${rows} row${rows > 1 ? 's' : ''}`, more: { textPx, rows } };
	return null;
}

/** All that a zone may come to say: at some hours, and each headline. */
function everyWord(settings: NoticesSettings, context: Context, zone: Zone): ReturnType<typeof shownIn>[] {
	const instants = instantsOf(settings, context, zone);
	const turns = zone.shows === 'news' ? Array.from({ length: zone.rows }, (_, n) => n * zone.changeSec * 1000) : [0];
	const said = instants.flatMap((utcMs) =>
		turns.map((later) => shownIn(zone, worldOf({ ...settings, venue: context.venue }, utcMs + later, AS_SEEN)))
	);
	// And the words that stand in its place.
	if (zone.whenOld === 'words' && zone.words)
		said.push(
			shownIn({ ...zone, feed: '' }, worldOf({ ...settings, feeds: [], venue: context.venue }, instants[0]!, AS_SEEN))
		);
	return said;
}

function codeSize(
	zone: Zone,
	screen: NoticeScreen,
	room: { width: number; height: number },
	{ name, id, setting }: Judged
): Finding[] {
	const modules = codeModulesOf(zone.code);
	if (zone.code === '' || !screen.panel) return [];
	if (modules === null)
		return [
			{
				id: `notices.code-long-${id}`,
				level: 'stop',
				title: `${name} holds more than a code can`,
				why: 'Shorten the address.',
				setting,
				fixes: []
			}
		];
	const side = Math.min(room.width, room.height - (zone.title ? zone.textPx * 1.5 : 0));
	const needs = codePxFrom(screen, modules);
	if (side >= needs) return [];
	return [
		{
			id: `notices.code-small-${id}`,
			level: 'note',
			title: `${name} is scanned from ${((screen.distanceM * side) / needs).toFixed(1)}\u2009m, not from ${screen.distanceM}\u2009m`,
			why: `It has ${modules} modules a side and ${Math.floor(side)}\u2009px for them; from ${screen.distanceM}\u2009m a phone needs ${needs}\u2009px. Let people step nearer, make the zone larger, or the address shorter.`,
			setting,
			fixes: []
		}
	];
}
