import { dateOf } from '../../../basics/calendar';
import { changing, type Change } from '../../../changes';
import { wallClockMs } from '../../../formats/systemd/zone';
import type { Context } from '../../../link/context';
import type { Fix } from '../../../link/finding';
import { freeId } from '../../../basics/text';
import { newZone, type NoticesSettings, type Page, type Shows, type Zone } from '../settings';

/** A change of the notices' settings. */
export const change = changing<NoticesSettings>('notices');

/** The pages with one of them made anew. */
export const withPage = (pages: readonly Page[], pageId: string, edit: (page: Page) => Page): Page[] =>
	pages.map((page) => (page.id === pageId ? edit(page) : page));
/** The pages without one zone. */
export const withoutZone = (pages: readonly Page[], pageId: string, zoneId: string): Page[] =>
	withPage(pages, pageId, (page) => ({ ...page, zones: page.zones.filter(({ id }) => id !== zoneId) }));
/** The pages with one zone changed. */
export const withZone = (pages: readonly Page[], pageId: string, zoneId: string, more: Partial<Zone>): Page[] =>
	withPage(pages, pageId, (page) => ({
		...page,
		zones: page.zones.map((zone) => (zone.id === zoneId ? { ...zone, ...more } : zone))
	}));

/** A fix that changes one zone. */
export const changeZone = (pageId: string, zoneId: string, more: Partial<Zone>): Change =>
	change((all) => ({ ...all, pages: withZone(all.pages, pageId, zoneId, more) }));

type Place = Pick<Zone, 'x' | 'y' | 'w' | 'h'>;
/** Whether two zones lie upon each other. */
export const overlap = (a: Place, b: Place): boolean =>
	a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;

/** A place as it fits the grid: as large as it may be, and within it. */
export function within(place: Place, { columns, rows }: NoticesSettings['grid']): Place {
	const w = Math.max(1, Math.min(place.w, columns));
	const h = Math.max(1, Math.min(place.h, rows));
	return {
		w,
		h,
		x: Math.max(0, Math.min(place.x, columns - w)),
		y: Math.max(0, Math.min(place.y, rows - h))
	};
}

/** The largest free rectangle of a page, the upper one of equals; null: nothing is free. */
export function freePlace(zones: readonly Place[], { columns, rows }: NoticesSettings['grid']): Place | null {
	const taken = Array.from({ length: rows }, (_, y) =>
		Array.from({ length: columns }, (_, x) => zones.some((zone) => overlap(zone, { x, y, w: 1, h: 1 })))
	);
	let best: Place | null = null;
	/** Free cells above each, the row itself with them. */
	const heights = new Array<number>(columns).fill(0);
	for (let y = 0; y < rows; y++) {
		for (let x = 0; x < columns; x++) heights[x] = taken[y]![x] ? 0 : heights[x]! + 1;
		for (let x = 0; x < columns; x++) {
			let h = heights[x]!;
			for (let end = x; end < columns && h > 0; end++) {
				h = Math.min(h, heights[end]!);
				const w = end - x + 1;
				if (h > 0 && w * h > (best ? best.w * best.h : 0)) best = { x, y: y - h + 1, w, h };
			}
		}
	}
	return best;
}

/** How far a zone can grow, downwards then upwards, without meeting another. */
export function stretched(zone: Zone, others: readonly Zone[], { rows }: NoticesSettings['grid']): Zone {
	const isFree = (place: Zone): boolean =>
		place.y >= 0 && place.y + place.h <= rows && !others.some((one) => overlap(one, place));
	let grown = zone;
	for (;;) {
		const down = { ...grown, h: grown.h + 1 };
		const up = { ...grown, y: grown.y - 1, h: grown.h + 1 };
		const next = [down, up].find(isFree);
		if (!next) return grown;
		grown = next;
	}
}

/** The pages brought to another grid, every zone in its share of it. */
export const regridded = (pages: readonly Page[], from: NoticesSettings['grid'], to: NoticesSettings['grid']): Page[] =>
	pages.map((page) => ({
		...page,
		zones: page.zones.map((zone) => {
			const across = to.columns / from.columns;
			const down = to.rows / from.rows;
			const x = Math.round(zone.x * across);
			const y = Math.round(zone.y * down);
			return {
				...zone,
				...within(
					{
						x,
						y,
						w: Math.round((zone.x + zone.w) * across) - x,
						h: Math.round((zone.y + zone.h) * down) - y
					},
					to
				)
			};
		})
	}));

/** A page with one more zone, in its largest free place, or over the others where nothing is free. */
export function withNewZone(
	page: Page,
	shows: Shows,
	grid: NoticesSettings['grid'],
	more: Partial<Zone> = {}
): { page: Page; id: string } {
	const id = freeId(shows, new Set(page.zones.map((zone) => zone.id)));
	const free = freePlace(page.zones, grid) ?? { x: 0, y: 0, w: grid.columns, h: 2 };
	const usual = USUAL[shows] ?? 1;
	const place = { ...free, h: Math.max(1, Math.min(free.h, Math.round(grid.rows * usual))) };
	return { page: { ...page, zones: [...page.zones, newZone(id, shows, place, more)] }, id };
}

/** What some kinds of zones need of the page's height at most. */
const USUAL: Partial<Readonly<Record<Shows, number>>> = { clock: 0.12, date: 0.1, news: 0.12, code: 0.25 };

/** Pages drawn as pictures from the day on at which this is pressed, by the venue's clock, unless another has been said. */
export const fromToday =
	({ venue }: Pick<Context, 'venue'>): Fix['apply'] =>
	(plan, nowUtcMs = ANY_DAY) =>
		change((all) => ({
			...all,
			shownBy: 'pictures',
			picturesFrom: all.picturesFrom || dateOf(Math.floor(wallClockMs(venue.timeZone, nowUtcMs) / 86_400_000))
		}))(plan);
/** To see what the fix comes to, any does. */
const ANY_DAY = Date.UTC(2026, 0, 1);
