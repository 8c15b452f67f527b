import type { Context } from '../../../link/context';
import type { Finding, Fix } from '../../../link/finding';
import type { SettingPath } from '../../../link/setting';
import { assessSight } from './assessSight';
import { change, changeZone, overlap, withoutZone, within } from './edits';
import { readFeed } from '../feeds/feed';
import type { Feed } from '../feeds/schema';
import type { NoticeScreen } from './screen';
import { FEED_OF, type NoticesSettings, type Page, type Zone } from '../settings';
import { SHOWS_WORDS } from './zoneWords';

/** What a zone is called in a sentence. */
const zoneName = (page: Page, zone: Zone): string =>
	`\u201c${zone.title || SHOWS_WORDS[zone.shows]}\u201d on \u201c${page.title || page.id}\u201d`;

const known = new WeakMap<Page, { readonly by: readonly unknown[]; readonly findings: Finding[] }>();

/** A page's zones: where they stand, what they show, and whether it can be read. A page is judged again when it or what it looks at changes. */
export function assessPage(
	settings: NoticesSettings,
	context: Context,
	page: Page,
	screen: NoticeScreen | null
): Finding[] {
	const { venue, facts, drawer } = context;
	const { grid, feeds, units, language } = settings;
	const by = [
		...[grid, feeds, units, language, settings.pages.indexOf(page)],
		...[
			venue,
			facts.entries,
			drawer,
			JSON.stringify(screen && { ...screen, reader: [screen.reader.eyes, screen.reader.light, screen.reader.angleDeg] })
		]
	];
	const before = known.get(page);
	if (before && by.every((one, n) => one === before.by[n])) return before.findings;
	const findings = judgePage(settings, context, page, screen);
	known.set(page, { by, findings });
	return findings;
}

function judgePage(settings: NoticesSettings, context: Context, page: Page, screen: NoticeScreen | null): Finding[] {
	const setting: SettingPath = `notices.pages.${settings.pages.indexOf(page)}`;
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
	page.zones.forEach((zone, n) => out.push(...judgeZone(settings, context, page, zone, n, screen)));
	return out;
}

/** Where a zone stands, and whether it can be read. */
function judgeZone(
	settings: NoticesSettings,
	context: Context,
	page: Page,
	zone: Zone,
	n: number,
	screen: NoticeScreen | null
): Finding[] {
	const setting: SettingPath = `notices.pages.${settings.pages.indexOf(page)}`;
	const out: Finding[] = [];
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
	out.push(...judgeContent(settings, context, page, zone, { name, id, setting, to }));
	if (screen) out.push(...assessSight(settings, context, page, zone, screen, { name, id, setting, to }));
	return out;
}

/** Whether what a zone shows is there. */
function judgeContent(
	settings: NoticesSettings,
	context: Context,
	page: Page,
	zone: Zone,
	{
		name,
		id,
		setting,
		to
	}: { name: string; id: string; setting: SettingPath; to: (label: string, more: Partial<Zone>) => Fix }
): Finding[] {
	const out: Finding[] = [];
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
					apply: change((all) => ({ ...all, pages: withoutZone(all.pages, page.id, zone.id) }))
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
			why: 'Choose an entry of the sources. Drop files under Sources to add them.',
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
	return out;
}

/** A picture over the whole page. */
const isBackground = (zone: Zone, { columns, rows }: NoticesSettings['grid']): boolean =>
	(zone.shows === 'picture' || zone.shows === 'photographs' || zone.shows === 'film') &&
	zone.w === columns &&
	zone.h === rows;

function columnsGone(
	zone: Zone,
	feed: Feed,
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
