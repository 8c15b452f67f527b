import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { dateOf, dayOf } from '../../../basics/calendar';
import type { Context } from '../../../link/context';
import { startOfDayMs } from '../../../onAir/slices';
import { shownIn } from '../pages/content';
import type { NoticesSettings, Page, Shows, Zone } from '../settings';
import { showOf, type Show } from '../pages/show';
import { worldOf, type Fetched } from '../pages/world';

/** One picture that is to be drawn: a page at an instant. */
export interface Drawing {
	/** Its file's name; the same for the same picture. */
	readonly name: string;
	/** With those zones that are drawn. */
	readonly page: Page;
	readonly utcMs: number;
	/** Ids of zones that are left out, since what they say holds for some days only. */
	readonly without: readonly string[];
}
/** From a second on, counted from 1970, a page shows a picture. */
export interface Turn {
	readonly pageId: string;
	readonly fromUtcSec: number;
	readonly name: string;
}
/** All pictures of an endpoint's pages. */
export interface Pictures {
	readonly show: Show;
	readonly drawings: readonly Drawing[];
	/** By page, in order of time; the first of each holds from the beginning of time, the last without end. */
	readonly turns: readonly Turn[];
	/** From here on pages show only what holds on any day. */
	readonly endsUtcMs: number;
	/** There are more than can be; what is listed ends before its time. */
	readonly isCut: boolean;
	/** Pages of which nothing holds on any day: empty before the first day, and after the last. */
	readonly emptyAfter: readonly string[];
}

/** So many may be drawn: some 300 MB, which the page that draws them holds until the set is made. */
export const MOST_PICTURES = 2000;

const MINUTE_MS = 60_000;
const DAY_MS = 86_400_000;
/** Feeds are looked at so often; where they differ, the minute at which they begin to is looked for. */
const LOOK_MS = 3 * 3_600_000;
/** Far enough away that a season, a holiday or a table that ends makes a difference. */
const FAR_DAYS = [-200, 200, 400];

/** Zones whose picture is the same whatever the hour. */
const SAME: readonly Shows[] = ['text', 'code', 'picture', 'photographs', 'film', 'clock'];
/** Zones that change with the day alone. */
const DAILY: readonly Shows[] = ['date', 'hours'];

interface Says {
	readonly utcMs: number;
	readonly said: string;
}

/** What a zone says from the first instant on, and at each minute at which that changes. */
function changesOf(zone: Zone, says: (utcMs: number) => string, days: readonly number[], untilMs: number): Says[] {
	const first = days[0]!;
	const out: Says[] = [{ utcMs: first, said: says(first) }];
	if (SAME.includes(zone.shows)) return out;
	const put = (utcMs: number, said: string): void => {
		if (out.at(-1)!.said !== said) out.push({ utcMs, said });
	};
	if (DAILY.includes(zone.shows)) {
		for (const utcMs of days) put(utcMs, says(utcMs));
		return out;
	}
	const between = (from: Says, until: Says): void => {
		if (from.said === until.said) return;
		if (until.utcMs - from.utcMs <= MINUTE_MS) return put(until.utcMs, until.said);
		const utcMs = from.utcMs + Math.floor((until.utcMs - from.utcMs) / (2 * MINUTE_MS)) * MINUTE_MS;
		const middle = { utcMs, said: says(utcMs) };
		between(from, middle);
		between(middle, until);
	};
	let before = out[0]!;
	for (let utcMs = first + LOOK_MS; utcMs - LOOK_MS < untilMs - MINUTE_MS; utcMs += LOOK_MS) {
		const at = Math.min(utcMs, untilMs - MINUTE_MS);
		const now = { utcMs: at, said: says(at) };
		between(before, now);
		before = now;
	}
	return out;
}

interface Tells {
	readonly changes: readonly Says[];
	/** It says the same on any day. */
	readonly holds: boolean;
}
const told = new WeakMap<Zone, { readonly by: readonly unknown[]; readonly tells: Tells }>();

/** A zone is looked at again when it changes, or what it looks at. */
function tellsOf(zone: Zone, settings: NoticesSettings, show: Show, days: readonly number[], untilMs: number): Tells {
	const { feeds, units, language } = settings;
	const by = [feeds.find(({ id }) => id === zone.feed), units, language, JSON.stringify(show.venue), days[0], untilMs];
	const before = told.get(zone);
	if (before && by.every((one, n) => one === before.by[n])) return before.tells;
	const says = (utcMs: number): string =>
		JSON.stringify(shownIn(zone, worldOf(show, utcMs, NOTHING_FETCHED, true)).content);
	const changes = changesOf(zone, says, days, untilMs);
	const holds = changes.length === 1 && FAR_DAYS.every((away) => says(days[0]! + away * DAY_MS) === changes[0]!.said);
	const tells = { changes, holds };
	told.set(zone, { by, tells });
	return tells;
}

const known = new WeakMap<
	NoticesSettings,
	{ readonly by: string; readonly venue: unknown; readonly found: Pictures }
>();

/**
 * Which pictures the pages need for their days, to the minute. A change that is taken back within three hours may be missed.
 * null: nobody has said from which day.
 */
export function picturesOf(settings: NoticesSettings, context: Context): Pictures | null {
	if (settings.picturesFrom === '') return null;
	const show = showOf(settings, context);
	const by = JSON.stringify([
		show.screen,
		show.media,
		context.facts.entries?.map(({ location }) => context.media(location)?.sha256)
	]);
	const before = known.get(settings);
	if (before?.by === by && before.venue === context.venue) return before.found;
	const found = reckon(settings, show, by);
	known.set(settings, { by, venue: context.venue, found });
	return found;
}

function reckon(settings: NoticesSettings, show: Show, by: string): Pictures {
	const zone = show.venue.timeZone;
	const day = dayOf(settings.picturesFrom);
	const days = Array.from({ length: settings.picturesDays }, (_, n) => startOfDayMs(zone, day + n));
	let endsUtcMs = startOfDayMs(zone, day + settings.picturesDays);
	const drawings = new Map<string, Drawing>();
	const turns: Turn[] = [];
	const emptyAfter: string[] = [];
	let isCut = false;
	const look = JSON.stringify([show.theme, show.grid, by]);
	const nameOf = (page: Page, said: readonly string[], without: readonly string[]): string =>
		`${page.id}-${bytesToHex(sha256(new TextEncoder().encode(JSON.stringify([look, page.zones, said, without])))).slice(0, 12)}.png`;
	const byPage = settings.pages.map((page) => {
		const zones = page.zones.map((one) => ({ one, ...tellsOf(one, settings, show, days, endsUtcMs) }));
		const instants = [...new Set(zones.flatMap(({ changes }) => changes.map(({ utcMs }) => utcMs)))].sort(
			(a, b) => a - b
		);
		return { page, zones, instants };
	});
	const total = byPage.reduce((sum, { instants }) => sum + instants.length, 0);
	if (total > MOST_PICTURES) {
		isCut = true;
		const all = byPage.flatMap(({ instants }) => instants).sort((a, b) => a - b);
		endsUtcMs = all[MOST_PICTURES]!;
	}
	for (const { page, zones, instants } of byPage) {
		const draw = (utcMs: number, without: readonly string[]): string => {
			const said = zones.map(({ one, changes }) =>
				without.includes(one.id) ? '' : changes.findLast((change) => change.utcMs <= utcMs)!.said
			);
			const name = nameOf(page, said, without);
			if (!drawings.has(name)) {
				const drawn = { ...page, zones: page.zones.filter(({ id }) => !without.includes(id)) };
				drawings.set(name, { name, page: drawn, utcMs, without });
			}
			return name;
		};
		const dated = zones.filter(({ holds }) => !holds).map(({ one }) => one.id);
		const plain = draw(days[0]!, dated);
		turns.push({ pageId: page.id, fromUtcSec: 0, name: plain });
		if (dated.length === 0) continue;
		if (dated.length === zones.length) emptyAfter.push(page.id);
		for (const utcMs of instants)
			if (utcMs < endsUtcMs) turns.push({ pageId: page.id, fromUtcSec: utcMs / 1000, name: draw(utcMs, []) });
		turns.push({ pageId: page.id, fromUtcSec: endsUtcMs / 1000, name: plain });
	}
	return { show, drawings: [...drawings.values()], turns, endsUtcMs, isCut, emptyAfter };
}

/** The drawing that a page shows at an instant. */
export function drawingAt({ drawings, turns }: Pictures, pageId: string, utcMs: number): Drawing | null {
	const turn = turns.findLast((one) => one.pageId === pageId && one.fromUtcSec * 1000 <= utcMs);
	return drawings.find(({ name }) => name === turn?.name) ?? null;
}

const NOTHING_FETCHED: ReadonlyMap<string, Fetched> = new Map();

/** The day on which pages begin to show only what holds on any day. */
export const endsOn = ({ picturesFrom, picturesDays }: NoticesSettings): string =>
	picturesFrom === '' ? '' : dateOf(dayOf(picturesFrom) + picturesDays);
