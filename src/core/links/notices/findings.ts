import type { Context, Finding, Fix, SettingPath } from '../../link';
import { placeKind } from '../../files/mediaPlace';
import { startOfDayMs } from '../../onAir/slices';
import { change, changeZone, overlap, regridded, stretched, within } from './edits';
import { shownIn, type FeedState, type NoticeWorld } from './content';
import { readFeed } from './feeds/feed';
import { timeOfRow } from './feeds/table';
import { fitOf, fits } from './fit';
import { codeModulesOf } from './code';
import { codePxFrom, noticeScreen, paddingPx, legibleToM, smallestTextPx, zoneBox, type NoticeScreen } from './screen';
import { GRIDS, isBare, type NoticesSettings, type Page, type Zone } from './settings';
import { contrast, LEAST_CONTRAST, towardsContrast } from './theme';
import { SHOWS_WORDS } from './zoneWords';

const FEED_OF: Partial<Readonly<Record<Zone['shows'], NoticesSettings['feeds'][number]['kind']>>> = {
	table: 'table',
	curve: 'table',
	calendar: 'calendar',
	news: 'news',
	weather: 'weather'
};

/** What a zone is called in a sentence. */
const zoneName = (page: Page, zone: Zone): string =>
	`\u201c${zone.title || SHOWS_WORDS[zone.shows]}\u201d on \u201c${page.title || page.id}\u201d`;

const settingOf = (settings: NoticesSettings, page: Page): SettingPath =>
	`notices.pages.${settings.pages.indexOf(page)}`;

/** With the feeds as they were last seen here, which have just been fetched. */
const worldHere = (settings: NoticesSettings, { venue }: Context, nowUtcMs: number): NoticeWorld => ({
	nowUtcMs,
	venue,
	units: settings.units,
	language: settings.language,
	feed(id): FeedState | null {
		const feed = settings.feeds.find((known) => known.id === id);
		return feed ? { kind: feed.kind, title: feed.title, text: feed.text, fetchedUtcMs: null } : null;
	}
});

/** All findings of the notices, worst cause first. */
export function assessNotices(settings: NoticesSettings, context: Context): Finding[] {
	const screen = noticeScreen(context);
	if (settings.pages.length === 0)
		return [
			{
				id: 'notices.no-page',
				level: 'stop',
				title: 'There is no page yet',
				why: 'The browser would have nothing to show. Begin with a template, or with an empty page.',
				setting: 'notices.pages',
				fixes: [{ label: 'Do without notices', apply: context.change.use('notices', false) }]
			}
		];
	return [
		...assessPlace(settings, context),
		...settings.feeds.flatMap((feed, n) => assessFeed(settings, context, feed, n)),
		...settings.pages.flatMap((page) => assessPage(settings, context, page, screen)),
		...assessTheme(settings, context),
		...assessPublic(settings)
	];
}

/** Memory that a system with a compositor and a browser of one plain page takes, MB. Typical; a real start of it takes some 400. */
const LEAST_MEMORY_MB = 900;

/** What a key or button may ask for whatever shows the screen. */
const PAGE_ACTIONS: readonly string[] = ['restart', 'shut-down'];

function assessPlace({ grid, pages }: NoticesSettings, context: Context): Finding[] {
	const { facts, change: changes, venue } = context;
	const out: Finding[] = [];
	const screen = noticeScreen(context);
	if (!screen)
		out.push({
			id: 'notices.no-picture',
			level: 'stop',
			title: 'Pages, and nothing to show them on',
			why: 'This endpoint does without a picture, so the browser finds no screen.',
			setting: 'notices',
			fixes: [{ label: 'Add a picture', apply: changes.showPicture() }]
		});
	if (!facts.programme)
		out.push({
			id: 'notices.no-programme',
			level: 'stop',
			title: 'Nothing says when the pages are shown',
			why: 'Pages are shown by the programme, as playlists are; this endpoint does without one.',
			setting: 'notices',
			fixes: [{ label: 'Add a programme', apply: changes.use('programme') }]
		});
	const board = context.part('board', facts.parts.board);
	if (board && board.memoryMb < LEAST_MEMORY_MB) {
		const stronger = context.drawer
			.flatMap((part) =>
				part.kind === 'board' && part.memoryMb >= LEAST_MEMORY_MB && part.wired === board.wired ? [part] : []
			)
			.sort((a, b) => a.memoryMb - b.memoryMb)[0];
		out.push({
			id: 'notices.memory',
			level: 'stop',
			title: 'The board has too little memory for a browser',
			why: `${board.name} has ${board.memoryMb}\u2009MB; the system, a compositor and a browser with one page take some ${LEAST_MEMORY_MB / 2}, and twice as much for a moment. It would be ended again and again.`,
			setting: 'parts.board',
			fixes: stronger ? [{ label: `Take ${stronger.name}`, apply: changes.choosePart('board', stronger.id) }] : []
		});
	}
	if (screen) {
		const shape = screen.widthPx >= screen.heightPx ? 'landscape' : 'portrait';
		const cell = screen.widthPx / grid.columns / (screen.heightPx / grid.rows);
		if (cell > 2 || cell < 0.5) {
			const to = GRIDS[shape];
			out.push({
				id: 'notices.grid-shape',
				level: 'caution',
				title: `The grid is made for a screen of another shape`,
				why: `${grid.columns} by ${grid.rows} on ${screen.widthPx} \u00d7 ${screen.heightPx} pixels: cells are ${cell > 1 ? `${cell.toFixed(1)} times as wide as high` : `${(1 / cell).toFixed(1)} times as high as wide`}, and zones with them.`,
				setting: 'notices.grid',
				fixes: [
					{
						label: `Use ${to.columns} by ${to.rows}`,
						apply: change((all) => ({ ...all, grid: to, pages: regridded(all.pages, all.grid, to) }))
					}
				]
			});
		}
	}
	if (facts.picture && screen && !facts.picture.writesEdid && facts.picture.mode !== null)
		out.push({
			id: 'notices.own-mode',
			level: 'note',
			title: 'The browser takes the mode that the screen prefers',
			why: 'A mode of your own choice reaches the compositor only with an EDID on the card that prefers it.',
			setting: 'picture.writesEdid',
			fixes: []
		});
	if (pages.some(({ zones }) => zones.some(({ shows }) => shows === 'hours')) && venue.opening.length === 0)
		out.push({
			id: 'notices.no-hours',
			level: 'caution',
			title: 'Opening hours are to be shown, and the venue has none',
			why: 'The zone stays empty. Say under Venue when it is open.',
			setting: 'notices.pages',
			fixes: []
		});
	const wanted = facts.entries ?? [];
	const streams = wanted.filter(({ location }) => placeKind(location) === 'stream');
	if (streams.length > 0)
		out.push({
			id: 'notices.streams',
			level: 'caution',
			title:
				streams.length === 1
					? 'A stream is listed, and the page plays none'
					: `${streams.length} streams are listed, and the page plays none`,
			why: 'The browser has no network, on purpose: what is shown in public must not depend on one. Streams are passed over. Leave them out, or let a music endpoint of its own play them.',
			setting: 'sources.items',
			fixes: []
		});
	const player = (facts.picture?.controls ?? []).filter(({ action }) => !PAGE_ACTIONS.includes(action));
	if (player.length > 0)
		out.push({
			id: 'notices.controls',
			level: 'note',
			title:
				player.length === 1
					? 'One key asks for what a page cannot do'
					: `${player.length} keys ask for what a page cannot do`,
			why: 'Next, pause and volume are the player\u2019s; a page follows its rules. Starting anew and shutting down work.',
			setting: 'picture.controls',
			fixes: [
				{
					label: 'Keep only those that work',
					apply: changes.keepControls(PAGE_ACTIONS)
				}
			]
		});
	return out;
}

const DAY_MS = 86_400_000;

function assessFeed(
	settings: NoticesSettings,
	{ venue, facts, change: changes }: Context,
	feed: NoticesSettings['feeds'][number],
	n: number
): Finding[] {
	const setting = `notices.feeds.${n}` as const;
	const name = feed.title || feed.id;
	const without: Fix = {
		label: 'Take the feed out',
		apply: change((all) => ({
			...all,
			feeds: all.feeds.filter(({ id }) => id !== feed.id),
			pages: all.pages.map((page) => ({
				...page,
				zones: page.zones.filter((zone) => zone.feed !== feed.id)
			}))
		}))
	};
	const users = settings.pages.flatMap(({ zones }) => zones).filter((zone) => zone.feed === feed.id);
	if (users.length === 0)
		return [
			{
				id: `notices.feed-unused-${feed.id}`,
				level: 'note',
				title: `No zone shows the feed \u201c${name}\u201d`,
				why: 'It goes along, and nobody sees it.',
				setting,
				fixes: [without]
			}
		];
	const out: Finding[] = [];
	if (feed.address && facts.way === 'none')
		out.push({
			id: `notices.feed-offline-${feed.id}`,
			level: 'stop',
			title: `\u201c${name}\u201d is fetched, and there is no network`,
			why: 'It would stay as it was when the card was written. Join a network, or let the feed go along.',
			setting,
			fixes: [
				{ label: 'Use Ethernet', apply: changes.useWired() },
				{
					label: 'Let it go along as it is',
					apply: change((all) => ({
						...all,
						feeds: all.feeds.map((one) => (one.id === feed.id ? { ...one, address: '' as const } : one))
					}))
				}
			]
		});
	if (feed.text.trim() === '') {
		out.push({
			id: `notices.feed-empty-${feed.id}`,
			level: feed.address ? 'note' : 'stop',
			title: feed.address ? `Nobody has looked at \u201c${name}\u201d yet` : `The feed \u201c${name}\u201d is empty`,
			why: feed.address
				? 'Until the endpoint has fetched it, its zones show what they are told to show then. Fetch it here once, so that you see whether it fits.'
				: 'Its zones show what they are told to show then. Type or choose what it holds.',
			setting,
			fixes: feed.address ? [] : [without]
		});
		return out;
	}
	const read = readFeed(feed.kind, feed.text, venue.timeZone);
	if ('wrong' in read)
		out.push({
			id: `notices.feed-wrong-${feed.id}`,
			level: 'stop',
			title: `\u201c${name}\u201d cannot be read`,
			why: `${read.wrong} Until then its zones show what they are told to show.`,
			setting,
			fixes: [without]
		});
	return out;
}

/** Instants at which a page is looked at: now is not asked, so that the same plan is always judged alike. */
function instantsOf(settings: NoticesSettings, { venue }: Context): number[] {
	const days = settings.feeds.flatMap((feed) => {
		const read = feed.kind === 'table' ? readFeed('table', feed.text, venue.timeZone) : null;
		if (!read || 'wrong' in read) return [];
		const first = read.value.rows.map((row) => timeOfRow(row, 0)?.wallMs ?? 0).filter((ms) => ms >= DAY_MS)[0];
		return first === undefined ? [] : [Math.floor(first / DAY_MS)];
	});
	const day = days[0] ?? ANY_DAY;
	return [startOfDayMs(venue.timeZone, day), startOfDayMs(venue.timeZone, day) + 20 * 3_600_000];
}
/** 23 September 2026, a Wednesday: both long words. */
const ANY_DAY = 20_719;

function assessPage(settings: NoticesSettings, context: Context, page: Page, screen: NoticeScreen | null): Finding[] {
	const setting = settingOf(settings, page);
	const out: Finding[] = [];
	if (page.zones.length === 0)
		out.push({
			id: `notices.page-empty-${page.id}`,
			level: 'stop',
			title: `The page \u201c${page.title || page.id}\u201d is empty`,
			why: 'Nothing but its ground would be seen. Add a zone, or take the page out.',
			setting,
			fixes: [
				{
					label: 'Take the page out',
					apply: change((all) => ({ ...all, pages: all.pages.filter(({ id }) => id !== page.id) }))
				}
			]
		});
	page.zones.forEach((zone, n) => {
		const name = zoneName(page, zone);
		const id = `${page.id}-${zone.id}`;
		const to = (label: string, more: Partial<Zone>): Fix => ({ label, apply: changeZone(page.id, zone.id, more) });
		const { columns, rows } = settings.grid;
		if (zone.x + zone.w > columns || zone.y + zone.h > rows)
			out.push({
				id: `notices.outside-${id}`,
				level: 'stop',
				title: `${name} reaches beyond the page`,
				why: `The grid has ${columns} columns and ${rows} rows; the zone ends at ${zone.x + zone.w} and ${zone.y + zone.h}.`,
				setting,
				fixes: [to('Bring it in', within(zone, settings.grid))]
			});
		const above = page.zones.slice(n + 1).find((other) => overlap(zone, other));
		if (above && !isBackground(zone, settings.grid))
			out.push({
				id: `notices.overlap-${id}`,
				level: 'caution',
				title: `${name} lies under another zone`,
				why: `\u201c${above.title || SHOWS_WORDS[above.shows]}\u201d covers a part of it. A picture that fills the page may lie under others; text may not.`,
				setting,
				fixes: []
			});
		const kind = FEED_OF[zone.shows];
		const feed = settings.feeds.find((one) => one.id === zone.feed);
		if (kind && feed?.kind !== kind) {
			const fitting = settings.feeds.find((one) => one.kind === kind);
			out.push({
				id: `notices.no-feed-${id}`,
				level: 'stop',
				title: `${name} has no feed`,
				why: feed
					? 'The feed that it names is of another kind.'
					: 'It stays empty until you say where it takes what it shows.',
				setting,
				fixes: [
					...(fitting ? [to(`Take \u201c${fitting.title || fitting.id}\u201d`, { feed: fitting.id })] : []),
					{
						label: 'Take the zone out',
						apply: change((all) => ({
							...all,
							pages: all.pages.map((one) =>
								one.id === page.id ? { ...one, zones: one.zones.filter((other) => other.id !== zone.id) } : one
							)
						}))
					}
				]
			});
		}
		if (kind && feed?.kind === kind) out.push(...columnsGone(zone, feed, name, setting, id, context, to));
		const shown = zone.entries.filter((entry) => !context.facts.entries?.some((known) => known.id === entry));
		if (
			(zone.shows === 'picture' || zone.shows === 'film' || zone.shows === 'photographs') &&
			(shown.length > 0 || zone.entries.length === 0)
		)
			out.push({
				id: `notices.no-entry-${id}`,
				level: 'stop',
				title:
					zone.entries.length === 0 ? `${name} shows nothing yet` : `${name} shows what is no longer among the sources`,
				why: 'Choose an entry of the sources. Files get there by dropping them on the Sources worktop.',
				setting,
				fixes:
					zone.entries.length > shown.length
						? [to('Forget those that are gone', { entries: zone.entries.filter((entry) => !shown.includes(entry)) })]
						: []
			});
		if (zone.shows === 'code' && zone.code === '')
			out.push({
				id: `notices.no-code-${id}`,
				level: 'stop',
				title: `${name} says nothing yet`,
				why: 'Type the address that a phone is to open.',
				setting,
				fixes: []
			});
		if (screen) out.push(...assessSight(settings, context, page, zone, screen, { name, id, setting, to }));
	});
	return out;
}

/** A picture over the whole page. */
const isBackground = (zone: Zone, { columns, rows }: NoticesSettings['grid']): boolean =>
	(zone.shows === 'picture' || zone.shows === 'photographs' || zone.shows === 'film') &&
	zone.w === columns &&
	zone.h === rows;

function columnsGone(
	zone: Zone,
	feed: NoticesSettings['feeds'][number],
	name: string,
	setting: SettingPath,
	id: string,
	{ venue }: Context,
	to: (label: string, more: Partial<Zone>) => Fix
): Finding[] {
	if (feed.kind !== 'table' || zone.columns.length === 0) return [];
	const read = readFeed('table', feed.text, venue.timeZone);
	if ('wrong' in read) return [];
	const gone = zone.columns.filter((column) => !read.value.columns.includes(column));
	return gone.length === 0
		? []
		: [
				{
					id: `notices.columns-${id}`,
					level: 'stop',
					title: `${name} shows a column that the table does not have`,
					why: `${gone.join(', ')}: the table has ${read.value.columns.join(', ')}.`,
					setting,
					fixes: [
						to('Forget it', { columns: zone.columns.filter((column) => !gone.includes(column)) }),
						to('Show all columns', { columns: [] })
					]
				}
			];
}

interface Place {
	readonly name: string;
	readonly id: string;
	readonly setting: SettingPath;
	to(label: string, more: Partial<Zone>): Fix;
}

/** Whether it can be read from where people stand, and whether all of it has room, at hours at which it says the most. */
function assessSight(
	settings: NoticesSettings,
	context: Context,
	page: Page,
	zone: Zone,
	screen: NoticeScreen,
	{ name, id, setting, to }: Place
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
		const larger = roomFor(fitAt, zone, least);
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
	const instants = instantsOf(settings, context);
	const turns = zone.shows === 'news' ? Array.from({ length: zone.rows }, (_, n) => n * zone.changeSec * 1000) : [0];
	const said = instants.flatMap((utcMs) =>
		turns.map((later) => shownIn(zone, worldHere(settings, context, utcMs + later)))
	);
	// With the words that stand in its place, and the note beside what is old.
	if (zone.whenOld === 'words' && zone.words)
		said.push(shownIn({ ...zone, feed: '' }, worldHere({ ...settings, feeds: [] }, context, instants[0]!)));
	return said;
}

function codeSize(
	zone: Zone,
	screen: NoticeScreen,
	room: { width: number; height: number },
	{ name, id, setting }: Place
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

/** Ink and accent on what lies behind them. */
function assessTheme({ pages }: NoticesSettings, { venue }: Context): Finding[] {
	const { noticeTheme: theme } = venue;
	if (pages.length === 0) return [];
	return (['ink', 'accent'] as const).flatMap((which): Finding[] => {
		const ratio = contrast(theme[which], theme.panel);
		if (ratio >= LEAST_CONTRAST) return [];
		const better = towardsContrast(theme[which], [theme.panel], LEAST_CONTRAST);
		return [
			{
				id: `notices.contrast-${which}`,
				level: 'caution',
				title: `${which === 'ink' ? 'Text' : 'Headings'} and their ground are too alike`,
				why: `${ratio.toFixed(1)} to 1; what is read in passing wants ${LEAST_CONTRAST}. It holds for all notices of the venue.${better ? ` ${better} has it.` : ''}`,
				setting: 'notices.pages',
				fixes: []
			}
		];
	});
}

/** What is shown in public has rules of its own, and so have names of people. */
function assessPublic({ feeds }: NoticesSettings): Finding[] {
	return feeds.some(({ kind }) => kind === 'calendar')
		? [
				{
					id: 'notices.names',
					level: 'note',
					title: 'A calendar is shown to everybody who passes',
					why: 'Its titles may name people or say who is where. Let it hold only what everybody may know; the law on data protection of your country says more.',
					setting: 'notices.feeds',
					fixes: []
				}
			]
		: [];
}
